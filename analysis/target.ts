import type { Box } from '../core/geometry/shapes.ts'
import type { Told } from './detector/asking.ts'
import { blendColours } from './appearance.ts'
import type { FoundFace } from './faces.ts'
import type { Blob } from './foreground.ts'
import { Kalman } from './kalman.ts'

/** A followed target at one frame, in analysed pixels. */
export interface SeenRow extends Box {
  frame: number
  /** Measured: from a patch of its own. Otherwise part of a group's patch. */
  measured: boolean
  area: number
  /** Seen in a place that wavers. */
  wavers: boolean
}

export const overlap = (a: Box, b: Box): number => {
  const w = Math.min(a.x + a.w, b.x + b.w) - Math.max(a.x, b.x)
  const h = Math.min(a.y + a.h, b.y + b.h) - Math.max(a.y, b.y)
  return w > 0 && h > 0 ? w * h : 0
}

/** Intersection over union of two boxes. */
export const iou = (a: Box, b: Box): number => {
  const common = overlap(a, b)
  return common / (a.w * a.h + b.w * b.h - common)
}

/** One target being followed: where it is and moves, how large it is, what it looks like, its rows so far. */
export class Followed {
  readonly rows: SeenRow[] = []
  readonly colours: Float32Array
  /** What the detector said of it. */
  readonly told: Told[] = []
  /** Frames in which the detector looked at its head, in order, and what face it saw there. */
  readonly looked: { frame: number; face: FoundFace | null }[] = []
  /** Frames since it was last seen. */
  missed = 0
  seen = 0
  /** Frames, counted down again, in which its patch was in two large pieces. */
  apart = 0
  private readonly cx: Kalman
  private readonly foot: Kalman
  private readonly w: Kalman
  private readonly h: Kalman

  constructor(blob: Blob, frame: number) {
    const scale = blob.h
    const noise = 0.05 * scale + 0.5
    this.cx = new Kalman(blob.x + blob.w / 2, noise, 1.2 * scale, 1.5 * scale)
    this.foot = new Kalman(blob.y + blob.h, noise, 0.8 * scale, 1 * scale)
    this.w = new Kalman(blob.w, noise, 0.3 * scale, 0.3 * scale)
    this.h = new Kalman(blob.h, noise, 0.3 * scale, 0.3 * scale)
    this.colours = Float32Array.from(blob.colours)
    this.note(blob, frame, true)
  }

  get box(): Box {
    const w = Math.max(2, this.w.value)
    const h = Math.max(2, this.h.value)
    return { x: this.cx.value - w / 2, y: this.foot.value - h, w, h }
  }

  /** Pixels per second. */
  get velocity(): [number, number] {
    return [this.cx.velocity, this.foot.velocity]
  }

  predict(dt: number): void {
    for (const filter of [this.cx, this.foot, this.w, this.h]) filter.predict(dt)
    // Sizes drift when unseen; only the place is worth extrapolating.
    if (this.missed > 0) this.w.velocity = this.h.velocity = 0
  }

  /** Seen as a patch of its own. */
  correct(blob: Blob, frame: number): void {
    const noise = 0.05 * this.box.h + 0.5
    this.cx.correct(blob.x + blob.w / 2, noise)
    this.foot.correct(blob.y + blob.h, noise)
    this.w.correct(blob.w, 2 * noise)
    this.h.correct(blob.h, 2 * noise)
    blendColours(this.colours, blob.colours, this.seen < 5 ? 0.4 : 0.08)
    this.note(blob, frame, true)
  }

  /** Seen within a group's patch: the place is uncertain, size and looks are not touched. */
  correctInGroup(cx: number, foot: number, frame: number): void {
    const noise = 0.25 * this.box.h
    this.cx.correct(cx, noise)
    this.foot.correct(foot, noise)
    this.note({ ...this.box, area: 0, wavers: false }, frame, false)
  }

  /** Still where it was. */
  rest(frame: number): void {
    const { x, y, w, h } = this.rows.at(-1)!
    this.cx.velocity = this.foot.velocity = 0
    this.rows.push({ frame, x, y, w, h, measured: false, area: 0, wavers: false })
    this.missed = 0
  }

  private note(
    { x, y, w, h, area, wavers }: Box & { area: number; wavers: boolean },
    frame: number,
    measured: boolean
  ): void {
    // Frames in which it was hidden are filled in between, now that it is known to have gone on.
    const last = this.rows[this.rows.length - 1]
    if (last)
      for (let f = last.frame + 1; f < frame; f++) {
        const t = (f - last.frame) / (frame - last.frame)
        const mix = (a: number, b: number): number => a + (b - a) * t
        this.rows.push({
          frame: f,
          x: mix(last.x, x),
          y: mix(last.y, y),
          w: mix(last.w, w),
          h: mix(last.h, h),
          measured: false,
          area: 0,
          wavers
        })
      }
    this.rows.push({ frame, x, y, w, h, measured, area, wavers })
    this.missed = 0
    this.seen++
  }
}

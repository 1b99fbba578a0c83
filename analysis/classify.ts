import { CLASSES, type TargetClass } from '../core/targets/classes.ts'
import type { Told } from './detector/asking.ts'
import type { FrameSize } from './frames.ts'
import { median } from './median.ts'
import type { SeenRow } from './target.ts'

/**
 * The class of a target, row by row, from its size, shape and movement. The rules are written down, with their
 * reasons, in docs/classification.md; keep the two together.
 */

/** Rows that are looked at for one vote, in seconds; about one step of a walker. */
const WINDOW_SECONDS = 1
/** Votes fade, so that a class can change when the evidence does; the half-life in seconds. */
const HALF_LIFE_SECONDS = 3
/** A class must have been voted for this long before rows carry one. */
const MIN_VOTES_SECONDS = 0.4

export interface Shape {
  /** Height over width, the median of the window. */
  upright: number
  /** How much the width swings, as a share of its mean: legs and wings do, bodies of vehicles do not. */
  swing: number
  /** Body heights per second. */
  pace: number
  /** Share of the picture's height, and of its area. */
  height: number
  area: number
}

/** One vote: what a target of this shape most likely is. */
export function classOfShape({ upright, pace, height, area, swing }: Shape): TargetClass {
  if (upright >= 1.3 && upright <= 6) return pace > 2.2 && upright < 2.2 ? 'cycle' : 'person'
  if (upright >= 0.85) {
    // Two people side by side, somebody crouching, or a rider: a rider is fast.
    if (pace > 1.6) return 'cycle'
    return height > 0.09 ? 'person' : 'unknown'
  }
  if (area > 0.012 && swing < 0.25) return 'vehicle'
  if (height <= 0.12 && area <= 0.012) return 'animal'
  return 'unknown'
}

/** Whether a box is cut by the picture's edge: its shape then says nothing. */
const atEdge = ({ x, y, w, h }: SeenRow, size: FrameSize): boolean =>
  x <= 1 || y <= 1 || x + w >= size.width - 1 || y + h >= size.height - 1

function shapeOf(rows: SeenRow[], fps: number, size: FrameSize): Shape {
  const widths = rows.map((r) => r.w)
  const mean = widths.reduce((a, b) => a + b) / widths.length
  const first = rows[0]!
  const last = rows[rows.length - 1]!
  const height = median(rows.map((r) => r.h))
  const moved = Math.hypot(
    last.x + last.w / 2 - first.x - first.w / 2,
    last.y + last.h - first.y - first.h
  )
  const elapsed = Math.max(1, last.frame - first.frame) / fps
  return {
    upright: median(rows.map((r) => r.h / r.w)),
    swing: Math.sqrt(widths.reduce((sum, w) => sum + (w - mean) ** 2, 0) / widths.length) / mean,
    pace: moved / elapsed / height,
    height: height / size.height,
    area: median(rows.map((r) => r.w * r.h)) / (size.width * size.height)
  }
}

/** Where things waver, and while the background is still being learned, only a target that has travelled gets a class. */
const TRAVEL_SECONDS = 6
const TRAVEL_BIN_SECONDS = 0.5
const LEARNING_SECONDS = 10

/**
 * Whether a target goes somewhere rather than to and fro: its places, each the mean of half a second, lie in line
 * (net way at least 0.7 of the whole), for two seconds or more, and it has covered 0.8 of its mean height.
 */
function travels(rows: readonly SeenRow[], fps: number): boolean {
  const bin = Math.max(1, Math.round(TRAVEL_BIN_SECONDS * fps))
  const places: { x: number; y: number; h: number }[] = []
  for (
    let end = rows.length;
    end >= bin && places.length < TRAVEL_SECONDS / TRAVEL_BIN_SECONDS;
    end -= bin
  ) {
    let [x, y, h] = [0, 0, 0]
    for (let i = end - bin; i < end; i++) {
      x += (rows[i]!.x + rows[i]!.w / 2) / bin
      y += (rows[i]!.y + rows[i]!.h) / bin
      h += rows[i]!.h / bin
    }
    places.push({ x, y, h })
  }
  if (places.length < 4) return false
  const step = (a: { x: number; y: number }, b: { x: number; y: number }): number =>
    Math.hypot(a.x - b.x, a.y - b.y)
  const net = step(places[0]!, places[places.length - 1]!)
  const whole = places.slice(1).reduce((sum, p, i) => sum + step(p, places[i]!), 0)
  const height = places.reduce((sum, p) => sum + p.h, 0) / places.length
  return net >= 0.7 * whole && net >= 0.8 * height
}

/**
 * One answer of the detector that is sure of itself counts as much as this many seconds of votes of the shape, and fades
 * more slowly: it does not come with every picture.
 */
const TOLD_SECONDS = 12
const TOLD_HALF_LIFE_SECONDS = 12
/** A camera that looks at every picture would have known it by then; the detector looks at one in two seconds at most. */
const TOLD_BEFORE_SECONDS = 1

/** The class of a row, and its share of all that was voted, 0 to 1; 0 while it is unknown. */
interface RowClass {
  cls: TargetClass
  likelihood: number
}

/**
 * The class of each row of a target, looking only back; what the detector said counts from a second before.
 *
 * @param told what the detector said of it, in the order of frames
 */
export function classify(
  rows: readonly SeenRow[],
  fps: number,
  size: FrameSize,
  told: readonly Told[] = []
): RowClass[] {
  const shape = new Votes(HALF_LIFE_SECONDS * fps)
  const detector = new Votes(TOLD_HALF_LIFE_SECONDS * fps)
  const needed = MIN_VOTES_SECONDS * fps
  const before = TOLD_BEFORE_SECONDS * fps
  const recent: SeenRow[] = []
  let answered = 0
  let settled = false
  return rows.map((row, index) => {
    shape.fade()
    detector.fade()
    for (; answered < told.length && told[answered]!.frame <= row.frame + before; answered++) {
      const { cls, likelihood } = told[answered]!
      detector.add(cls, TOLD_SECONDS * fps * likelihood)
    }
    if (row.measured && !atEdge(row, size)) {
      recent.push(row)
      while (row.frame - recent[0]!.frame > WINDOW_SECONDS * fps) recent.shift()
      const doubtful = row.wavers || row.frame < LEARNING_SECONDS * fps
      if (
        recent.length >= 3 &&
        (!doubtful ||
          travels(rows.slice(Math.max(0, index + 1 - TRAVEL_SECONDS * fps), index + 1), fps))
      )
        shape.add(classOfShape(shapeOf(recent, fps, size)), 1)
    }
    const sums = CLASSES.map((cls) => shape.of(cls) + detector.of(cls))
    const most = Math.max(...sums)
    const all = sums.reduce((a, b) => a + b, 0)
    // A settled class stays, however weak its votes become, until another one outvotes it.
    settled ||= most >= needed
    const cls = settled ? CLASSES[sums.indexOf(most)]! : 'unknown'
    return { cls, likelihood: cls === 'unknown' ? 0 : most / all }
  })
}

/** Votes for classes, which fade. */
class Votes {
  private readonly counts = new Map<TargetClass, number>()
  private readonly kept: number

  /** @param halfLife in rows */
  constructor(halfLife: number) {
    this.kept = 0.5 ** (1 / halfLife)
  }

  fade(): void {
    for (const [cls, count] of this.counts) this.counts.set(cls, count * this.kept)
  }

  add(cls: TargetClass, count: number): void {
    this.counts.set(cls, this.of(cls) + count)
  }

  of(cls: TargetClass): number {
    return this.counts.get(cls) ?? 0
  }
}

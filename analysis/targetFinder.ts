import type CV from '@techstark/opencv-js'
import type { Box } from '../core/geometry/shapes.ts'
import type { TargetClass } from '../core/targets/classes.ts'
import { faceKey, type Face } from '../core/targets/faces.ts'
import { tracksFromRows, type TargetRow, type Tracks } from '../core/targets/tracks.ts'
import { classify } from './classify.ts'
import type { Stander } from './detector/standing.ts'
import { findFace, type FoundFace } from './faces.ts'
import { Following } from './following.ts'
import type { FrameSize } from './frames.ts'
import { withStanders } from './standers.ts'
import type { Followed, SeenRow } from './target.ts'
import { facesOf } from './targetFaces.ts'

/** Finds what moves in pictures, follows it, gives it a class, and looks for its face. */
export class TargetFinder {
  private readonly size: FrameSize
  private readonly fps: number
  private readonly moving: Following
  private readonly faces = new Map<number, FoundFace[]>()
  private frames = 0

  /** @param size of the pictures that will be given, in pixels */
  constructor(cv: typeof CV, size: FrameSize, fps: number) {
    this.size = size
    this.fps = fps
    this.moving = new Following(cv, size, fps, (target) => isKept(target, fps))
  }

  /** Targets that are being followed after the last picture. */
  get following(): readonly Followed[] {
    return this.moving.tracker.following
  }

  /** Takes the next picture (blue, green, red bytes); null: none came. */
  next(picture: Uint8Array | null): void {
    this.frames++
    if (!picture) return
    const patches = this.moving.next(picture, this.frames)
    const found = patches.flatMap((patch) => findFace(picture, this.size, patch) ?? [])
    if (found.length) this.faces.set(this.frames, found)
  }

  /**
   * The targets of all pictures; ends all that are followed.
   *
   * @param standers what stood there from the first picture on, by the detector
   */
  finish(standers: readonly Stander[] = []): Tracks {
    const { fps, frames, size } = this
    return tracksOf(this.moving.tracker.finish(), standers, { fps, frames, size }, this.faces)
  }

  delete(): void {
    this.moving.delete()
  }
}

/** A target is kept when it was there for half a second and got from its place by a share of its size. */
const KEPT_SECONDS = 0.5
const KEPT_DISTANCE = 0.4
/** What is so many times as wide as high is kept when it got on by its whole width. */
const LONG = 8

export function isKept({ rows, seen }: Followed, fps: number): boolean {
  if (seen < KEPT_SECONDS * fps) return false
  const sumOf = (size: (row: Box) => number): number =>
    rows.reduce((sum, row) => sum + size(row), 0)
  if (sumOf(({ w }) => w) > LONG * sumOf(({ h }) => h)) return getsOn(rows)
  const reach = Math.max(...rows.map((row) => distance(rows[0]!, row)))
  return reach >= (KEPT_DISTANCE * sumOf(({ w, h }) => Math.max(w, h))) / rows.length
}

/**
 * Whether it got from its place by its whole width, as wide as it was until then: a tape in the wind, of which now this
 * part moves and now that, seems to slide along itself.
 */
function getsOn(rows: readonly SeenRow[]): boolean {
  let [reach, widest] = [0, 0]
  return rows.some((row) => {
    reach = Math.max(reach, distance(rows[0]!, row))
    widest = Math.max(widest, row.w)
    return reach >= widest
  })
}

/** Between the middles of the feet. */
const distance = (a: Box, b: Box): number =>
  Math.hypot(b.x + b.w / 2 - a.x - a.w / 2, b.y + b.h - a.y - a.h)

/** Kept targets as columns, numbered from 1 in the order in which they came into view. */
function tracksOf(
  targets: Followed[],
  standers: readonly Stander[],
  { fps, frames, size }: { fps: number; frames: number; size: FrameSize },
  found: Map<number, FoundFace[]>
): Tracks {
  const kept = withStanders(
    targets.filter((target) => isKept(target, fps)),
    standers,
    fps,
    frames
  )
  const rows: TargetRow[] = []
  const faces = new Map<string, Face>()
  kept.forEach(({ stood, target }, index) => {
    const id = index + 1
    const add = (frame: number, box: Box, cls: TargetClass, confidence: number): void => {
      rows.push({ frame, id, ...shareOf(box, size), cls, confidence })
    }
    if (stood)
      for (let frame = stood.from; frame <= stood.to; frame++)
        add(frame, stood, stood.cls, stood.likelihood)
    if (!target) return
    const told = stood ? [{ ...stood, frame: target.rows[0]!.frame }, ...target.told] : target.told
    const classes = classify(target.rows, fps, size, told)
    const ofTarget = facesOf(target, found, fps)
    target.rows.forEach((row, i) => {
      const face = ofTarget.get(row.frame)
      if (face)
        faces.set(faceKey(row.frame, id), { ...shareOf(face, size), mask: face.mask, name: null })
      add(row.frame, row, classes[i]!.cls, classes[i]!.likelihood)
    })
  })
  return { ...tracksFromRows(rows, fps), faces }
}

/** A box in shares of the picture. */
export const shareOf = ({ x, y, w, h }: Box, size: FrameSize): Box => ({
  x: x / size.width,
  y: y / size.height,
  w: w / size.width,
  h: h / size.height
})

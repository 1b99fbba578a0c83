import type { TargetClass } from '../core/targets/classes.ts'
import type { FrameSize } from './frames.ts'
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
const LEAST_VOTES_SECONDS = 0.4

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

const median = (values: number[]): number => {
  const sorted = [...values].sort((a, b) => a - b)
  return sorted[sorted.length >> 1]
}

/** Whether a box is cut by the picture's edge: its shape then says nothing. */
const atEdge = ({ x, y, w, h }: SeenRow, size: FrameSize): boolean => x <= 1 || y <= 1 || x + w >= size.width - 1 || y + h >= size.height - 1

function shapeOf(rows: SeenRow[], fps: number, size: FrameSize): Shape {
  const widths = rows.map((r) => r.w)
  const mean = widths.reduce((a, b) => a + b) / widths.length
  const first = rows[0]
  const last = rows[rows.length - 1]
  const height = median(rows.map((r) => r.h))
  const moved = Math.hypot(last.x + last.w / 2 - first.x - first.w / 2, last.y + last.h - first.y - first.h)
  const elapsed = Math.max(1, last.frame - first.frame) / fps
  return {
    upright: median(rows.map((r) => r.h / r.w)),
    swing: Math.sqrt(widths.reduce((sum, w) => sum + (w - mean) ** 2, 0) / widths.length) / mean,
    pace: moved / elapsed / height,
    height: height / size.height,
    area: median(rows.map((r) => r.w * r.h)) / (size.width * size.height)
  }
}

/** The class of each row of a target, looking only back. */
export function classify(rows: readonly SeenRow[], fps: number, size: FrameSize): TargetClass[] {
  const votes = new Map<TargetClass, number>()
  const fade = 0.5 ** (1 / (HALF_LIFE_SECONDS * fps))
  const needed = LEAST_VOTES_SECONDS * fps
  const recent: SeenRow[] = []
  let told = false
  return rows.map((row) => {
    for (const [name, count] of votes) votes.set(name, count * fade)
    if (row.measured && !atEdge(row, size)) {
      recent.push(row)
      while (row.frame - recent[0].frame > WINDOW_SECONDS * fps) recent.shift()
      if (recent.length >= 3) {
        const vote = classOfShape(shapeOf(recent, fps, size))
        votes.set(vote, (votes.get(vote) ?? 0) + 1)
      }
    }
    let best: TargetClass = 'unknown'
    let most = 0
    for (const [name, count] of votes) if (count > most) [best, most] = [name, count]
    // What has once been told is kept, however thin the votes become, until something else outvotes it.
    told ||= most >= needed
    return told ? best : 'unknown'
  })
}

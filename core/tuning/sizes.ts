import { heightOf, type CameraPose } from '../scene/camera.ts'
import type { Detection } from '../formats/plan.ts'
import { contains, side, type Point } from '../geometry/shapes.ts'
import { spansOf, type TargetSpan, type Tracks } from '../targets/tracks.ts'
import type { TargetClass } from '../targets/classes.ts'
import { quantile } from './quantile.ts'

/** How large a target was at one place of the picture. */
export interface SeenSize {
  target: number
  cls: TargetClass
  /** Where its feet were, 0 (far, at the top) to 1. */
  foot: number
  w: number
  h: number
  /** Height in metres on a calibrated scene; null: not known there. */
  metres: number | null
  /** At the detection's shape: there its size decides. */
  atShape: boolean
}

/** Of every target so many places at most: enough for a picture of it. */
const PLACES = 24
/** So near to a line, as a share of the picture, a target is at it. */
const NEAR_LINE = 0.08

function nearLine(line: readonly Point[], x: number, y: number): boolean {
  return line.slice(1).some(([bx, by], i) => {
    const [ax, ay] = line[i]!
    const length = Math.hypot(bx - ax, by - ay)
    const along = ((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / length
    return (
      along >= -NEAR_LINE &&
      along <= length + NEAR_LINE &&
      Math.abs(side(ax, ay, bx, by, x, y)) / length <= NEAR_LINE
    )
  })
}

/** How large the targets of a clip are, near and far, and which of these places are at the detection's shape. */
export function sizesIn(
  d: Detection,
  tracks: Tracks,
  pose: CameraPose | null = null,
  spans: readonly TargetSpan[] = spansOf(tracks)
): SeenSize[] {
  const at = (x: number, y: number): boolean =>
    'zone' in d ? contains(d.zone, x, y) : 'line' in d ? nearLine(d.line, x, y) : true
  return spans.flatMap(({ id, cls, rows }) => {
    const every = Math.max(1, Math.ceil(rows.length / PLACES))
    return rows
      .filter((_, n) => n % every === 0)
      .map((i): SeenSize => {
        const [x, y, w, h] = [tracks.x[i]!, tracks.y[i]!, tracks.w[i]!, tracks.h[i]!]
        return {
          target: id,
          cls,
          foot: y + h,
          w,
          h,
          metres: pose && heightOf(pose, { x, y, w, h }),
          atShape: at(x + w / 2, y + h)
        }
      })
  })
}

/** Room left around what was seen: people differ, and a clip does not show them all. */
const ROOM = 1.25

/** Frames, and on a calibrated scene heights, between which the wanted targets of the clips lie. */
export interface FittedSizes {
  targets: number
  min: { w: number; h: number }
  max: { w: number; h: number }
  /** Null: the scene is not measured. */
  metres: { min: number; max: number } | null
}

const round = (v: number, to: number): number => Math.round(v * to) / to

/**
 * Size limits that let through what was seen of the wanted classes at the shape, with some room: each frame a quarter
 * beyond the smallest and the largest target, of which one place in fifty may be off.
 *
 * @returns null when no wanted target was at the shape
 */
export function fitSizes(
  sizes: readonly SeenSize[],
  classes: readonly TargetClass[]
): FittedSizes | null {
  const wanted = sizes.filter((s) => s.atShape && (classes.length === 0 || classes.includes(s.cls)))
  if (!wanted.length) return null
  const [low, high] = [
    (key: 'w' | 'h'): number =>
      quantile(
        wanted.map((s) => s[key]),
        0.02
      ),
    (key: 'w' | 'h'): number =>
      quantile(
        wanted.map((s) => s[key]),
        0.98
      )
  ]
  const metres = wanted.flatMap((s) => (s.metres === null ? [] : [s.metres]))
  return {
    targets: new Set(wanted.map((s) => s.target)).size,
    min: {
      w: Math.max(0.001, round(low('w') / ROOM, 1000)),
      h: Math.max(0.001, round(low('h') / ROOM, 1000))
    },
    max: {
      w: Math.min(1, round(high('w') * ROOM, 1000)),
      h: Math.min(1, round(high('h') * ROOM, 1000))
    },
    metres: metres.length
      ? {
          min: round(quantile(metres, 0.02) / ROOM, 20),
          max: round(quantile(metres, 0.98) * ROOM, 20)
        }
      : null
  }
}

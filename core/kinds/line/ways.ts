import { needOf } from '../../detections/need.ts'
import {
  along,
  isInFront,
  isSeen,
  round,
  tracksOn,
  turnBack,
  unit,
  type Walkers
} from '../../proving/onGround.ts'
import { bare, groundOf, type Ground, type Stage, type Way } from '../../proving/stage.ts'
import type { LineDetection } from './schema.ts'

/** Ways over the ground that do to a line what is asked: found by trying them on the calibrated scene. */

/** A sensitivity at which so much of the body is needed; the field takes whole and broken numbers alike. */
const sensitivityOf = (need: number): number => Math.min(100, Math.max(1, 100 * (1 - need)))
const REACHES = [1.5, 2.5, 4, 6, 9]

export interface LineWays {
  leftToRight: Way | null
  rightToLeft: Way | null
  /** Beside the line, without a part of the body over it. */
  beside: Way | null
  /**
   * Over and back: with somewhat more, and somewhat less of the body over than is needed; `for`
   * tells the direction.
   */
  deep: Way | null
  shallow: Way | null
}

/** Where along a line a crossing is tried, the best places first. */
const PLACES = [0.5, 0.3, 0.7, 0.15, 0.85]

/**
 * Ways about a line.
 *
 * @param places shares of the line's length at which it may be crossed, the first that can be walked is taken
 * @returns all null where the line is not on ground that can be walked
 */
export function lineWays(
  walkers: Walkers,
  d: LineDetection,
  places: readonly number[] = PLACES
): LineWays {
  const none: LineWays = {
    leftToRight: null,
    rightToLeft: null,
    beside: null,
    deep: null,
    shallow: null
  }
  const need = needOf(d.sensitivity)
  const wanted = d.direction === 'rightToLeft' ? 'rightToLeft' : 'leftToRight'
  for (const { at, across, beside } of crossings(walkers.stage, d, places)) {
    const way = (direction: 'leftToRight' | 'rightToLeft', sensitivity: number): Way | null => {
      for (const before of REACHES)
        for (const after of REACHES) {
          const [a, b] = [round(along(at, across, -before)), round(along(at, across, after))]
          const candidate: Way = direction === 'leftToRight' ? [a, b] : [b, a]
          if (!isInFront(candidate)) continue
          const seen = bare(d, tracksOn(walkers, candidate), {
            direction: 'both',
            sensitivity
          })
          if (seen.length === 1 && seen[0]!.direction === direction && isSeen(walkers, candidate))
            return candidate
        }
      return null
    }
    // Wholly over where the scene has room for it, else as far as is needed.
    const over = (direction: 'leftToRight' | 'rightToLeft'): Way | null =>
      way(direction, 1) ?? way(direction, sensitivityOf(Math.min(0.99, need * 1.1)))
    const [leftToRight, rightToLeft] = [over('leftToRight'), over('rightToLeft')]
    const main = wanted === 'leftToRight' ? leftToRight : rightToLeft
    const [begin, end] = main ?? []
    if (!begin || !end) continue
    const turning = (least: number, most: number): Way | null =>
      turnBack(walkers, [begin, end], (tracks) => {
        const asked = { direction: wanted } as Partial<LineDetection>
        return (
          bare(d, tracks, { ...asked, sensitivity: sensitivityOf(least) }).length > 0 &&
          bare(d, tracks, { ...asked, sensitivity: sensitivityOf(most) }).length === 0
        )
      })
    return {
      leftToRight,
      rightToLeft,
      beside: besideLine(walkers, d, at, across, beside),
      deep: turning(Math.min(0.99, need * 1.08), 1.1),
      shallow: turning(Math.max(0.01, need * 0.4), need * 0.92)
    }
  }
  return none
}

/**
 * Places of a line where it can be crossed, with the direction across it (left to right) and beside
 * it, on the ground.
 */
function* crossings(
  stage: Stage,
  { line }: LineDetection,
  places: readonly number[]
): Generator<{ at: Ground; across: Ground; beside: Ground }> {
  for (const t of places) {
    const place = t * (line.length - 1)
    const k = Math.min(line.length - 2, Math.floor(place))
    const [p, q] = [line[k]!, line[k + 1]!]
    const s = place - k
    const at = groundOf(stage.pose, p[0] + (q[0] - p[0]) * s, p[1] + (q[1] - p[1]) * s)
    const [a, b] = [
      groundOf(
        stage.pose,
        p[0] + (q[0] - p[0]) * Math.max(0, s - 0.1),
        p[1] + (q[1] - p[1]) * Math.max(0, s - 0.1)
      ),
      groundOf(
        stage.pose,
        p[0] + (q[0] - p[0]) * Math.min(1, s + 0.1),
        p[1] + (q[1] - p[1]) * Math.min(1, s + 0.1)
      )
    ]
    const beside = a && b && unit(a, b)
    // Left on the picture is left on the ground, as the camera looks from above: right of (x, z) is (z, -x).
    if (at && beside) yield { at, across: [beside[1], -beside[0]], beside }
  }
}

function besideLine(
  walkers: Walkers,
  d: LineDetection,
  at: Ground,
  across: Ground,
  beside: Ground
): Way | null {
  for (const off of [1, 1.5, 2, 3, 4, 6, 9])
    for (const side of [1, -1])
      for (const reach of [3, 2, 1.2]) {
        const middle = along(at, across, side * off)
        const way: Way = [round(along(middle, beside, -reach)), round(along(middle, beside, reach))]
        if (
          isInFront(way) &&
          isSeen(walkers, way) &&
          bare(d, tracksOn(walkers, way), {
            direction: 'both',
            sensitivity: 100
          }).length === 0
        )
          return way
      }
  return null
}

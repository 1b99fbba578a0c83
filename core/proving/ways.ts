import { needOf } from '../detections/line.ts'
import { Zone } from '../detections/zone.ts'
import type { Detection, LineDetection } from '../formats/plan.ts'
import { USUAL_ACTORS, type ActorKind } from '../formats/walk.ts'
import type { Tracks } from '../targets/tracks.ts'
import {
  actor,
  bare,
  boxesOf,
  groundOf,
  plainWalk,
  secondsOf,
  type Ground,
  type Stage,
  type Way
} from './stage.ts'

/**
 * Ways over the ground that do to a detection's shape what is asked: found by trying them on the measured scene.
 */

/** A sensitivity at which so much of the body is needed; the field takes whole and broken numbers alike. */
const sensitivityOf = (need: number): number => Math.min(100, Math.max(1, 100 * (1 - need)))
const REACHES = [1.5, 2.5, 4, 6, 9]
const STEPS = 24

/** A camera's scene, and of what kind those are that walk on it. */
export interface Walkers {
  stage: Stage
  who: ActorKind
}

const tracksOn = ({ stage, who }: Walkers, way: Way): Tracks => {
  const { speed } = USUAL_ACTORS[who]
  return stage.tracksOf(
    plainWalk(Math.max(1, secondsOf(way, speed) + 0.5), [actor(who, way, { speed })])
  )
}

/** Whether a way has more than its first moments in the picture. */
const isSeen = (walkers: Walkers, way: Way): boolean =>
  boxesOf(tracksOn(walkers, way), 1).length >= 1.2 * walkers.stage.fps

const along = (from: Ground, direction: Ground, metres: number): Ground => [
  from[0] + direction[0] * metres,
  from[1] + direction[1] * metres
]
const unit = (a: Ground, b: Ground): Ground | null => {
  const length = Math.hypot(b[0] - a[0], b[1] - a[1])
  return length > 0.05 ? [(b[0] - a[0]) / length, (b[1] - a[1]) / length] : null
}
const round = ([x, z]: Ground): Ground => [Math.round(x * 100) / 100, Math.round(z * 100) / 100]
/** Whether the feet stay before the camera. */
const isInFront = (way: Way): boolean => way.every(([, z]) => z > 0.5)

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
          if (seen.length === 1 && seen[0].direction === direction && isSeen(walkers, candidate))
            return candidate
        }
      return null
    }
    // Wholly over where the scene has room for it, else as far as is needed.
    const over = (direction: 'leftToRight' | 'rightToLeft'): Way | null =>
      way(direction, 1) ?? way(direction, sensitivityOf(Math.min(0.99, need * 1.1)))
    const [leftToRight, rightToLeft] = [over('leftToRight'), over('rightToLeft')]
    const main = wanted === 'leftToRight' ? leftToRight : rightToLeft
    if (!main) continue
    const turning = (least: number, most: number): Way | null =>
      turnBack(walkers, main, (tracks) => {
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
    const [p, q] = [line[k], line[k + 1]]
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

/** A part of a way and back again, as far as asked. */
function turnBack(
  walkers: Walkers,
  [from, to]: Way,
  fits: (tracks: Tracks) => boolean
): Way | null {
  for (let i = 1; i < STEPS; i++) {
    const turn = round([
      from[0] + ((to[0] - from[0]) * i) / STEPS,
      from[1] + ((to[1] - from[1]) * i) / STEPS
    ])
    const way: Way = [from, [...turn, 0.6], from]
    if (fits(tracksOn(walkers, way))) return way
  }
  return null
}

export interface ZoneWays {
  /** In, to the place where most of the body is in the zone, and out again. */
  into: Way | null
  /** From the place in the zone to outside. */
  outOf: Way | null
  /** Past it, with less than half of what is needed of the body in it. */
  beside: Way | null
  /** Into it with somewhat more, and somewhat less of the body than is needed. */
  deep: Way | null
  shallow: Way | null
  /** The largest share of the body that can be in the zone, 0 to 1. */
  most: number
}

type ZoneDetection = Extract<Detection, { zone: unknown }>
const HEADINGS = Array.from({ length: 16 }, (_, i): Ground => [
  Math.cos((i * Math.PI) / 8),
  Math.sin((i * Math.PI) / 8)
])

/** Ways about a zone. */
export function zoneWays(walkers: Walkers, d: ZoneDetection): ZoneWays {
  const need = needOf(d.sensitivity)
  const zone = new Zone(d.zone)
  const shares = (way: Way): { share: number; time: number }[] =>
    boxesOf(tracksOn(walkers, way), 1).map((box) => ({ share: zone.share(box), time: box.time }))
  const standing = (at: Ground): number =>
    shares([[...at, 0.4], along(at, [1, 0], 0.05)]).at(0)?.share ?? 0
  const [place, most] = bestPlace(walkers.stage, d, standing)
  const none: ZoneWays = { into: null, outOf: null, beside: null, deep: null, shallow: null, most }
  if (!place || most < need) return none
  const approaches = HEADINGS.flatMap((heading) => {
    for (const metres of [1.5, 2, 3, 4, 5, 7, 9, 12]) {
      const start = round(along(place, heading, metres))
      if (start[1] <= 0.5) return []
      const seen = shares([start, place])
      if (seen.length && seen[0].share === 0 && seen[0].time < 0.2)
        return [{ start, heading, metres }]
    }
    return []
  }).sort((a, b) => a.metres - b.metres)
  const [best] = approaches
  if (!best) return { ...none, into: null }
  const { start } = best
  const deepest = (way: Way): number => Math.max(0, ...shares(way).map(({ share }) => share))
  const turning = (least: number, under: number): Way | null =>
    turnBack(walkers, [start, place], (tracks) => {
      const deep = Math.max(0, ...boxesOf(tracks, 1).map((box) => zone.share(box)))
      return deep >= least && deep < under
    })
  const beside = approaches
    .flatMap(({ start: from, heading }) =>
      [0.5, 1, 2, 3].map((more): Way => {
        const middle = along(from, heading, more)
        return [
          round(along(middle, [heading[1], -heading[0]], -2.5)),
          round(along(middle, [heading[1], -heading[0]], 2.5))
        ]
      })
    )
    .find((way) => isInFront(way) && isSeen(walkers, way) && deepest(way) < need / 2)
  return {
    into: [start, place, start],
    outOf: [[...place, 1], start],
    beside: beside ?? null,
    deep: turning(Math.min(most, need * 1.03), Math.min(1, Math.max(most, need * 1.3)) + 1e-9),
    shallow: turning(need * 0.4, need * 0.95),
    most
  }
}

/** Where one stands with most of the body in the zone; the nearest to the zone's middle of those. */
function bestPlace(
  { pose }: Stage,
  { zone }: ZoneDetection,
  standing: (at: Ground) => number
): [Ground | null, number] {
  const xs = zone.map(([x]) => x)
  const ys = zone.map(([, y]) => y)
  const [left, right, top, bottom] = [
    Math.min(...xs),
    Math.max(...xs),
    Math.min(...ys),
    Math.max(...ys)
  ]
  let best: Ground | null = null
  let most = 0
  let nearest = Infinity
  const N = 14
  for (let j = 0; j <= N; j++)
    for (let i = 0; i <= N; i++) {
      const x = left + ((right - left) * i) / N
      const y = Math.min(0.995, top + ((bottom - top) * 1.15 * j) / N)
      const at = groundOf(pose, x, y)
      if (!at) continue
      const share = standing(round(at))
      const off = Math.hypot(x - (left + right) / 2, y - (top + bottom) / 2)
      if (share > most + 1e-6 || (share > most - 1e-6 && off < nearest))
        [best, most, nearest] = [round(at), Math.max(most, share), off]
    }
  return [best, most]
}

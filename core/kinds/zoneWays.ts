import { needOf } from '../detections/need.ts'
import { Zone } from '../detections/zone.ts'
import {
  along,
  isInFront,
  isSeen,
  round,
  tracksOn,
  turnBack,
  type Walkers
} from '../proving/onGround.ts'
import { boxesOf, groundOf, type Ground, type Stage, type Way } from '../proving/stage.ts'
import type { ZoneDetection } from './schemas.ts'

/** Ways over the ground that do to a zone what is asked: found by trying them on the calibrated scene. */

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
      if (seen.length && seen[0]!.share === 0 && seen[0]!.time < 0.2)
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

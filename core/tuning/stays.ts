import { INTRUSION_GRACE } from '../kinds/intrusion/run.ts'
import { needOf } from '../detections/index.ts'
import { Zone } from '../detections/zone.ts'
import type { Detection, TargetGated } from '../formats/plan.ts'
import { atLeast } from '../geometry/shapes.ts'
import { frameTime, spansOf, type TargetSpan, type Tracks } from '../targets/tracks.ts'
import { quantile } from './quantile.ts'

/** Detections whose targets must stay in a zone for some time. */
export type DwellDetection = Extract<Detection, { dwellSeconds: number }>

/** One target's longest stay in a zone, with as much of it in as the sensitivity asks for. */
export interface ZoneStay {
  target: number
  /** Of the clip, seconds. */
  from: number
  seconds: number
  /** It came in, went straight across and left: a passer-by. The others stay. */
  passing: boolean
}

/** Who goes this straight (the way from first to last over the way gone) is passing by. */
const STRAIGHT = 0.7

interface Going {
  first: number
  last: number
}

type Lingering = Pick<DwellDetection, 'zone' | 'sensitivity'> & Pick<TargetGated, 'classes'>

/** When a target of these rows is in the zone, with short absences bridged. */
function goingsIn(
  zone: Zone,
  need: number,
  grace: number,
  rows: readonly number[],
  tracks: Tracks
): Going[] {
  const found: Going[] = []
  for (let n = 0; n < rows.length; n++) {
    const i = rows[n]!
    if (
      !atLeast(
        zone.share({ x: tracks.x[i]!, y: tracks.y[i]!, w: tracks.w[i]!, h: tracks.h[i]! }),
        need
      )
    )
      continue
    const going = found[found.length - 1]
    if (going && timeOf(tracks, i) - timeOf(tracks, rows[going.last]!) <= grace) going.last = n
    else found.push({ first: n, last: n })
  }
  return found
}

const timeOf = (tracks: Tracks, i: number): number => frameTime(tracks.frame[i]!, tracks.fps)

/** How long the targets of the wanted classes stay in a zone: of each that does at all, its longest stay. */
export function staysIn(
  d: Lingering,
  tracks: Tracks,
  spans: readonly TargetSpan[] = spansOf(tracks)
): ZoneStay[] {
  const zone = new Zone(d.zone)
  const need = needOf(d.sensitivity)
  return spans
    .filter(({ cls }) => d.classes.length === 0 || d.classes.includes(cls))
    .flatMap(({ id, rows }) => {
      const length = ({ first, last }: Going): number =>
        timeOf(tracks, rows[last]!) - timeOf(tracks, rows[first]!)
      const goings = goingsIn(zone, need, INTRUSION_GRACE, rows, tracks)
      if (!goings.length) return []
      const longest = goings.reduce((a, b) => (length(b) >= length(a) ? b : a))
      return {
        target: id,
        from: timeOf(tracks, rows[longest.first]!),
        seconds: length(longest),
        passing:
          longest.first > 0 &&
          longest.last < rows.length - 1 &&
          isStraight(tracks, rows.slice(longest.first, longest.last + 1))
      }
    })
}

/**
 * A target that is timed by a zone: since when, until when, and when its dwell is or would be done.
 * Seconds of the clip.
 */
export interface TimedStay {
  target: number
  from: number
  to: number
  filled: number
}

/** Every stay that a detection with a dwell times, in order of their begin. */
export function timedStays(
  d: DwellDetection,
  tracks: Tracks,
  spans: readonly TargetSpan[] = spansOf(tracks)
): TimedStay[] {
  if (d.dwellSeconds === 0) return []
  const zone = new Zone(d.zone)
  const need = needOf(d.sensitivity)
  const grace = 'graceSeconds' in d ? d.graceSeconds : INTRUSION_GRACE
  return spans
    .filter(({ cls }) => d.classes.length === 0 || d.classes.includes(cls))
    .flatMap(({ id, rows }) =>
      goingsIn(zone, need, grace, rows, tracks).map(({ first, last }) => ({
        target: id,
        from: timeOf(tracks, rows[first]!),
        to: timeOf(tracks, rows[last]!),
        filled: timeOf(tracks, rows[first]!) + d.dwellSeconds
      }))
    )
    .sort((a, b) => a.from - b.from || a.target - b.target)
}

function isStraight(tracks: Tracks, rows: readonly number[]): boolean {
  const foot = (i: number): [number, number] => [
    tracks.x[i]! + tracks.w[i]! / 2,
    tracks.y[i]! + tracks.h[i]!
  ]
  const between = (a: number, b: number): number =>
    Math.hypot(foot(b)[0] - foot(a)[0], foot(b)[1] - foot(a)[1])
  let gone = 0
  for (let n = 1; n < rows.length; n++) gone += between(rows[n - 1]!, rows[n]!)
  return gone > 0 && between(rows[0]!, rows[rows.length - 1]!) / gone >= STRAIGHT
}

/** Fewer passers-by say nothing of how long one takes. */
const MIN_PASSERS = 3

/**
 * A dwell just above what passers-by take: nine in ten of them, and half a second more, to the next whole second.
 *
 * @returns null when there are too few to say
 */
export function dwellAbovePassers(
  stays: readonly ZoneStay[]
): { usual: number; dwell: number } | null {
  const took = stays.filter(({ passing }) => passing).map(({ seconds }) => seconds)
  if (took.length < MIN_PASSERS) return null
  const usual = quantile(took, 0.9)
  return { usual, dwell: Math.ceil(usual + 0.5) }
}

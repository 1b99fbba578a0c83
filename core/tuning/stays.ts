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

/** A stay goes on through rows out for this long, as an intrusion's does (docs/detections.md). */
const GRACE = 1
/** Who goes this straight (the way from first to last over the way gone) is passing by. */
const STRAIGHT = 0.7

interface Going {
  first: number
  last: number
}

/** How long the targets of the wanted classes stay in a zone: of each that does at all, its longest stay. */
export function staysIn(d: Pick<DwellDetection, 'zone' | 'sensitivity'> & Pick<TargetGated, 'classes'>, tracks: Tracks, spans: readonly TargetSpan[] = spansOf(tracks)): ZoneStay[] {
  const zone = new Zone(d.zone)
  const need = needOf(d.sensitivity)
  const time = (i: number): number => frameTime(tracks.frame[i], tracks.fps)
  const length = ({ first, last }: Going, rows: readonly number[]): number => time(rows[last]) - time(rows[first])
  return spans
    .filter(({ cls }) => d.classes.length === 0 || d.classes.includes(cls))
    .flatMap(({ id, rows }) => {
      let going: Going | null = null
      let longest: Going | null = null
      for (let n = 0; n < rows.length; n++) {
        const i = rows[n]
        if (!atLeast(zone.share({ x: tracks.x[i], y: tracks.y[i], w: tracks.w[i], h: tracks.h[i] }), need)) continue
        if (going && time(i) - time(rows[going.last]) <= GRACE) going.last = n
        else going = { first: n, last: n }
        if (!longest || length(going, rows) >= length(longest, rows)) longest = { ...going }
      }
      if (!longest) return []
      return { target: id, from: time(rows[longest.first]), seconds: length(longest, rows), passing: longest.first > 0 && longest.last < rows.length - 1 && isStraight(tracks, rows.slice(longest.first, longest.last + 1)) }
    })
}

function isStraight(tracks: Tracks, rows: readonly number[]): boolean {
  const foot = (i: number): [number, number] => [tracks.x[i] + tracks.w[i] / 2, tracks.y[i] + tracks.h[i]]
  const between = (a: number, b: number): number => Math.hypot(foot(b)[0] - foot(a)[0], foot(b)[1] - foot(a)[1])
  let gone = 0
  for (let n = 1; n < rows.length; n++) gone += between(rows[n - 1], rows[n])
  return gone > 0 && between(rows[0], rows[rows.length - 1]) / gone >= STRAIGHT
}

/** Fewer passers-by say nothing of how long one takes. */
const LEAST_PASSERS = 3

/**
 * A dwell just above what passers-by take: nine in ten of them, and half a second more, to the next whole second.
 *
 * @returns null when there are too few to say
 */
export function dwellAbovePassers(stays: readonly ZoneStay[]): { usual: number; dwell: number } | null {
  const took = stays.filter(({ passing }) => passing).map(({ seconds }) => seconds)
  if (took.length < LEAST_PASSERS) return null
  const usual = quantile(took, 0.9)
  return { usual, dwell: Math.ceil(usual + 0.5) }
}

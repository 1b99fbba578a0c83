import { firstAtLeast } from '../firstAtLeast.ts'
import { CLASSES } from '../targets/classes.ts'
import { emptyTracks, type Tracks } from '../targets/tracks.ts'

/** What a camera has reported, as columns, in order of time and then of target; boxes are shares of the picture. */
export interface ReportedColumns {
  length: number
  /** Milliseconds of UTC, by the clock of this machine. */
  at: Float64Array
  target: Int32Array
  /** Index into `CLASSES`. */
  cls: Uint8Array
  x: Float32Array
  y: Float32Array
  w: Float32Array
  h: Float32Array
  /** Of the class, 0 to 1; 1 where nothing is said of it. */
  likelihood: Float32Array
}

/** Of what is kept, tracks are made at this rate, whatever the camera's own is. */
export const LOOK_BACK_FPS = 10
/** A stretch that is saved as a clip is no longer than this: a clip is looked through as a whole, again and again. */
export const LONGEST_CLIP_MS = 3_600_000

/** From one instant to another, ms of UTC; the end is not in it. */
export type Stay = readonly [from: number, to: number]

/** An hour, or another stretch, of one camera. */
export interface Reported {
  rows: ReportedColumns
  /** When the camera was listened to; outside of it nobody knows what was there. In order, none meets another. */
  heard: Stay[]
}

export const emptyColumns = (length: number): ReportedColumns => ({
  length,
  at: new Float64Array(length),
  target: new Int32Array(length),
  cls: new Uint8Array(length),
  x: new Float32Array(length),
  y: new Float32Array(length),
  w: new Float32Array(length),
  h: new Float32Array(length),
  likelihood: new Float32Array(length)
})

const NAMES = ['at', 'target', 'cls', 'x', 'y', 'w', 'h', 'likelihood'] as const

/** The rows at some places of a list, in that order. */
export function takeRows(from: ReportedColumns, places: ArrayLike<number>): ReportedColumns {
  const to = emptyColumns(places.length)
  for (const name of NAMES) {
    const [source, target] = [from[name], to[name]]
    for (let i = 0; i < places.length; i++) target[i] = source[places[i]!]!
  }
  return to
}

/** Rows of several lists in order of time and target, each once: of the same target at the same instant the first. */
export function mergeRows(lists: readonly ReportedColumns[]): ReportedColumns {
  const filled = lists.filter(({ length }) => length > 0)
  const all = emptyColumns(filled.reduce((sum, { length }) => sum + length, 0))
  let at = 0
  for (const list of filled) {
    for (const name of NAMES) all[name].set(list[name], at)
    at += list.length
  }
  if (isInOrder(all)) return all
  const places = Uint32Array.from({ length: all.length }, (_, i) => i)
  places.sort((a, b) => all.at[a]! - all.at[b]! || all.target[a]! - all.target[b]! || a - b)
  return takeRows(
    all,
    places.filter(
      (place, i) =>
        i === 0 ||
        all.at[place] !== all.at[places[i - 1]!] ||
        all.target[place] !== all.target[places[i - 1]!]
    )
  )
}

function isInOrder({ at, target, length }: ReportedColumns): boolean {
  for (let i = 1; i < length; i++)
    if (at[i]! < at[i - 1]! || (at[i] === at[i - 1] && target[i]! <= target[i - 1]!)) return false
  return true
}

/** The rows from one instant to another; the end is not in it. */
export function rowsWithin(rows: ReportedColumns, from: number, to: number): ReportedColumns {
  const first = firstAtLeast(rows.at, from, rows.length)
  const last = firstAtLeast(rows.at, to, rows.length)
  return {
    length: last - first,
    at: rows.at.subarray(first, last),
    target: rows.target.subarray(first, last),
    cls: rows.cls.subarray(first, last),
    x: rows.x.subarray(first, last),
    y: rows.y.subarray(first, last),
    w: rows.w.subarray(first, last),
    h: rows.h.subarray(first, last),
    likelihood: rows.likelihood.subarray(first, last)
  }
}

/** Stays in order; those that meet, or are no more than a tolerance apart, become one. */
export function joinStays(stays: readonly Stay[], apart = 0): Stay[] {
  const joined: [number, number][] = []
  for (const [from, to] of [...stays].sort((a, b) => a[0] - b[0])) {
    const last = joined.at(-1)
    if (last && from <= last[1] + apart) last[1] = Math.max(last[1], to)
    else joined.push([from, to])
  }
  return joined
}

/** How long stays are together, ms. */
export const lengthOf = (stays: readonly Stay[]): number =>
  stays.reduce((sum, [from, to]) => sum + to - from, 0)

/** The parts of stays that are between two instants. */
export const staysWithin = (stays: readonly Stay[], from: number, to: number): Stay[] =>
  stays.map(([a, b]): Stay => [Math.max(a, from), Math.min(b, to)]).filter(([a, b]) => b > a)

/**
 * The rows as tracks at a rate of their own: frame 1 is at `start`; of each target the first row of a frame counts.
 *
 * @param start ms of UTC; rows before it are left out
 */
export function tracksOf(rows: ReportedColumns, start: number, fps: number): Tracks {
  const last = new Map<number, number>()
  const places = new Uint32Array(rows.length)
  const frames = new Int32Array(rows.length)
  let n = 0
  let isOrdered = true
  for (let i = 0; i < rows.length; i++) {
    const frame = Math.floor(((rows.at[i]! - start) / 1000) * fps + 1e-6) + 1
    const target = rows.target[i]!
    if (frame < 1 || last.get(target) === frame) continue
    last.set(target, frame)
    // Rows of one frame come from several instants: within it they go by target.
    if (n > 0 && frames[n - 1] === frame && rows.target[places[n - 1]!]! > target) isOrdered = false
    frames[n] = frame
    places[n++] = i
  }
  const order = Uint32Array.from({ length: n }, (_, k) => k)
  if (!isOrdered)
    order.sort(
      (a, b) => frames[a]! - frames[b]! || rows.target[places[a]!]! - rows.target[places[b]!]!
    )
  const tracks = emptyTracks(n, fps)
  order.forEach((place, k) => {
    const i = places[place]!
    tracks.frame[k] = frames[place]!
    tracks.id[k] = rows.target[i]!
    tracks.x[k] = rows.x[i]!
    tracks.y[k] = rows.y[i]!
    tracks.w[k] = rows.w[i]!
    tracks.h[k] = rows.h[i]!
    tracks.cls[k] = rows.cls[i]!
    tracks.confidence[k] = rows.likelihood[i]!
  })
  return tracks
}

/** Of how long the counts of the strip are. */
export const TEN_MINUTES = 600_000

/** How many targets, by class in the order of `CLASSES`, began in each ten minutes; by the instant these begin at. */
export type TensCount = Map<number, number[]>

/** A gap of more than this under one id is another target, as in a clip. */
const GAP_MS = 1000

/** Counts targets by the ten minutes in which they began, with the class that they had for most of their rows. */
export function countTens(rows: ReportedColumns): TensCount {
  const tens: TensCount = new Map()
  const open = new Map<number, { began: number; last: number; votes: number[] }>()
  const close = ({ began, votes }: { began: number; votes: number[] }): void => {
    const ten = Math.floor(began / TEN_MINUTES) * TEN_MINUTES
    const counts = tens.get(ten) ?? new Array<number>(CLASSES.length).fill(0)
    tens.set(ten, counts)
    counts[votes.indexOf(Math.max(...votes))]!++
  }
  for (let i = 0; i < rows.length; i++) {
    const [at, target] = [rows.at[i]!, rows.target[i]!]
    let of = open.get(target)
    if (of && at - of.last > GAP_MS) {
      close(of)
      of = undefined
    }
    if (!of) {
      of = { began: at, last: at, votes: new Array<number>(CLASSES.length).fill(0) }
      open.set(target, of)
    }
    of.last = at
    of.votes[rows.cls[i]!]!++
  }
  for (const of of open.values()) close(of)
  return tens
}

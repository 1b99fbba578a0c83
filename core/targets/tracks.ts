import { firstAtLeast } from '../firstAtLeast.ts'
import { CLASSES, classIndex, type TargetClass } from './classes.ts'
import type { Faces } from './faces.ts'

/** One target in one frame, with its box in normalised picture coordinates (0 to 1, y down). */
export interface TargetRow {
  frame: number
  id: number
  x: number
  y: number
  w: number
  h: number
  cls: TargetClass
  /** Likelihood of the class, 0 to 1; 1 also where nothing was said of it. */
  confidence: number
}

/**
 * The targets of a clip as columns, ordered by frame, then by id. Columns travel to a worker without
 * being copied field by field, and keep a clip of an hour in a few megabytes.
 */
export interface Tracks {
  /** Frames per second; frame n (from 1) is at (n − 1) / fps seconds. */
  fps: number
  length: number
  frame: Int32Array
  id: Int32Array
  x: Float64Array
  y: Float64Array
  w: Float64Array
  h: Float64Array
  /** Index into `CLASSES`. */
  cls: Uint8Array
  confidence: Float32Array
  /** Faces that were seen, where somebody looked for them. */
  faces?: Faces
}

/** Seconds from the start of the clip at which frame `n` (1 is the first) is taken. */
export const frameTime = (frame: number, fps: number): number => (frame - 1) / fps

/** The frame that is on show at `seconds` from the start of the clip. */
export const frameAt = (seconds: number, fps: number): number =>
  Math.floor(seconds * fps + 1e-6) + 1

/** Columns of so many rows, to be filled. */
export const emptyTracks = (n: number, fps: number): Tracks => ({
  fps,
  length: n,
  frame: new Int32Array(n),
  id: new Int32Array(n),
  x: new Float64Array(n),
  y: new Float64Array(n),
  w: new Float64Array(n),
  h: new Float64Array(n),
  cls: new Uint8Array(n),
  confidence: new Float32Array(n)
})

/** Columns from rows in any order. The caller has made sure that no target is twice in a frame. */
export function tracksFromRows(rows: readonly TargetRow[], fps: number): Tracks {
  const sorted = [...rows].sort((a, b) => a.frame - b.frame || a.id - b.id)
  const n = sorted.length
  const tracks = emptyTracks(n, fps)
  sorted.forEach((row, i) => {
    tracks.frame[i] = row.frame
    tracks.id[i] = row.id
    tracks.x[i] = row.x
    tracks.y[i] = row.y
    tracks.w[i] = row.w
    tracks.h[i] = row.h
    tracks.cls[i] = classIndex(row.cls)
    tracks.confidence[i] = row.confidence
  })
  return tracks
}

/** Row `i` as an object; for the few places that want one row, not for loops over a clip. */
export const rowAt = (t: Tracks, i: number): TargetRow => ({
  frame: t.frame[i]!,
  id: t.id[i]!,
  x: t.x[i]!,
  y: t.y[i]!,
  w: t.w[i]!,
  h: t.h[i]!,
  cls: CLASSES[t.cls[i]!]!,
  confidence: t.confidence[i]!
})

/** Index of the first row whose frame is at least `frame`. */
export const firstRowOfFrame = (t: Tracks, frame: number): number =>
  firstAtLeast(t.frame, frame, t.length)

/** A target's stay in the picture: one record, as *A target's record* in docs/detections.md ends it. */
export interface TargetSpan {
  id: number
  /** Rows of this span, as indices into the tracks, in order of time. */
  rows: number[]
  from: number
  to: number
  /** The class the target had for most of its rows. */
  cls: TargetClass
}

/** Seconds without a row after which a target has ended; what comes later is another one. */
export const RECORD_GAP_SECONDS = 1

/** The spans of all targets, in order of their first row. */
export function spansOf(t: Tracks): TargetSpan[] {
  const open = new Map<number, TargetSpan>()
  const all: TargetSpan[] = []
  for (let i = 0; i < t.length; i++) {
    const time = frameTime(t.frame[i]!, t.fps)
    let span = open.get(t.id[i]!)
    if (!span || time - span.to > RECORD_GAP_SECONDS + 1e-9) {
      span = { id: t.id[i]!, rows: [], from: time, to: time, cls: 'unknown' }
      open.set(span.id, span)
      all.push(span)
    }
    span.rows.push(i)
    span.to = time
  }
  for (const span of all) {
    const counts = new Array<number>(CLASSES.length).fill(0)
    for (const row of span.rows) counts[t.cls[row]!]!++
    span.cls = CLASSES[counts.indexOf(Math.max(...counts))]!
  }
  return all
}

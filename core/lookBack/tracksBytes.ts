import { InputError } from '../errors.ts'
import { coded, said } from '../messages/said.ts'
import { CLASSES } from '../targets/classes.ts'
import type { Tracks } from '../targets/tracks.ts'

/**
 * Tracks as bytes, for a browser: a day of a camera has a million rows, which as text would be read for seconds.
 * Little-endian: `WTR1`, rows (uint32), frames/s (float64), then the columns one after the other: frame and target
 * (int32), left, top, width, height and likelihood (float32), class (uint8).
 */
const MAGIC = 0x31525457
const HEADER = 16
const ROW = 29

export function writeTracks(t: Tracks): Uint8Array {
  const n = t.length
  const bytes = new Uint8Array(HEADER + n * ROW)
  const view = new DataView(bytes.buffer)
  view.setUint32(0, MAGIC, true)
  view.setUint32(4, n, true)
  view.setFloat64(8, t.fps, true)
  let at = HEADER
  const put = (column: Int32Array | Float32Array): void => {
    bytes.set(new Uint8Array(column.buffer, column.byteOffset, 4 * n), at)
    at += 4 * n
  }
  put(t.frame)
  put(t.id)
  for (const column of [t.x, t.y, t.w, t.h]) put(Float32Array.from(column))
  put(t.confidence)
  bytes.set(t.cls, at)
  return bytes
}

/** @throws InputError for what is no such file */
export function readTracks(bytes: Uint8Array): Tracks {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  const n =
    bytes.length >= HEADER && view.getUint32(0, true) === MAGIC ? view.getUint32(4, true) : -1
  if (bytes.length !== HEADER + n * ROW)
    throw new InputError(coded('places.tracks'), said('formats.isNoTracksFile'))
  let at = HEADER
  const take = (): ArrayBuffer => {
    // A copy, as the columns must begin at a multiple of their size.
    const part = bytes.slice(at, at + 4 * n)
    at += 4 * n
    return part.buffer
  }
  const [frame, id] = [new Int32Array(take()), new Int32Array(take())]
  const [x, y, w, h] = [take(), take(), take(), take()].map((part) =>
    Float64Array.from(new Float32Array(part))
  ) as [Float64Array, Float64Array, Float64Array, Float64Array]
  const confidence = new Float32Array(take())
  const cls = bytes.slice(at, at + n)
  if (cls.some((index) => index >= CLASSES.length))
    throw new InputError(coded('places.tracks'), said('formats.isNoTracksFile'))
  return { fps: view.getFloat64(8, true), length: n, frame, id, x, y, w, h, cls, confidence }
}

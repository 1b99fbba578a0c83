import type { LiveFrame } from '../devices/views.ts'
import { CLASSES, classIndex, classNamed } from '../targets/classes.ts'
import {
  emptyColumns,
  joinStays,
  mergeRows,
  takeRows,
  type Reported,
  type ReportedColumns,
  type Stay
} from './rows.ts'

/**
 * The log of a running hour (docs/detections.md, *Files*): records of 36 bytes, little-endian, appended as they come.
 *
 * 0 the byte 0xA7, 1 what it is, 2 index of the class, 3 the exclusive or of all other bytes, 4 target (int32), 8 instant
 * (float64, ms of UTC), 16 left, 20 top, 24 width, 28 height, 32 likelihood (float32 each; shares).
 *
 * What does not end in a whole record with the right sum was torn by a crash, and is cut off from there.
 */
export const RECORD_BYTES = 36
const MAGIC = 0xa7
const KINDS = { target: 0, begin: 1, still: 2, end: 3 } as const
/** That listening to the camera began, goes on, or ended. */
export type HeardKind = Exclude<keyof typeof KINDS, 'target'>

/** A target as a camera reports it; boxes are shares of the picture. */
export type ReportedTarget = LiveFrame['targets'][number]

/** A block of records that grows. */
export class LogBlock {
  private bytes = new Uint8Array(64 * RECORD_BYTES)
  private view = new DataView(this.bytes.buffer)
  private used = 0

  get isEmpty(): boolean {
    return this.used === 0
  }

  addTarget(at: number, target: ReportedTarget): void {
    this.add(KINDS.target, classIndex(classNamed(target.class)), target.id, at, target)
  }

  addHeard(kind: HeardKind, at: number): void {
    this.add(KINDS[kind], 0, 0, at, { x: 0, y: 0, w: 0, h: 0 })
  }

  /** What was added since the last time; good until something is added. */
  take(): Uint8Array {
    const part = this.bytes.subarray(0, this.used)
    this.used = 0
    return part
  }

  private add(
    kind: number,
    cls: number,
    target: number,
    at: number,
    box: Pick<ReportedTarget, 'x' | 'y' | 'w' | 'h' | 'likelihood'>
  ): void {
    if (this.used + RECORD_BYTES > this.bytes.length) {
      const larger = new Uint8Array(2 * this.bytes.length)
      larger.set(this.bytes)
      this.bytes = larger
      this.view = new DataView(larger.buffer)
    }
    const { bytes, view, used } = this
    bytes[used] = MAGIC
    bytes[used + 1] = kind
    bytes[used + 2] = cls
    bytes[used + 3] = 0
    view.setInt32(used + 4, target, true)
    // Whole milliseconds, as the file of the closed hour has them.
    view.setFloat64(used + 8, Math.round(at), true)
    view.setFloat32(used + 16, box.x, true)
    view.setFloat32(used + 20, box.y, true)
    view.setFloat32(used + 24, box.w, true)
    view.setFloat32(used + 28, box.h, true)
    view.setFloat32(used + 32, box.likelihood ?? 1, true)
    bytes[used + 3] = sumOf(bytes, used)
    this.used += RECORD_BYTES
  }
}

function sumOf(bytes: Uint8Array, from: number): number {
  let sum = 0
  for (let i = 0; i < RECORD_BYTES; i++) if (i !== 3) sum ^= bytes[from + i]!
  return sum
}

/** How many bytes of a log are whole records. */
export function wholeBytes(bytes: Uint8Array): number {
  let at = 0
  while (
    at + RECORD_BYTES <= bytes.length &&
    bytes[at] === MAGIC &&
    bytes[at + 1]! <= KINDS.end &&
    bytes[at + 2]! < CLASSES.length &&
    bytes[at + 3] === sumOf(bytes, at)
  )
    at += RECORD_BYTES
  return at
}

/**
 * Reads a log as far as it is whole.
 *
 * Listening lasts from a `begin` to its `end`, or, where the end is missing because of a crash, to the last record before
 * the next `begin`.
 */
export function readLog(bytes: Uint8Array): Reported {
  const count = wholeBytes(bytes) / RECORD_BYTES
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  const rows = emptyColumns(count)
  const heard: Stay[] = []
  let since: number | null = null
  let last = 0
  const close = (to: number): void => {
    if (since !== null && to > since) heard.push([since, to])
    since = null
  }
  let n = 0
  for (let k = 0; k < count; k++) {
    const o = k * RECORD_BYTES
    const kind = bytes[o + 1]!
    const at = view.getFloat64(o + 8, true)
    if (kind === KINDS.begin) {
      close(last)
      since = at
    } else if (kind === KINDS.end) close(at)
    else since ??= at
    last = kind === KINDS.begin ? at : Math.max(last, at)
    if (kind !== KINDS.target) continue
    rows.at[n] = at
    rows.target[n] = view.getInt32(o + 4, true)
    rows.cls[n] = bytes[o + 2]!
    rows.x[n] = view.getFloat32(o + 16, true)
    rows.y[n] = view.getFloat32(o + 20, true)
    rows.w[n] = view.getFloat32(o + 24, true)
    rows.h[n] = view.getFloat32(o + 28, true)
    rows.likelihood[n] = view.getFloat32(o + 32, true)
    n++
  }
  close(last)
  return { rows: mergeRows([firstRows(rows, n)]), heard: joinStays(heard) }
}

const firstRows = (rows: ReportedColumns, n: number): ReportedColumns =>
  n === rows.length
    ? rows
    : takeRows(
        rows,
        Uint32Array.from({ length: n }, (_, i) => i)
      )

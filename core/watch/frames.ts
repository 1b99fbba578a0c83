import type { Said } from '../messages/said.ts'
import type { LiveFrame } from '../devices/views.ts'

/**
 * The stream of Watch: pictures and targets of several cameras over one connection, as a browser allows six to one
 * server. Each piece is its head's length (4 bytes, big-endian), the picture's length (the same), the head as JSON, and
 * the picture as JPEG (none: 0 bytes).
 */
export type WatchHead =
  | { what: 'picture'; camera: string; at: number }
  | { what: 'targets'; camera: string; at: number; targets: LiveFrame['targets'] }
  | { what: 'trouble'; camera: string; why: Said | string }

export interface WatchPiece {
  head: WatchHead
  picture: Uint8Array
}

const LENGTHS = 8
/** Longer pieces are no pieces: something has gone wrong. */
const MOST = 8 * 2 ** 20

const utf8 = new TextEncoder()
const fromUtf8 = new TextDecoder()

export function writePiece(head: WatchHead, picture: Uint8Array = new Uint8Array()): Uint8Array {
  const text = utf8.encode(JSON.stringify(head))
  const piece = new Uint8Array(LENGTHS + text.length + picture.length)
  const view = new DataView(piece.buffer)
  view.setUint32(0, text.length)
  view.setUint32(4, picture.length)
  piece.set(text, LENGTHS)
  piece.set(picture, LENGTHS + text.length)
  return piece
}

/** Takes bytes as they come, however they are cut, and gives whole pieces. */
export class WatchReader {
  private parts: Uint8Array[] = []
  private length = 0

  /** @throws RangeError when the bytes are no stream of Watch */
  push(part: Uint8Array): WatchPiece[] {
    this.parts.push(part)
    this.length += part.length
    const pieces: WatchPiece[] = []
    while (this.length >= LENGTHS) {
      const bytes = this.joined()
      const view = new DataView(bytes.buffer, bytes.byteOffset)
      const [head, picture] = [view.getUint32(0), view.getUint32(4)]
      if (head > MOST || picture > MOST) throw new RangeError('the stream of Watch is broken')
      const whole = LENGTHS + head + picture
      if (bytes.length < whole) break
      pieces.push({
        head: JSON.parse(fromUtf8.decode(bytes.subarray(LENGTHS, LENGTHS + head))) as WatchHead,
        picture: bytes.slice(LENGTHS + head, whole)
      })
      this.parts = whole < bytes.length ? [bytes.subarray(whole)] : []
      this.length = bytes.length - whole
    }
    return pieces
  }

  private joined(): Uint8Array {
    if (this.parts.length > 1) {
      const all = new Uint8Array(this.length)
      let at = 0
      for (const part of this.parts) {
        all.set(part, at)
        at += part.length
      }
      this.parts = [all]
    }
    return this.parts[0]!
  }
}

/**
 * Parts of a multipart answer as they come (RFC 2046, 5.1); each part's body, by its Content-Length
 * or up to the boundary.
 */
export class PartReader {
  private readonly boundary: Uint8Array
  private bytes: Uint8Array = new Uint8Array()

  /** @param contentType of the answer, with its boundary @throws RangeError without one */
  constructor(contentType: string) {
    const found = /boundary="?([^";]+)"?/i.exec(contentType)
    if (!found) throw new RangeError('the stream names no boundary')
    this.boundary = utf8.encode(`--${found[1]!.replace(/^--/, '')}`)
  }

  push(part: Uint8Array): Uint8Array[] {
    this.bytes = concat(this.bytes, part)
    if (this.bytes.length > MOST) throw new RangeError('a part of the stream does not end')
    const bodies: Uint8Array[] = []
    for (;;) {
      const begin = indexOf(this.bytes, this.boundary, 0)
      if (begin < 0) return bodies
      const headEnd = indexOf(this.bytes, BLANK, begin)
      if (headEnd < 0) return bodies
      const from = headEnd + BLANK.length
      const length = Number(
        /content-length:\s*(\d+)/i.exec(
          fromUtf8.decode(this.bytes.subarray(begin, headEnd))
        )?.[1] ?? NaN
      )
      const to = Number.isFinite(length)
        ? from + length
        : indexOf(this.bytes, this.boundary, from) - 2
      if (to < from || to > this.bytes.length) return bodies
      bodies.push(this.bytes.slice(from, to))
      this.bytes = this.bytes.subarray(to)
    }
  }
}

const BLANK = utf8.encode('\r\n\r\n')

function concat(a: Uint8Array, b: Uint8Array): Uint8Array {
  if (!a.length) return b
  const all = new Uint8Array(a.length + b.length)
  all.set(a)
  all.set(b, a.length)
  return all
}

function indexOf(bytes: Uint8Array, wanted: Uint8Array, from: number): number {
  for (
    let at = bytes.indexOf(wanted[0]!, from);
    at >= 0 && at + wanted.length <= bytes.length;
    at = bytes.indexOf(wanted[0]!, at + 1)
  ) {
    let i = 1
    while (i < wanted.length && bytes[at + i] === wanted[i]) i++
    if (i === wanted.length) return at
  }
  return -1
}

import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { PartReader, WatchReader, writePiece, type WatchHead } from './frames.ts'

const cut = (bytes: Uint8Array, at: number[]): Uint8Array[] => {
  const places = [0, ...at.map((x) => x % (bytes.length + 1)).sort((a, b) => a - b), bytes.length]
  return places.slice(1).map((to, i) => bytes.subarray(places[i], to))
}
const joined = (parts: Uint8Array[]): Uint8Array => Uint8Array.from(parts.flatMap((p) => [...p]))

test('gives whole pieces in order, however the bytes are cut', () => {
  const head = fc.record({
    what: fc.constant('picture' as const),
    camera: fc.string({ maxLength: 12 }),
    at: fc.nat()
  })
  fc.assert(
    fc.property(
      fc.array(fc.tuple(head, fc.uint8Array({ maxLength: 60 })), { maxLength: 6 }),
      fc.array(fc.nat(), { maxLength: 12 }),
      (pieces, places) => {
        const reader = new WatchReader()
        const read = cut(
          joined(pieces.map(([h, p]) => writePiece(h as WatchHead, p))),
          places
        ).flatMap((part) => reader.push(part))
        expect(read.map((r) => [r.head, [...r.picture]])).toEqual(
          pieces.map(([h, p]) => [h, [...p]])
        )
      }
    )
  )
})

test('refuses other streams', () => {
  expect(() => new WatchReader().push(new TextEncoder().encode('<html>not this</html>'))).toThrow(
    RangeError
  )
})

// The form: RFC 2046, 5.1.1; a boundary line, headers, an empty line, the body, and so on.
test('reads parts of a multipart answer, with and without length, however they are cut', () => {
  const bodies = [[1, 2, 3], [13, 10, 45, 45, 65], [9]]
  const text = (s: string): number[] => [...new TextEncoder().encode(s)]
  fc.assert(
    fc.property(fc.boolean(), fc.array(fc.nat(), { maxLength: 10 }), (lengths, places) => {
      const bytes = Uint8Array.from([
        ...bodies.flatMap((b) => [
          ...text(
            `--frame\r\nContent-Type: image/jpeg\r\n${lengths ? `Content-Length: ${b.length}\r\n` : ''}\r\n`
          ),
          ...b,
          ...text('\r\n')
        ]),
        ...text('--frame--\r\n\r\n')
      ])
      const reader = new PartReader('multipart/x-mixed-replace; boundary=frame')
      const read = cut(bytes, places).flatMap((part) => reader.push(part))
      expect(read.slice(0, 3).map((b) => [...b])).toEqual(bodies)
    })
  )
  expect(() => new PartReader('image/jpeg')).toThrowWords('names no boundary')
})

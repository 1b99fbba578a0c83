import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import { partsOf } from './parts.ts'

/** Pixels that are not 0, of pictures of sizes that are no multiples of anything. */
const pictures = fc
  .record({ width: fc.integer({ min: 1, max: 130 }), height: fc.integer({ min: 1, max: 90 }) })
  .chain(({ width, height }) =>
    fc.record({
      size: fc.constant({ width, height }),
      on: fc.array(fc.record({ x: fc.nat({ max: width - 1 }), y: fc.nat({ max: height - 1 }) }), {
        maxLength: 12
      })
    })
  )
const maskOf = (size: { width: number; height: number }, on: { x: number; y: number }[]) => {
  const mask = new Uint8Array(size.width * size.height)
  for (const { x, y } of on) mask[y * size.width + x] = 255
  return mask
}

describe('the parts of a mask', () => {
  it('hold each pixel once, with what is around it', () => {
    fc.assert(
      fc.property(pictures, ({ size, on }) => {
        const parts = partsOf(maskOf(size, on), size)
        for (const { x, y } of on)
          expect(
            parts.filter(
              (p) =>
                p.x <= Math.max(0, x - 4) &&
                p.y <= Math.max(0, y - 4) &&
                p.x + p.w >= Math.min(size.width, x + 5) &&
                p.y + p.h >= Math.min(size.height, y + 5)
            )
          ).toHaveLength(1)
      })
    )
  })

  it('lie within the picture, and none on another', () => {
    fc.assert(
      fc.property(pictures, ({ size, on }) => {
        const parts = partsOf(maskOf(size, on), size)
        for (const [i, a] of parts.entries()) {
          expect(Math.min(a.x, a.y)).toBeGreaterThanOrEqual(0)
          expect(a.x + a.w).toBeLessThanOrEqual(size.width)
          expect(a.y + a.h).toBeLessThanOrEqual(size.height)
          for (const b of parts.slice(i + 1))
            expect(
              a.x + a.w <= b.x || b.x + b.w <= a.x || a.y + a.h <= b.y || b.y + b.h <= a.y
            ).toBe(true)
        }
      })
    )
  })

  it('are none of an empty mask, and one of two corners that nearly touch', () => {
    const size = { width: 64, height: 64 }
    expect(partsOf(maskOf(size, []), size)).toEqual([])
    const on = [
      { x: 15, y: 15 },
      { x: 16, y: 16 }
    ]
    expect(partsOf(maskOf(size, on), size)).toEqual([{ x: 0, y: 0, w: 36, h: 36 }])
  })
})

import { describe, expect, test } from '@jest/globals'
import { findFace } from './faces.ts'
import { Wavering } from './wavering.ts'

const size = { width: 100, height: 140 }
/** A figure 120 high, 40 wide: a head with skin where the arguments say, a blue coat, on grey. */
function figure(paint: (y: number) => 'skin' | 'mask' | 'hair'): Uint8Array {
  const picture = new Uint8Array(size.width * size.height * 3).fill(120)
  const colours = {
    skin: [123, 154, 201],
    mask: [211, 198, 169],
    hair: [28, 33, 43],
    coat: [77, 54, 39]
  } // blue, green, red
  for (let y = 10; y < 130; y++)
    for (let x = 30; x < 70; x++) {
      const head = y < 10 + 0.155 * 120
      if (head && Math.abs(x - 50) > 7) continue
      const [b, g, r] = colours[head ? paint((y - 10) / 120) : 'coat'] as [number, number, number]
      picture.set([b, g, r], 3 * (y * size.width + x))
    }
  return picture
}
const box = { x: 30, y: 10, w: 40, h: 120 }

describe('faces of upright figures', () => {
  test('reads skin around the eyes as a face, and around the mouth as no mask', () => {
    const face = findFace(
      figure((y) => (y < 0.03 ? 'hair' : 'skin')),
      size,
      box
    )!
    expect(face.mask).toBe(false)
    expect(Math.abs(face.x + face.w / 2 - 50)).toBeLessThan(1)
    expect(face.y).toBeLessThan(14)
  })

  test('reads skin around the eyes but not the mouth as a mask', () => {
    expect(
      findFace(
        figure((y) => (y < 0.03 ? 'hair' : y < 0.09 ? 'skin' : 'mask')),
        size,
        box
      )!.mask
    ).toBe(true)
  })

  test('finds no face from behind', () => {
    expect(
      findFace(
        figure((y) => (y < 0.13 ? 'hair' : 'skin')),
        size,
        box
      )
    ).toBeNull()
  })

  test('finds no face on a small or lying figure', () => {
    const picture = figure(() => 'skin')
    expect(findFace(picture, size, { ...box, h: 50 })).toBeNull()
    expect(findFace(picture, size, { ...box, w: 130 })).toBeNull()
  })
})

describe('swaying places', () => {
  const mask = (on: boolean): Uint8Array => {
    const m = new Uint8Array(64 * 64)
    if (on) for (let y = 16; y < 32; y++) for (let x = 16; x < 32; x++) m[y * 64 + x] = 255
    return m
  }
  const after = (pattern: string) => {
    const wavering = new Wavering({ width: 64, height: 64 }, 10)
    for (const c of pattern) wavering.next(mask(c === '1'))
    return wavering
  }
  const there = { x: 16, y: 16, w: 16, h: 16 }

  test('takes one start of movement for a target, two for a swaying place', () => {
    expect(after('0011111').holds(there)).toBe(false)
    expect(after('00111000111').holds(there)).toBe(true)
    expect(after('00111000111').holds({ x: 40, y: 40, w: 16, h: 16 })).toBe(false)
  })

  test('decides by half of the box, and forgets in time', () => {
    expect(after('00111000111').holds({ x: 16, y: 16, w: 48, h: 40 })).toBe(false)
    expect(after(`00111000111${'0'.repeat(300)}`).holds(there)).toBe(false)
  })
})

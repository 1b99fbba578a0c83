import { describe, expect, test } from '@jest/globals'
import { findFace } from './faces.ts'
import { Wavering } from './wavering.ts'

const size = { width: 100, height: 140 }
type Rgb = readonly [r: number, g: number, b: number]
/** Skin and hair, from fair to deep, and one in infra-red, where all is grey; invented, as a painter would mix them. */
const people: [name: string, skin: Rgb, hair: Rgb][] = [
  ['fair, red hair', [236, 200, 180], [120, 62, 36]],
  ['light, brown hair', [201, 154, 123], [43, 33, 28]],
  ['olive, black hair', [168, 126, 92], [22, 19, 15]],
  ['brown, black hair', [122, 82, 58], [22, 19, 15]],
  ['deep, black hair', [78, 52, 40], [18, 16, 14]],
  ['deep, grey hair', [78, 52, 40], [150, 146, 140]],
  ['in infra-red', [170, 170, 170], [60, 60, 60]]
]
const mask: Rgb = [169, 198, 211]

/** A figure 120 high, 40 wide: a head painted by rows, as shares of the height, a blue coat, on grey. */
function figure(paint: (y: number) => Rgb): Uint8Array {
  const picture = new Uint8Array(size.width * size.height * 3).fill(120)
  for (let y = 10; y < 130; y++)
    for (let x = 30; x < 70; x++) {
      const head = y < 10 + 0.155 * 120
      if (head && Math.abs(x - 50) > 7) continue
      const [r, g, b] = head ? paint((y - 10) / 120) : [39, 54, 77]
      picture.set([b, g, r], 3 * (y * size.width + x))
    }
  return picture
}
const box = { x: 30, y: 10, w: 40, h: 120, head: 50 }

describe('faces of upright figures, by contrast', () => {
  test.each(people)('%s: a face, bare and masked; none from behind', (_name, skin, hair) => {
    const bare = findFace(
      figure((y) => (y < 0.04 ? hair : skin)),
      size,
      box
    )!
    const grey = new Set(skin).size === 1
    // Without colour a pale mask is like pale skin, and a shadow like a dark one.
    expect(bare.mask).toBe(grey ? null : false)
    expect(Math.abs(bare.x + bare.w / 2 - 50)).toBeLessThan(1)
    expect(bare.y).toBeLessThan(14)
    const masked = findFace(
      figure((y) => (y < 0.04 ? hair : y < 0.09 ? skin : grey ? [192, 192, 192] : mask)),
      size,
      box
    )!
    if (!grey) expect(masked.mask).toBe(true)
    else expect(masked.mask).toBeNull()
    expect(
      findFace(
        figure((y) => (y < 0.13 ? hair : skin)),
        size,
        box
      )
    ).toBeNull()
  })

  test('finds no face on a small or lying figure', () => {
    const picture = figure((y) => (y < 0.04 ? [43, 33, 28] : [201, 154, 123]))
    expect(findFace(picture, size, box)).not.toBeNull()
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

import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import type { FoundFace } from './faces.ts'
import type { SeenRow } from './target.ts'
import { facesOf } from './targetFaces.ts'

const FPS = 10
/** Somebody who walks to the right, 40 wide and 100 high, and so comes nearer. */
const rows: SeenRow[] = Array.from({ length: 120 }, (_, i) => ({
  frame: i + 1,
  ...{ x: 20 + i, y: 30, w: 40 + i / 10, h: 100 + i / 4, area: 3000 },
  ...{ measured: true, wavers: false }
}))
const rowAt = (frame: number): SeenRow => rows[frame - 1]!
/** Their face at a frame: in the middle of the top, a tenth as high. */
function faceAt(frame: number, mask: boolean | null): FoundFace {
  const { x, y, w, h } = rowAt(frame)
  return { x: x + w / 2 - h / 20, y: y + h / 50, w: h / 10, h: h / 8, mask }
}
const looks = (...seen: [frame: number, mask: boolean | null | 'none'][]) =>
  seen.map(([frame, mask]) => ({ frame, face: mask === 'none' ? null : faceAt(frame, mask) }))
const contrast = (...seen: [frame: number, mask: boolean | null][]) =>
  new Map(seen.map(([frame, mask]) => [frame, [faceAt(frame, mask)]]))

describe('the faces of a target', () => {
  test('between two looks that saw it, a face goes along with its target', () => {
    const faces = facesOf({ rows, looked: looks([31, false], [41, false]) }, new Map(), FPS)
    expect([...faces.keys()]).toEqual(Array.from({ length: 11 }, (_, i) => 31 + i))
    for (const [frame, face] of faces) {
      const expected = faceAt(frame, false)
      for (const side of ['x', 'y', 'w', 'h'] as const)
        expect(face[side]).toBeCloseTo(expected[side], 1)
    }
  })

  test('not when one of them saw none, or they are far apart', () => {
    const one = facesOf({ rows, looked: looks([31, false], [41, 'none']) }, new Map(), FPS)
    expect([...one.keys()]).toEqual([31])
    const apart = facesOf({ rows, looked: looks([31, false], [61, false]) }, new Map(), FPS)
    expect([...apart.keys()]).toEqual([31, 61])
  })

  test('while the detector looks, contrast says nothing; before and after, it does', () => {
    const found = contrast([10, null], [40, null], [50, null], [90, null])
    const looked = looks([35, 'none'], [45, 'none'])
    expect([...facesOf({ rows, looked }, found, FPS).keys()]).toEqual([10, 90])
    expect([...facesOf({ rows, looked: [] }, found, FPS).keys()]).toEqual([10, 40, 50, 90])
  })

  test('one wrong look does not make a mask; those of long ago do not count', () => {
    const maskOf = (...seen: [number, boolean | null][]) =>
      [...facesOf({ rows, looked: [] }, contrast(...seen), FPS).values()].map(({ mask }) => mask)
    expect(maskOf([10, true], [11, true], [12, false], [13, true])).toEqual([
      null,
      true,
      null,
      true
    ])
    expect(maskOf([10, true], [11, true], [100, false], [101, false], [102, false])).toEqual([
      ...[null, true],
      ...[null, null, false]
    ])
    expect(maskOf([10, null], [11, null], [12, null])).toEqual([null, null, null])
  })

  test('what is told of a mask comes from earlier frames alone', () => {
    const marks = fc.array(
      fc.tuple(fc.integer({ min: 1, max: 120 }), fc.constantFrom(true, false, null)),
      { maxLength: 40 }
    )
    fc.assert(
      fc.property(
        marks,
        marks,
        fc.integer({ min: 1, max: 120 }),
        (byContrast, byDetector, until) => {
          const looked = looks(...[...new Map(byDetector)].sort(([a], [b]) => a - b))
          const facesUpTo = (end: number) =>
            facesOf({ rows: rows.slice(0, end), looked }, contrast(...byContrast), FPS)
          // A face between two looks is known once the second has been taken; its mask is that of the first.
          const whole = facesUpTo(120)
          for (const [frame, { mask }] of facesUpTo(until))
            expect(whole.get(frame)?.mask).toBe(mask)
        }
      )
    )
  })
})

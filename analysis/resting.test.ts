import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import type { Patch } from './foreground.ts'
import { hasStopped, Rests } from './resting.ts'
import { Followed } from './target.ts'

const size = { width: 64, height: 48 }
const FPS = 10
type Colour = readonly [number, number, number]
const GROUND: Colour = [90, 100, 95]
const COAT: Colour = [40, 60, 140]
const place = { x: 30, y: 14, w: 8, h: 24 }

/** Even ground, somebody in front of it, and how much lighter both are. */
function picture(coat: Colour | null, lighter = 0): Uint8Array {
  const bytes = new Uint8Array(3 * size.width * size.height)
  for (let at = 0; at < size.width * size.height; at++) {
    const [px, py] = [at % size.width, Math.floor(at / size.width)]
    const { x, y, w, h } = place
    const isIn = coat && px >= x && px < x + w && py >= y && py < y + h
    const colour = isIn ? coat : GROUND
    for (let c = 0; c < 3; c++) bytes[3 * at + c] = colour[c]! + lighter
  }
  return bytes
}
const foreground = {
  moving: Uint8Array.from({ length: size.width * size.height }, (_, at) => {
    const [px, py] = [at % size.width, Math.floor(at / size.width)]
    return px >= place.x && px < place.x + place.w && py >= place.y && py < place.y + place.h
      ? 255
      : 0
  }),
  background: () => picture(null)
}
const patchAt = (x: number): Patch => ({
  ...{ ...place, x },
  ...{ area: place.w * place.h, colours: new Float32Array(128), wavers: false, head: x + 4 }
})
/** Somebody who comes from the left, and stands from frame 21 on, for so many frames. */
function comes(stands: number): Followed {
  const target = new Followed(patchAt(10), 1)
  for (let frame = 2; frame <= 20 + stands; frame++) {
    target.predict(1 / FPS)
    target.correct(patchAt(Math.min(place.x, 9 + frame)), frame)
  }
  return target
}
function resting(isKept = true): { rests: Rests; target: Followed } {
  const rests = new Rests(size, FPS)
  const target = comes(16)
  rests.take([target], picture(COAT), [patchAt(place.x)], foreground, () => isKept)
  return { rests, target }
}

describe('who has come and stands still', () => {
  test('has stopped after a second and a half in one place, rain or not; nobody who walks has', () => {
    expect(hasStopped(comes(5).rows, FPS)).toBe(false)
    expect(hasStopped(comes(16).rows, FPS)).toBe(true)
    const rained = comes(16).rows.map((row, i) => (i % 6 === 0 ? { ...row, h: row.h + 9 } : row))
    expect(hasStopped(rained, FPS)).toBe(true)
    fc.assert(
      fc.property(fc.double({ min: 0.5, max: 6, noNaN: true }), (step) => {
        const rows = Array.from({ length: 40 }, (_, i) => ({
          ...{ ...place, x: step * i, frame: i + 1 },
          ...{ measured: true, area: 100, wavers: false }
        }))
        expect(hasStopped(rows, FPS)).toBe(false)
      })
    )
  })

  test('is there as long as its place looks like it, also while the light changes slowly', () => {
    const { rests, target } = resting()
    for (let frame = 0; frame < 200; frame++)
      expect([...rests.next(picture(COAT, Math.floor(frame / 10)))]).toEqual([target])
    expect(rests.patches).toEqual([patchAt(place.x)])
  })

  test('is not there any more once what is behind it shows', () => {
    const { rests } = resting()
    expect(rests.next(picture(COAT)).size).toBe(1)
    expect(rests.next(picture(null)).size).toBe(0)
    expect(rests.next(picture(COAT)).size).toBe(0)
  })

  test('is not taken for background: that is put in its place', () => {
    const { rests } = resting()
    const seen = picture(COAT)
    rests.hide(seen)
    expect(seen).toEqual(picture(null))
  })

  test('has its pieces; who passes beside it has patches of their own', () => {
    const { rests } = resting()
    expect(rests.holds({ x: 31, y: 16, w: 5, h: 9 })).toBe(true)
    expect(rests.holds({ x: 44, y: 14, w: 8, h: 24 })).toBe(false)
  })

  test('becomes background after five minutes, for good', () => {
    const { rests, target } = resting()
    for (let frame = 0; frame < 300 * FPS; frame++) expect(rests.next(picture(COAT)).size).toBe(1)
    expect(rests.next(picture(COAT)).size).toBe(0)
    rests.take([target], picture(COAT), [patchAt(place.x)], foreground, () => true)
    expect(rests.next(picture(COAT)).size).toBe(0)
  })

  test('a place that somebody has left is nobody, though it differs from what was learned', () => {
    const rests = new Rests(size, FPS)
    const learned = { ...foreground, background: () => picture(COAT) }
    rests.take([comes(16)], picture(null), [patchAt(place.x)], learned, () => true)
    expect(rests.next(picture(null)).size).toBe(0)
  })

  test('what never came from elsewhere, or is cut by the edge, is left to the background', () => {
    expect(resting(false).rests.next(picture(COAT)).size).toBe(0)
    const rests = new Rests({ width: place.x + place.w, height: size.height }, FPS)
    rests.take([comes(16)], picture(COAT), [patchAt(place.x)], foreground, () => true)
    expect(rests.next(picture(COAT)).size).toBe(0)
  })
})

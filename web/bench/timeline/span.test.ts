import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { panned, showing, zoomed, type Stretch } from './span.ts'

const SECONDS = 600
const stretch = fc
  .tuple(fc.double({ min: 0, max: 500, noNaN: true }), fc.double({ min: 2, max: 100, noNaN: true }))
  .map(([from, length]): Stretch => ({ from, to: from + length }))

describe('the visible part of the clip', () => {
  test('stays within the clip and keeps its length when moved', () => {
    fc.assert(
      fc.property(stretch, fc.double({ min: -900, max: 900, noNaN: true }), (s, by) => {
        for (const moved of [panned(s, by, SECONDS), showing(s, Math.abs(by) % SECONDS, SECONDS)]) {
          expect(moved.from).toBeGreaterThanOrEqual(0)
          expect(moved.to).toBeLessThanOrEqual(SECONDS + 1e-9)
          expect(moved.to - moved.from).toBeCloseTo(s.to - s.from, 9)
        }
        const at = Math.abs(by) % SECONDS
        const seen = showing(s, at, SECONDS)
        expect(at >= seen.from - 1e-9 && at <= seen.to + 1e-9).toBe(true)
      })
    )
  })

  test('zooms about a fixed moment, between two seconds and the whole clip', () => {
    const near = zoomed({ from: 100, to: 200 }, 2, 125, SECONDS)
    expect(near).toEqual({ from: 112.5, to: 162.5 })
    expect(zoomed({ from: 100, to: 103 }, 10, 101.5, SECONDS)).toEqual({ from: 100.5, to: 102.5 })
    expect(zoomed({ from: 100, to: 200 }, 0.01, 125, SECONDS)).toEqual({ from: 0, to: SECONDS })
    expect(zoomed({ from: 0, to: 1 }, 2, 0.5, 1)).toEqual({ from: 0, to: 1 })
  })
})

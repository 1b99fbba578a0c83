import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { nearestStills } from './reports.ts'

test('at each moment of a stretch the still is the picture that is nearest in time', () => {
  fc.assert(
    fc.property(
      fc.uniqueArray(fc.integer({ min: 0, max: 100_000 }), { minLength: 1, maxLength: 10 }),
      fc.integer({ min: 0, max: 50_000 }),
      fc.integer({ min: 1, max: 50_000 }),
      (times, from, length) => {
        const pictures = times
          .sort((a, b) => a - b)
          .map((at) => ({ at, jpeg: Buffer.from(String(at)) }))
        const stills = nearestStills(pictures, from, from + length)
        expect(stills[0]!.from).toBe(0)
        for (let moment = 0; moment < length; moment += 997) {
          const shown = stills.findLast((still) => 1000 * still.from <= moment)!
          const away = Math.abs(Number(shown.picture.toString()) - (from + moment))
          expect(away).toBe(Math.min(...times.map((at) => Math.abs(at - (from + moment)))))
        }
      }
    )
  )
  expect(nearestStills([], 0, 1000)).toEqual([])
})

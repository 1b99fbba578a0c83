import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { firstAtLeast } from './firstAtLeast.ts'

test('finds the place that the language’s own linear search finds', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: 0, max: 20 })),
      fc.integer({ min: -1, max: 21 }),
      fc.nat(30),
      (numbers, value, most) => {
        const ordered = Float64Array.from(numbers).sort()
        const length = Math.min(most, ordered.length)
        const found = ordered.subarray(0, length).findIndex((n) => n >= value)
        expect(firstAtLeast(ordered, value, length)).toBe(found < 0 ? length : found)
      }
    )
  )
})

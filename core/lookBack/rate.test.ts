import { describe, expect, test } from '@jest/globals'
import { garwood, howOften } from './rate.ts'

/** The chance of at most so many events where so many are expected: the terms of the Poisson distribution, added up. */
function atMost(count: number, expected: number): number {
  let term = Math.exp(-expected)
  let sum = term
  for (let n = 1; n <= count; n++) sum += term *= expected / n
  return sum
}

describe('the interval of a count', () => {
  // F. Garwood, Biometrika 28 (1936), as in Pearson and Hartley, Biometrika Tables for Statisticians, table 40; from memory.
  test.each([
    [0, '0.000', '3.689'],
    [1, '0.0253', '5.572'],
    [2, '0.2422', '7.225'],
    [3, '0.6187', '8.767'],
    [4, '1.090', '10.24'],
    [5, '1.623', '11.67'],
    [10, '4.795', '18.39'],
    [20, '12.22', '30.89'],
    [50, '37.11', '65.92']
  ])('of %i at 95 %% is %s to %s, as the tables have it', (count, low, high) => {
    const decimals = (text: string): number => text.split('.')[1]!.length
    const [from, to] = garwood(count)
    expect([from.toFixed(decimals(low)), to.toFixed(decimals(high))]).toEqual([low, high])
  })

  test.each([
    [0, 5.298],
    [1, 7.43],
    [5, 14.15]
  ])('of %i at 99 %% it ends at %d', (count, high) => {
    expect(garwood(count, 0.99)[1] / high).toBeCloseTo(1, 3)
  })

  test('at each end the count is just as unlikely as was asked for', () => {
    for (const confidence of [0.8, 0.95, 0.99])
      for (let count = 0; count <= 200; count++) {
        const [low, high] = garwood(count, confidence)
        const tail = (1 - confidence) / 2
        expect(atMost(count, high)).toBeCloseTo(tail, 6)
        if (count > 0) expect(1 - atMost(count - 1, low)).toBeCloseTo(tail, 6)
        else expect(low).toBe(0)
      }
  })

  test('holds the true number at least as often as it says', () => {
    for (let expected = 0.2; expected < 30; expected += 0.37) {
      let held = 0
      for (let count = 0; count < 100; count++) {
        const [low, high] = garwood(count)
        if (low <= expected && expected <= high)
          held += atMost(count, expected) - (count ? atMost(count - 1, expected) : 0)
      }
      expect(held).toBeGreaterThanOrEqual(0.95)
    }
  })
})

test('is told a day, over the time that was listened to', () => {
  const { perDay, low, high } = howOften(5, 2.5)
  expect(perDay).toBe(2)
  expect([low, high].map((x) => x.toFixed(2))).toEqual(['0.65', '4.67'])
})

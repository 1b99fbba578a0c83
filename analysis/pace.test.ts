import { describe, expect, test } from '@jest/globals'
import { Pace } from './pace.ts'

describe('how long an analysis will still take', () => {
  const clock = () => {
    const time = { ms: 0 }
    const pace = new Pace(() => time.ms)
    pace.left(0, null)
    return { time, pace }
  }

  test('says nothing in the first seconds, nor of a clip that does not say how long it is', () => {
    const { time, pace } = clock()
    time.ms = 2900
    expect(pace.left(100, 1000)).toBeNull()
    time.ms = 4000
    expect(pace.left(120, null)).toBeNull()
  })

  test('at a steady pace, says what is left to the second', () => {
    const { time, pace } = clock()
    for (let s = 1; s <= 100; s++) {
      time.ms = 1000 * s
      const left = pace.left(10 * s, 1000)
      if (s >= 3) expect(left).toBeCloseTo(100 - s, 6)
    }
  })

  test('goes by the last seconds when the pace changes', () => {
    const { time, pace } = clock()
    let [left, done]: [number | null, number] = [null, 0]
    for (let s = 1; s <= 60; s++) {
      time.ms = 1000 * s
      done += s <= 30 ? 20 : 5
      left = pace.left(done, 2000)
    }
    expect(left).toBeCloseTo((2000 - done) / 5, 6)
  })

  test('nothing done in all that time is no pace', () => {
    const { time, pace } = clock()
    time.ms = 5000
    expect(pace.left(0, 1000)).toBeNull()
  })
})

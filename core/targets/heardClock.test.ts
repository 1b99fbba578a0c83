import { expect, test } from '@jest/globals'
import { HeardClock } from './heardClock.ts'

/** Instants every 100 ms of a device whose clock is `off` ahead, heard with delays. */
const heard = (delays: number[], off: number): number[] => {
  const clock = new HeardClock()
  return delays.map((delay, i) => clock.at(1000 + 100 * i + off, 1000 + 100 * i + delay))
}

test('keeps the device’s intervals, whatever the delay and its clock', () => {
  for (const off of [0, 95_000, -3_600_000]) {
    const times = heard([3, 40, 5, 260, 180, 90, 4], off)
    times.forEach((time, i) => expect(Math.abs(time - (1003 + 100 * i))).toBeLessThan(0.5))
  }
})

test('takes a better estimate at once; nothing lies in the future', () => {
  const delays = [80, 70, 2, 60, 2]
  const times = heard(delays, 500)
  times.forEach((time, i) => expect(time).toBeLessThanOrEqual(1000 + 100 * i + delays[i]! + 1e-9))
  expect(times.slice(2).map((time, i) => Math.round(time - 1200 - 100 * i))).toEqual([2, 2, 2])
})

test('what came late at first is put right once that is known, unless the clock was set meanwhile', () => {
  const clock = new HeardClock()
  const late = clock.at(0, 4700)
  expect(late).toBe(4700)
  clock.at(4000, 4003)
  expect(clock.again(0, late)).toBe(3)
  // Never later than it was thought to be.
  expect(clock.again(0, 1)).toBe(1)
  // Set forward by an hour: what was before stays where it was.
  clock.at(3_700_000, 4200)
  expect(clock.again(0, 3)).toBe(3)
})

test('follows a clock that drifts or is set', () => {
  const clock = new HeardClock()
  // A tenth of a millisecond in a second too slow, for an hour.
  let last = 0
  for (let i = 0; i < 36_000; i++)
    last = clock.at(100 * i * (1 - 1e-4), 100 * i + 5) - (100 * i + 5)
  expect(Math.abs(last)).toBeLessThan(1)
  // Set forward, and set back by an hour.
  expect(clock.at(10 ** 9, 4_000_000)).toBe(4_000_000)
  expect(clock.at(10 ** 9 - 3_600_000, 4_000_100)).toBe(4_000_100)
})

import { readFileSync } from 'node:fs'
import { describe, expect, test } from '@jest/globals'
import { DateTime } from 'luxon'
import { simulateDay, type Habit } from './days.ts'
import { readScene, readScript } from './script.ts'

const { scene, scripts } = JSON.parse(
  readFileSync(new URL('../demo/scenes/quay-path.json', import.meta.url), 'utf8')
) as { scene: unknown; scripts: unknown[] }
const world = { scene: readScene(scene), scripts: scripts.map(readScript) }

const day = (habits: readonly Habit[], more: Partial<Parameters<typeof simulateDay>[2]> = {}) =>
  simulateDay(world, habits, {
    date: '2026-11-24',
    timeZone: 'Europe/London',
    until: Infinity,
    seed: 5,
    firstTarget: 100,
    ...more
  })

const walkers: Habit = { script: 'morning', actors: [0], perDay: 20, hours: [7, 19] }
const gulls: Habit = { script: 'morning', actors: [5], perDay: 12, hours: [6, 22] }

describe('a simulated day', () => {
  test('is the same again for the same seed, and another one for another', () => {
    expect(day([walkers, gulls])).toEqual(day([walkers, gulls]))
    expect(day([walkers], { seed: 6 }).rows.at).not.toEqual(day([walkers]).rows.at)
  })

  test('reports in order, in the picture, each visit under numbers of its own', () => {
    const { rows, habitOf, nextTarget } = day([walkers, gulls])
    expect(rows.length).toBeGreaterThan(1000)
    const last = new Map<number, number>()
    for (let i = 0; i < rows.length; i++) {
      if (i > 0) expect(rows.at[i]!).toBeGreaterThanOrEqual(rows.at[i - 1]!)
      for (const column of [rows.x, rows.y, rows.w, rows.h])
        expect(column[i]!).toBeGreaterThanOrEqual(0)
      expect(rows.x[i]! + rows.w[i]!).toBeLessThanOrEqual(1.0001)
      expect(rows.y[i]! + rows.h[i]!).toBeLessThanOrEqual(1.0001)
      const target = rows.target[i]!
      const known = last.get(target)
      // Nobody is away for half a minute and comes back under the same number.
      if (known !== undefined) expect(rows.at[i]! - known).toBeLessThan(30_000)
      last.set(target, rows.at[i]!)
    }
    const numbers = [...last.keys()]
    expect(Math.min(...numbers)).toBeGreaterThanOrEqual(100)
    expect(Math.max(...numbers)).toBeLessThan(nextTarget)
    expect(new Set(numbers.map((n) => habitOf.get(n)))).toEqual(new Set([0, 1]))
  })

  // The clocks of London go back on 25 October and forward on 29 March 2026; luxon is the reference.
  test.each(['2026-10-25', '2026-03-29', '2026-07-01'])(
    'keeps the hours of the site’s clock on %s',
    (date) => {
      const { rows } = day([{ ...walkers, hours: [9, 10] }], { date })
      const nine = DateTime.fromISO(`${date}T09:00`, { zone: 'Europe/London' }).toMillis()
      expect(rows.length).toBeGreaterThan(0)
      expect(rows.at[0]!).toBeGreaterThanOrEqual(nine)
      expect(rows.at[rows.length - 1]!).toBeLessThan(nine + 3_600_000 + 120_000)
    }
  )

  test('has nobody who would still be there later', () => {
    const until = Date.parse('2026-11-24T12:00:00Z')
    const { rows } = day([walkers], { until })
    expect(rows.length).toBeGreaterThan(0)
    expect(rows.at[rows.length - 1]!).toBeLessThan(until)
  })

  test('comes as often as it is said, on average', () => {
    const rare: Habit = { script: 'morning', actors: [0], perDay: 0.4, hours: [8, 9] }
    let visits = 0
    for (let seed = 0; seed < 600; seed++) {
      const { rows } = day([rare], { seed })
      if (rows.length) visits++
    }
    // 600 days of chance 0.4: the mean is 240, the standard deviation 12 (binomial distribution).
    expect(Math.abs(visits - 240)).toBeLessThan(4 * 12)
  })

  test('names a script that is not there', () => {
    expect(() => day([{ ...walkers, script: 'gone' }])).toThrow('gone')
  })
})

import { describe, expect, test } from '@jest/globals'
import { DetectionSchema, type Detection } from '../../formats/plan.ts'
import { contains } from '../../geometry/shapes.ts'
import type { Mark } from '../../marks/marks.ts'
import { wordsOf } from '../../messages/words.ts'
import { parseWith } from '../../schema/parse.ts'
import { numbersFrom, weekOf, type Visitor } from '../testing/weeks.ts'
import type { Place } from '../stretches.ts'
import { recommend, type Recommendation } from './recommend.ts'

const place: Place = {
  plan: { schedules: [], timeZone: 'Europe/London' },
  camera: { ignore: [] }
}
const yard = (more: object = {}): Detection =>
  parseWith(DetectionSchema, {
    id: 'd',
    name: 'Yard',
    kind: 'intrusion',
    zone: [
      [0.2, 0.3],
      [0.8, 0.3],
      [0.8, 0.9],
      [0.2, 0.9]
    ],
    classes: ['person'],
    ...more
  })
const DAYS = 7
/** So many of a kind a day, an hour apart, each a little other. */
function days(
  make: (random: () => number, n: number) => Visitor[],
  seed = 7,
  count = DAYS
): Visitor[][] {
  const random = numbersFrom(seed)
  return Array.from({ length: count }, () =>
    Array.from({ length: 4 }, (_, n) => make(random, n)).flat()
  )
}
const ask = (detection: Detection, week: ReturnType<typeof weekOf>, at = place): Recommendation =>
  recommend({ place: at, detection, ...week })

describe('weeks whose best setting is known by how they are made', () => {
  // Passers-by are in the zone for at most 4.9 s, whoever is wanted for at least 12 s.
  const crowd = weekOf(
    days((random, n) => [
      { at: 3600 * n, stays: 1 + 3.9 * random(), mark: 'nuisance' },
      { at: 3600 * n + 60, stays: n === 0 ? 4.9 : 2, mark: 'nuisance' },
      { at: 3600 * n + 1200, stays: 12 + 4 * random(), mark: 'wanted' },
      { at: 3600 * n + 1800, stays: 3 }
    ])
  )
  test('a crowd that passes by: the dwell just above its longest stay, and nothing else', () => {
    const found = ask(yard(), crowd)
    expect(Object.keys(found.settings)).toEqual(['dwellSeconds'])
    // Rows are 0.1 s apart: whoever stays for 4.9 s has been there for 4.9 s at its last row inside.
    expect((found.settings as { dwellSeconds: number }).dwellSeconds).toBeCloseTo(5, 5)
    expect(found).toMatchObject({ kept: 28, wanted: 28, gone: 56, nuisances: 56, unmarked: 0 })
    expect(found.leftOut).toEqual({ days: 7, kept: 28, wanted: 28, gone: 56, nuisances: 56 })
    expect(found.now).toMatchObject({ kept: 28, gone: 0, unmarked: 28 })
    expect(found.ignore).toEqual([])
    expect(wordsOf(found.reason)).toBe(
      'On days left out: 28 of 28 wanted kept, 56 of 56 nuisances gone, over 7 days.'
    )
  })

  test('with the re-trigger delay, whose triggers hang on one another, the same dwell is found', () => {
    const found = ask(yard({ holdOffSeconds: 10 }), crowd)
    expect(found).toMatchObject({ kept: 28, gone: 56, settings: { dwellSeconds: 5 } })
  })

  test('foliage that sways at a known place: an ignore area over it, and no wanted target is under it', () => {
    const at = { x: 0.65, foot: 0.45 }
    const week = weekOf(
      days((random, n) => [
        { at: 3600 * n, stays: 6 + 3 * random(), ...at, sways: true, mark: 'nuisance' },
        { at: 3600 * n + 1200, stays: 6 + 3 * random(), foot: 0.75, mark: 'wanted' }
      ])
    )
    const found = ask(yard(), week)
    expect(found).toMatchObject({ kept: 28, gone: 28, leftOut: { kept: 28, gone: 28 } })
    // The zone may have been moved instead only if the leaves are out of it.
    expect(found.settings).toEqual({})
    expect(found.ignore).toHaveLength(1)
    expect(contains(found.ignore[0]!, at.x, at.foot)).toBe(true)
    expect(contains(found.ignore[0]!, 0.5, 0.75)).toBe(false)
  })

  test('animals that are taken for people: their size', () => {
    const week = weekOf(
      days((random, n) => [
        { at: 3600 * n, stays: 10, w: 0.05, h: 0.03 + 0.02 * random(), mark: 'nuisance' },
        { at: 3600 * n + 1200, stays: 10, h: 0.12 + 0.05 * random(), mark: 'wanted' }
      ])
    )
    const found = ask(yard(), week)
    expect(found).toMatchObject({ kept: 28, gone: 28 })
    const { min } = (found.settings as { size: { min: { w: number; h: number } } }).size
    expect(min.w).toBeGreaterThanOrEqual(0.05)
    expect(min.h).toBeGreaterThan(0.03)
    expect(min.h).toBeLessThan(0.12)
  })

  test('animals that are told as such: their class, though somebody has set that all count', () => {
    const week = weekOf(
      days((_, n) => [
        { at: 3600 * n, stays: 10, cls: 'animal', mark: 'nuisance' },
        { at: 3600 * n + 1200, stays: 10, mark: 'wanted' },
        { at: 3600 * n + 2400, stays: 10, cls: 'vehicle', mark: 'wanted' }
      ])
    )
    const found = ask(yard({ classes: [] }), week)
    expect(found).toMatchObject({ kept: 56, gone: 28 })
    expect((found.settings as { classes: string[] }).classes).not.toContain('animal')
    expect((found.settings as { classes: string[] }).classes).toEqual(
      expect.arrayContaining(['person', 'vehicle'])
    )
  })

  test('what has been missed is found again, when a setting is too tight', () => {
    const found = ask(yard({ dwellSeconds: 30 }), crowd)
    expect(found).toMatchObject({ kept: 28, gone: 56 })
    expect((found.settings as { dwellSeconds: number }).dwellSeconds).toBeCloseTo(12, 0)
  })
})

describe('honesty', () => {
  const few = weekOf([
    [
      { at: 10, stays: 2, mark: 'nuisance' },
      { at: 60, stays: 20, mark: 'wanted' }
    ]
  ])
  test('with few marks nothing is recommended, and what to mark is said', () => {
    const found = ask(yard(), few)
    expect(found).toMatchObject({
      settings: {},
      ignore: [],
      kept: 1,
      wanted: 1,
      gone: 0,
      nuisances: 1,
      leftOut: null
    })
    expect(wordsOf(found.reason)).toMatch(/^Too little to go by: 1 wanted mark and 1 nuisance mark/)
  })

  test('marks without sense, told by a coin: the days left out say that it learned nothing', () => {
    const random = numbersFrom(3)
    const coin = weekOf(
      days(
        (_, n) => [
          { at: 3600 * n, stays: 5 + 10 * random(), mark: random() < 0.5 ? 'wanted' : 'nuisance' },
          {
            at: 3600 * n + 900,
            stays: 5 + 10 * random(),
            mark: random() < 0.5 ? 'wanted' : 'nuisance'
          }
        ],
        5
      )
    )
    const found = ask(yard(), coin)
    expect(found.kept).toBe(found.wanted)
    // On its own marks it seems to do something; what is shown is less.
    const { gone, nuisances } = found.leftOut!
    expect(gone / nuisances).toBeLessThan(0.35)
  })

  test('three days are enough to leave out, two are not, and that is said', () => {
    const make = (n: number): Visitor[][] =>
      Array.from({ length: n }, () =>
        [0, 1, 2].flatMap((k): Visitor[] => [
          { at: 600 * k, stays: 2, mark: 'nuisance' },
          { at: 600 * k + 100, stays: 20, mark: 'wanted' }
        ])
      )
    expect(ask(yard(), weekOf(make(3))).leftOut).toMatchObject({ days: 3, gone: 9, kept: 9 })
    const two = ask(yard(), weekOf(make(2)))
    expect(two.leftOut).toBeNull()
    expect(wordsOf(two.reason)).toContain('Not checked on other days')
  })

  test('never worse by the marks than what is set, whatever the week and the settings', () => {
    for (let seed = 1; seed <= 2; seed++) {
      const random = numbersFrom(seed)
      const week = weekOf(
        days(
          (r, n) => [
            {
              at: 3600 * n,
              stays: 6 * r(),
              x: 0.25 + 0.5 * r(),
              foot: 0.4 + 0.4 * r(),
              mark: r() < 0.5 ? 'wanted' : 'nuisance'
            }
          ],
          seed,
          4
        )
      )
      const d = yard({
        sensitivity: 1 + Math.floor(99 * random()),
        dwellSeconds: Math.round(40 * random()) / 10,
        holdOffSeconds: seed % 2 ? 0 : 30
      })
      const found = ask(d, week)
      expect(found.kept).toBeGreaterThanOrEqual(found.now.kept)
      if (found.kept === found.now.kept) expect(found.gone).toBeGreaterThanOrEqual(found.now.gone)
    }
  })

  test('what checks expect stays: a change that fails one is not proposed', () => {
    const week = weekOf(
      days((_, n) => [
        { at: 3600 * n, stays: 3, mark: 'nuisance' },
        { at: 3600 * n + 1200, stays: 20, mark: 'wanted' }
      ])
    )
    const found = recommend({
      place,
      detection: yard(),
      ...week,
      keeps: ({ detection }) => (detection as { dwellSeconds: number }).dwellSeconds <= 2
    })
    expect(found.settings).not.toHaveProperty('dwellSeconds')
    expect(found.kept).toBe(28)
  })

  test('it may be stopped at any time', () => {
    const marks: Mark[] = []
    const week = weekOf(
      days((_, n) => [{ at: 3600 * n, stays: 3, mark: n % 2 ? 'wanted' : 'nuisance' }])
    )
    let ticks = 0
    expect(() =>
      recommend({
        place,
        detection: yard(),
        ...week,
        progress: (share) => {
          marks.length = 0
          expect(share).toBeGreaterThan(0)
          expect(share).toBeLessThanOrEqual(1)
          if (++ticks === 5) throw new Error('stop')
        }
      })
    ).toThrow('stop')
  })
})

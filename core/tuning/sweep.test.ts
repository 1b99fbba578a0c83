import { describe, expect, test } from '@jest/globals'
import { evaluate } from '../detections/index.ts'
import { DetectionSchema, type Detection } from '../formats/plan.ts'
import { parseWith } from '../schema/parse.ts'
import { tracksFromRows } from '../targets/tracks.ts'
import { scalesOf } from './scales.ts'
import type { Place } from './stretches.ts'
import { sweep, sweepValues } from './sweep.ts'
import { numbersFrom, weekOf } from './testing/weeks.ts'

const place: Place = { plan: { schedules: [], timeZone: 'UTC' }, camera: { ignore: [] } }
const zone = [
  [0.2, 0.3],
  [0.8, 0.3],
  [0.8, 0.9],
  [0.2, 0.9]
]
const of = (more: object): Detection =>
  parseWith(DetectionSchema, { id: 'd', name: 'D', classes: ['person'], ...more })
const yard = of({ kind: 'intrusion', zone, dwellSeconds: 2 })
const scale = (d: Detection, name: string, calibrated = false) =>
  scalesOf(d, calibrated).find((s) => s.name === name)!

describe('a sweep', () => {
  // Stays of 1 to 6 s: the wanted ones of 4 s and more.
  const week = weekOf([
    [1, 2, 3, 4, 5, 6].map((stays, n) => ({
      at: 100 * n,
      stays,
      ...(n !== 2 && { mark: stays >= 4 ? ('wanted' as const) : ('nuisance' as const) })
    }))
  ])
  test('counts wanted, nuisances and what is not marked, by value', () => {
    // Whoever stays for n seconds has been in for n seconds at its last row in the zone.
    expect([
      ...sweep(
        place,
        yard,
        scale(yard, 'dwellSeconds'),
        [0, 2, 3, 5, 6, 7],
        week.stretches,
        week.marks
      )
    ]).toEqual([
      { value: 0, wanted: 3, nuisance: 2, unmarked: 1 },
      { value: 2, wanted: 3, nuisance: 1, unmarked: 1 },
      { value: 3, wanted: 3, nuisance: 0, unmarked: 1 },
      { value: 5, wanted: 2, nuisance: 0, unmarked: 0 },
      { value: 6, wanted: 1, nuisance: 0, unmarked: 0 },
      { value: 7, wanted: 0, nuisance: 0, unmarked: 0 }
    ])
  })

  test('the present value is among the values, which are in order and within the schema', () => {
    const odd = of({ kind: 'loitering', zone, dwellSeconds: 33.3 })
    for (const s of scalesOf(odd, true)) {
      const values = sweepValues(s, odd)
      expect(values).toContain(s.get(odd))
      expect(values).toEqual([...values].sort((a, b) => a - b))
      for (const value of values)
        expect(() => parseWith(DetectionSchema, s.set(odd, value))).not.toThrow()
      expect(s.get(s.set(odd, values[3]!))).toBeCloseTo(values[3]!, 9)
    }
  })

  test('of every setting it counts what evaluating each value by itself gives', () => {
    const random = numbersFrom(11)
    const { stretches } = weekOf([
      Array.from({ length: 25 }, (_, n) => ({
        at: 9 * n,
        stays: 12 * random(),
        x: 0.15 + 0.7 * random(),
        foot: 0.3 + 0.5 * random(),
        h: 0.05 + 0.2 * random()
      }))
    ])
    const line = of({
      kind: 'line',
      line: [
        [0.5, 0.1],
        [0.5, 0.95]
      ],
      holdOffSeconds: 3
    })
    for (const d of [
      yard,
      line,
      of({ kind: 'loitering', zone, dwellSeconds: 3, holdOffSeconds: 8 })
    ])
      for (const s of scalesOf(d, false)) {
        const values = sweepValues(s, d).filter((_, i) => i % 4 === 0)
        expect(
          [...sweep(place, d, s, values, stretches, [])].map(({ unmarked }) => unmarked)
        ).toEqual(
          values.map(
            (value) =>
              evaluate(
                {
                  plan: place.plan,
                  camera: { ignore: [], detections: [s.set(d, value)] },
                  fps: 10,
                  start: stretches[0]!.start
                },
                stretches[0]!.tracks
              ).length
          )
        )
      }
  })

  test('a target that leaps over a line between two rows counts as near it', () => {
    const line = of({
      kind: 'line',
      line: [
        [0.5, 0.1],
        [0.5, 0.9]
      ]
    })
    const row = (frame: number, x: number) => ({
      frame,
      id: 1,
      x,
      y: 0.4,
      w: 0.02,
      h: 0.1,
      cls: 'person' as const,
      confidence: 1
    })
    const tracks = tracksFromRows([row(1, 0.1), row(2, 0.9)], 10)
    expect([
      ...sweep(place, line, scale(line, 'sensitivity'), [50], [{ tracks, start: 0 }], [])
    ]).toEqual([{ value: 50, wanted: 0, nuisance: 0, unmarked: 1 }])
  })
})

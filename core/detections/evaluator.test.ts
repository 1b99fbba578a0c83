import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { DetectionSchema, type Detection } from '../formats/plan.ts'
import { tracksFromRows, type TargetRow } from '../targets/tracks.ts'
import { Evaluator, evaluate, type Setting } from './evaluator.ts'
import { parseWith } from '../schema/parse.ts'

const unit = fc.double({ min: 0, max: 0.85, noNaN: true })
const rows = fc.uniqueArray(
  fc.record({
    frame: fc.integer({ min: 1, max: 60 }),
    id: fc.integer({ min: 1, max: 4 }),
    x: unit,
    y: unit,
    w: fc.double({ min: 0.02, max: 0.15, noNaN: true }),
    h: fc.double({ min: 0.02, max: 0.15, noNaN: true }),
    cls: fc.constantFrom('person' as const, 'animal' as const, 'unknown' as const),
    confidence: fc.constant(1)
  }),
  { selector: (r) => `${r.frame} ${r.id}`, maxLength: 120 }
)
const point = fc.tuple(unit, unit)
const detections = fc.array(
  fc.record({
    line: fc.uniqueArray(point, { minLength: 2, maxLength: 4, selector: ([x, y]) => `${x} ${y}` }),
    direction: fc.constantFrom('both', 'leftToRight', 'rightToLeft'),
    sensitivity: fc.integer({ min: 1, max: 100 }),
    classes: fc.constantFrom([], ['person'], ['person', 'animal']),
    confirmSeconds: fc.constantFrom(0, 0.2),
    holdOffSeconds: fc.constantFrom(0, 1.5)
  }),
  { minLength: 1, maxLength: 3 }
)
const made = (list: object[]): Detection[] =>
  list.map((d, i) => parseWith(DetectionSchema, { id: `d${i}`, name: `D${i}`, kind: 'line', ...d }))
const settingOf = (list: Detection[]): Setting => ({
  plan: { schedules: [], timeZone: 'UTC' },
  camera: { ignore: [], detections: list },
  fps: 10,
  start: 0
})

describe('evaluator', () => {
  test('gives the same triggers frame by frame as for the whole clip', () => {
    fc.assert(
      fc.property(rows, detections, (list, wanted) => {
        const tracks = tracksFromRows(list, 10)
        const setting = settingOf(made(wanted))
        const evaluator = new Evaluator(setting)
        const pieces = []
        for (let i = 0; i < tracks.length;) {
          const start = i
          while (i < tracks.length && tracks.frame[i] === tracks.frame[start]) i++
          pieces.push(...evaluator.push(tracks, start, i))
        }
        expect(pieces).toEqual(evaluate(setting, tracks))
      }),
      { numRuns: 300 }
    )
  })

  test('the order of detections affects only the order of triggers', () => {
    fc.assert(
      fc.property(rows, detections, (list, wanted) => {
        const tracks = tracksFromRows(list, 10)
        const all = made(wanted)
        const sorted = (order: Detection[]) =>
          evaluate(settingOf(order), tracks)
            .map((t) => JSON.stringify(t))
            .sort()
        expect(sorted([...all].reverse())).toEqual(sorted(all))
      }),
      { numRuns: 200 }
    )
  })

  test('treats a target that returns after more than a second as a new one', () => {
    fc.assert(
      fc.property(rows, rows, detections, (first, second, wanted) => {
        const later = second.map((r) => ({ ...r, frame: r.frame + 60 + 11 }))
        const setting = settingOf(made(wanted.map((d) => ({ ...d, holdOffSeconds: 0 }))))
        const same = evaluate(setting, tracksFromRows([...first, ...later], 10))
        const renamed = evaluate(
          setting,
          tracksFromRows([...first, ...later.map((r) => ({ ...r, id: r.id + 100 }))], 10)
        )
        expect(same).toEqual(
          renamed.map((t) => ({ ...t, target: t.target! > 100 ? t.target! - 100 : t.target }))
        )
      }),
      { numRuns: 200 }
    )
  })

  test('refuses frames that go backwards', () => {
    const row = (frame: number): TargetRow => ({
      frame,
      id: 1,
      x: 0,
      y: 0,
      w: 0.1,
      h: 0.1,
      cls: 'person',
      confidence: 1
    })
    const evaluator = new Evaluator(settingOf([]))
    evaluator.push(tracksFromRows([row(5)], 10))
    expect(() => evaluator.push(tracksFromRows([row(5)], 10))).toThrowWords(
      'frame 5 came after frame 5'
    )
  })

  test('a re-trigger delay longer than the clip leaves at most one trigger; none leaves them all', () => {
    fc.assert(
      fc.property(rows, detections, (list, wanted) => {
        const tracks = tracksFromRows(list, 10)
        const [one] = made(wanted)
        const count = (holdOffSeconds: number) =>
          evaluate(settingOf([{ ...one!, holdOffSeconds }]), tracks).length
        expect(count(1000)).toBe(Math.min(1, count(0)))
      }),
      { numRuns: 200 }
    )
  })
})

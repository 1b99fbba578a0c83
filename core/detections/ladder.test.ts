import { describe, expect, test } from '@jest/globals'
import { DetectionSchema, ScheduleSchema } from '../formats/plan.ts'
import { tracksFromRows, type TargetRow } from '../targets/tracks.ts'
import { evaluate, type Setting } from './evaluator.ts'
import { explain, explainAll, isNearMiss, missingOf } from './ladder.ts'
import { parseWith } from '../schema/parse.ts'

const nights = parseWith(ScheduleSchema, {
  id: 'n',
  name: 'Nights',
  week: { mon: [['18:30', '24:00']] }
})
const make = (detection: object, start = '2026-06-01T19:00:00Z'): Setting => ({
  plan: { schedules: [nights], timeZone: 'UTC' },
  camera: {
    ignore: [],
    detections: [
      parseWith(DetectionSchema, {
        id: 'a',
        name: 'A',
        kind: 'line',
        line: [
          [0.1, 0.5],
          [0.9, 0.5]
        ],
        sides: { left: 'Water', right: 'Land' },
        ...detection
      })
    ]
  },
  fps: 10,
  start: Date.parse(start)
})
/** Lower edges at which `n` of six lattice rows are over the line, from frame 1. */
const walk = (...rows: number[]) =>
  tracksFromRows(
    rows.map((n, i): TargetRow => ({
      frame: i + 1,
      id: 4,
      x: 0.4,
      y: 0.38 + n * 0.02,
      w: 0.05,
      h: 0.12,
      cls: 'person',
      confidence: 1
    })),
    10
  )
const rung = (ladder: ReturnType<typeof explain>, gate: string) =>
  ladder?.readings.find((r) => r.gate === gate)

describe('ladder of conditions', () => {
  test('for a trigger, lists each gate’s measured and needed value at its frame', () => {
    const setting = make({
      classes: ['person'],
      confirmSeconds: 0.2,
      schedule: 'n',
      direction: 'leftToRight'
    })
    const tracks = walk(0, 1, 2, 3, 6)
    const [trigger] = evaluate(setting, tracks)
    const ladder = explain(setting, tracks, 'a', 4)!
    expect([ladder.frame, ladder.fired, trigger!.frame]).toEqual([4, true, 4])
    expect(ladder.readings.map((r) => [r.gate, r.passed, r.measured, r.limit])).toEqual([
      ['class', true, 'person', 'person'],
      ['size', true, '5 × 12% of the picture', 'any size'],
      ['confirm', true, 'person for 0.3 s', 'at least 0.2 s'],
      ['direction', true, 'Water → Land', 'Water → Land'],
      ['share', true, '50% over the line', 'at least 50%'],
      ['armed', true, 'Mon 19:00', 'Nights, until Tue 00:00']
    ])
    expect(ladder.sentence).toEqual('Triggered at 0.3 s: all conditions met.')
  })

  test('says how likely the class is, where that was said', () => {
    const measured = (confidence: number) => {
      const tracks = walk(0, 1, 2, 3, 6)
      tracks.confidence.fill(confidence)
      return rung(explain(make({}), tracks, 'a', 4), 'class')!.measured
    }
    expect(measured(0.8)).toEqual('person, 80% likely')
    expect(measured(1)).toEqual('person')
    // Written for hidden rows before there were likelihoods.
    expect(measured(0.5)).toEqual('person')
  })

  test('for a target that turned back, shows its best moment and the missing share', () => {
    const ladder = explain(make({}), walk(0, 1, 2, 1, 0), 'a', 4)!
    expect([ladder.frame, ladder.fired]).toEqual([3, false])
    expect(rung(ladder, 'share')).toMatchObject({ passed: false, value: 1 / 3, needed: 0.5 })
    expect(ladder.sentence).toEqual(
      'Overlap not met: 33.3% over the line at 0.2 s, needs at least 50%.'
    )
  })

  test('names the gate that stopped a full crossing', () => {
    const stopped = (detection: object, start?: string) =>
      explain(make(detection, start), walk(0, 2, 4, 6), 'a', 4)!.sentence
    expect(stopped({ classes: ['vehicle'] })).toSay(/^Class not met: person at .*, needs vehicle/)
    expect(stopped({ direction: 'rightToLeft' })).toSay(
      /^Direction not met: Water → Land at .*, needs Land → Water/
    )
    expect(stopped({ schedule: 'n' }, '2026-06-01T12:00:00Z')).toSay(
      /^Arming schedule not met: Mon 12:00 at .*, needs Nights, from Mon 18:30/
    )
    expect(stopped({ confirmSeconds: 5 })).toSay(/^Confirmation time not met: person for 0.\d s/)
    expect(stopped({ size: { max: { w: 0.02, h: 0.02 } } })).toSay(/^Size not met/)
  })

  test('says when a target was never near; has no ladder for an unknown target', () => {
    expect(explain(make({}), walk(-5, -6), 'a', 4)!.sentence).toEqual(
      'No part of the target was over the line.'
    )
    expect(explain(make({}), walk(-5, -6), 'a', 99)).toBeNull()
  })

  test('asking does not change the triggers', () => {
    const setting = make({ holdOffSeconds: 0.3 })
    const tracks = walk(0, 6, 0, 6, 0, 6, 0, 6)
    const fired = evaluate(setting, tracks).map((t) => t.frame)
    expect(fired.length).toBeGreaterThan(1)
    for (const frame of fired)
      expect(explain(setting, tracks, 'a', 4, frame)).toMatchObject({ frame, fired: true })
    expect(rung(explain(setting, tracks, 'a', 4, fired[0]! + 1), 'holdOff')).toMatchObject({
      passed: false
    })
  })

  test('gives the same for all targets at once; near misses are those that one gate alone stopped', () => {
    const setting = make({ classes: ['person'], direction: 'leftToRight' })
    const one = (id: number, cls: TargetRow['cls'], ...rows: number[]) =>
      rows.map((n, i): TargetRow => ({
        frame: i + 1,
        id,
        x: 0.1 * id,
        y: 0.38 + n * 0.02,
        w: 0.05,
        h: 0.12,
        cls,
        confidence: 1
      }))
    const tracks = tracksFromRows(
      [
        ...one(2, 'person', 0, 2, 4, 6),
        ...one(3, 'person', 0, 2, 0, 0),
        ...one(4, 'animal', 0, 2, 4, 6),
        ...one(5, 'animal', 0, 1, 0, 0)
      ],
      10
    )
    const all = explainAll(setting, tracks, 'a')
    const alone = [2, 3, 4, 5].map((id) => {
      const { history, ...ladder } = explain(setting, tracks, 'a', id)!
      expect(history.map((h) => h.gate)).toEqual(ladder.readings.map((r) => r.gate))
      return ladder
    })
    expect(all).toEqual(alone)
    expect(all.map((l) => [l.target, l.fired, isNearMiss(l)])).toEqual([
      [2, true, false],
      [3, false, true],
      [4, false, true],
      [5, false, false]
    ])
  })

  test('gives for each gate when it first passed, when it first stopped, and its best moment', () => {
    const setting = make({ classes: ['person'], confirmSeconds: 0.2 })
    const { history, fired } = explain(setting, walk(0, 1, 2, 1, 0), 'a', 4)!
    expect(fired).toBe(false)
    const of = (gate: string) => history.find((h) => h.gate === gate)
    expect(of('class')).toEqual({
      gate: 'class',
      firstPassed: 0,
      firstStopped: null,
      best: { time: 0, measured: 'person', limit: 'person', margin: null }
    })
    expect(of('confirm')).toMatchObject({
      firstPassed: 0.2,
      firstStopped: 0,
      best: { time: 0.4, margin: 1 }
    })
    expect(of('share')).toMatchObject({
      firstPassed: null,
      firstStopped: 0,
      best: { time: 0.2, measured: '33.3% over the line', limit: 'at least 50%' }
    })
    expect(of('share')!.best.margin).toBeCloseTo(-1 / 3, 9)
  })

  test('one target’s trace includes the re-trigger delay that others started', () => {
    const setting = make({ holdOffSeconds: 5 })
    const rows = (id: number, ...over: number[]) =>
      over.map((n, i): TargetRow => ({
        frame: i + 1,
        id,
        x: 0.2 * id,
        y: 0.38 + n * 0.02,
        w: 0.05,
        h: 0.12,
        cls: 'person',
        confidence: 1
      }))
    const tracks = tracksFromRows([...rows(1, 0, 6, 7, 8), ...rows(2, 0, 0, 6, 7)], 10)
    const triggers = evaluate(setting, tracks)
    expect(triggers.map((t) => t.target)).toEqual([1])
    for (const known of [undefined, triggers]) {
      const trace = explain(setting, tracks, 'a', 2, undefined, known)!
      expect(trace.sentence).toEqual(
        'Re-trigger delay not met: 0.1 s since the last trigger at 0.2 s, needs at least 5 s.'
      )
      expect(explain(setting, tracks, 'a', 1, undefined, known)!.fired).toBe(true)
    }
  })

  test('gives the shortfall of a near miss as a share of the limit, or all of it where there is no scale', () => {
    const missing = (detection: object, ...rows: number[]): number => {
      const ladder = explain(make(detection), walk(...rows), 'a', 4)!
      expect(isNearMiss(ladder)).toBe(true)
      return missingOf(ladder)
    }
    // Two of six rows over, three are needed; seen for 0.3 s of 0.4 s; 0.05 × 0.12 against a frame of 0.1 × 0.15.
    expect(missing({}, 0, 1, 2, 1)).toBeCloseTo(1 / 3, 9)
    expect(missing({ confirmSeconds: 0.4 }, 0, 1, 2, 6)).toBeCloseTo(0.25, 9)
    expect(missing({ size: { min: { w: 0.1, h: 0.15 } } }, 0, 2, 6, 6)).toBeCloseTo(
      1 - 0.12 / 0.15,
      9
    )
    expect(missing({ size: { max: { w: 0.04, h: 0.2 } } }, 0, 2, 6, 6)).toBeCloseTo(
      1 - 0.04 / 0.05,
      9
    )
    expect(missing({ classes: ['vehicle'] }, 0, 2, 6, 6)).toBe(1)
  })

  test('a size well inside its limits has no shortfall', () => {
    const ladder = explain(
      make({ size: { min: { w: 0.01, h: 0.02 }, max: { w: 0.5, h: 0.9 } } }),
      walk(0, 2, 6),
      'a',
      4
    )!
    expect(rung(ladder, 'size')).toMatchObject({ passed: true, needed: 1, value: 6 })
    expect(rung(explain(make({}), walk(0, 2, 6), 'a', 4), 'size')).not.toHaveProperty('value')
  })
})

import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { evaluate, type Setting, type Trigger } from '../detections/index.ts'
import { DetectionSchema, ScheduleSchema, type Detection } from '../formats/plan.ts'
import { tracksFromRows, type TargetRow, type Tracks } from '../targets/tracks.ts'
import type { TargetClass } from '../targets/classes.ts'
import { wordsOf } from '../messages/words.ts'
import { changesFor, effectOf } from './change.ts'
import { parseWith } from '../schema/parse.ts'
import type { GateChange } from './candidates.ts'

const START = Date.parse('2026-11-24T09:00:00Z')
const settingOf = (d: Detection, more: Partial<Setting> = {}): Setting => ({
  plan: { schedules: [], timeZone: 'Europe/London' },
  camera: { ignore: [], detections: [d] },
  fps: 10,
  start: START,
  ...more
})
const detection = (change: object): Detection =>
  parseWith(DetectionSchema, { id: 'd', name: 'D', ...change })

/** A target that walks down the picture by `speed` a second for so many seconds, from a height of its feet on. */
function walk({
  id = 1,
  seconds = 6,
  from = 0.2,
  speed = 0.1,
  x = 0.5,
  w = 0.05,
  h = 0.2,
  cls = 'person'
}: Partial<Record<'id' | 'seconds' | 'from' | 'speed' | 'x' | 'w' | 'h', number>> & {
  cls?: TargetClass
} = {}): TargetRow[] {
  return Array.from({ length: Math.round(seconds * 10) }, (_, i) => ({
    frame: i + 1,
    id,
    x: x - w / 2,
    y: from + (speed * i) / 10 - h,
    w,
    h,
    cls,
    confidence: 1
  }))
}
const fires = (d: Detection, tracks: Tracks, target = 1, more: Partial<Setting> = {}): boolean =>
  evaluate(settingOf(d, more), tracks).some((t) => t.target === target)
const ask = (d: Detection, tracks: Tracks, target = 1, more: Partial<Setting> = {}): GateChange[] =>
  changesFor({ setting: settingOf(d, more), tracks, detection: 'd', target })
const by = (changes: GateChange[], gate: GateChange['gate']): GateChange | undefined =>
  changes.find((c) => c.gate === gate)

describe('what would have to change, on clips with known answers', () => {
  // Feet from 0.2 to 0.79; the line at 0.7. At the last row the lowest of six lattice rows that are over it is known.
  const line = (more: object = {}): Detection =>
    detection({
      kind: 'line',
      line: [
        [0, 0.7],
        [1, 0.7]
      ],
      classes: ['person'],
      ...more
    })
  const tracks = tracksFromRows(walk(), 10)

  test('overlap: with 3 of 6 rows over, half is enough and 51% is not', () => {
    expect(fires(line({ sensitivity: 40 }), tracks)).toBe(false)
    const change = by(ask(line({ sensitivity: 40 }), tracks), 'share')!
    // Found by trying every sensitivity.
    const least = Array.from({ length: 61 }, (_, i) => 40 + i).find((sensitivity) =>
      fires(line({ sensitivity }), tracks)
    )!
    expect(change.detection).toMatchObject({ sensitivity: least })
    expect(change.words).toEqual(`Sensitivity 40 → ${least}`)
  })

  test('dwell: a stay of 4.2 s in a zone of 10 s', () => {
    const zone = [
      [0.3, 0.3],
      [0.7, 0.3],
      [0.7, 0.9],
      [0.3, 0.9]
    ]
    const standing = tracksFromRows(
      [
        ...walk({ seconds: 3, from: 0.1, speed: 0.1 }),
        ...Array.from({ length: 42 }, (_, i): TargetRow => ({
          frame: 31 + i,
          id: 1,
          x: 0.475,
          y: 0.5,
          w: 0.05,
          h: 0.2,
          cls: 'person',
          confidence: 1
        }))
      ],
      10
    )
    const d = detection({ kind: 'intrusion', zone, dwellSeconds: 10, classes: ['person'] })
    const change = by(ask(d, standing), 'dwell')!
    expect(fires(change.detection, standing)).toBe(true)
    const { dwellSeconds } = change.detection as { dwellSeconds: number }
    expect(fires({ ...d, dwellSeconds: dwellSeconds + 0.1 } as Detection, standing)).toBe(false)
    expect(change.words).toEqual(`Dwell 10 s → ${dwellSeconds} s`)
  })

  test('class, direction, confirm time, size: each alone', () => {
    expect(by(ask(line({ classes: ['vehicle'] }), tracks), 'class')).toMatchObject({
      words: 'Count person too',
      detection: { classes: ['vehicle', 'person'] }
    })
    expect(
      ask(line({ direction: 'leftToRight' }), tracks)
        .concat(ask(line({ direction: 'rightToLeft' }), tracks))
        .filter(
          ({ gate, words }) => gate === 'direction' && wordsOf(words) === 'Count both directions'
        )
    ).toHaveLength(1)
    const confirm = by(ask(line({ confirmSeconds: 20 }), tracks), 'confirm')!
    expect(
      fires(
        {
          ...confirm.detection,
          confirmSeconds: (confirm.detection as { confirmSeconds: number }).confirmSeconds + 0.1
        } as Detection,
        tracks
      )
    ).toBe(false)
    const size = by(ask(line({ size: { min: { w: 0.1, h: 0.25 } } }), tracks), 'size')!
    // The target is 0.05 × 0.2: the frame must shrink until one of its sides is smaller than that.
    expect(size.detection).toMatchObject({ size: { min: { w: 0.079, h: 0.1975 } } })
  })

  test('schedule: extends the span that ended ten minutes before, to whole five minutes', () => {
    const schedule = parseWith(ScheduleSchema, {
      id: 's',
      name: 'Early',
      week: { tue: [['06:00', '08:50']] }
    })
    const more = { plan: { schedules: [schedule], timeZone: 'Europe/London' } }
    const change = by(ask(line({ schedule: 's' }), tracks, 1, more), 'armed')!
    expect(change.words).toEqual('Early: ends 09:05 instead of 08:50 on Tuesday')
    expect(change.schedule!.week.tue).toEqual([['06:00', '09:05']])
    const other = parseWith(ScheduleSchema, {
      id: 's',
      name: 'Early',
      week: { mon: [['06:00', '08:50']] }
    })
    expect(
      by(
        ask(line({ schedule: 's' }), tracks, 1, {
          plan: { schedules: [other], timeZone: 'Europe/London' }
        }),
        'armed'
      )!.schedule!.week.tue
    ).toEqual([['09:00', '09:05']])
  })

  test('re-trigger delay: the second within 5 s of the first', () => {
    const two = tracksFromRows(
      [...walk({ id: 1 }), ...walk({ id: 2, x: 0.7, from: 0.1, seconds: 7 })],
      10
    )
    const d = line({ holdOffSeconds: 5, sensitivity: 80 })
    expect([fires(d, two, 1), fires(d, two, 2)]).toEqual([true, false])
    const change = by(ask(d, two, 2), 'holdOff')!
    expect(fires(change.detection, two, 2)).toBe(true)
    expect(
      fires({ ...change.detection, holdOffSeconds: change.detection.holdOffSeconds + 0.1 }, two, 2)
    ).toBe(false)
  })

  test('offers no single change for two gates, and none for an unknown target', () => {
    expect(ask(line({ classes: ['vehicle'], sensitivity: 5 }), tracks)).toEqual([])
    expect(ask(line(), tracks, 77)).toEqual([])
  })

  test('to keep a target out, every proposal does, the smallest change first', () => {
    const d = line({ sensitivity: 60, direction: 'both' })
    const changes = ask(d, tracks)
    expect(changes.map(({ gate }) => gate)).toEqual(
      expect.arrayContaining(['share', 'confirm', 'size', 'direction'])
    )
    for (const change of changes) expect(fires(change.detection, tracks)).toBe(false)
    for (let i = 1; i < changes.length; i++)
      expect(changes[i]!.size).toBeGreaterThanOrEqual(changes[i - 1]!.size)
    const share = by(changes, 'share')!.detection as { sensitivity: number }
    expect(fires({ ...d, sensitivity: share.sensitivity + 1 } as Detection, tracks)).toBe(true)
  })
})

test('for any walk and setting, a proposal works and one step less does not', () => {
  fc.assert(
    fc.property(
      fc.record({
        seconds: fc.integer({ min: 2, max: 8 }),
        speed: fc.double({ min: 0.03, max: 0.15, noNaN: true }),
        h: fc.double({ min: 0.08, max: 0.3, noNaN: true })
      }),
      fc.record({
        sensitivity: fc.integer({ min: 1, max: 100 }),
        confirmSeconds: fc.integer({ min: 0, max: 80 }).map((n) => n / 10),
        dwellSeconds: fc.integer({ min: 0, max: 60 }).map((n) => n / 10)
      }),
      (way, gates) => {
        const tracks = tracksFromRows(walk(way), 10)
        const d = detection({
          kind: 'intrusion',
          zone: [
            [0.2, 0.4],
            [0.8, 0.4],
            [0.8, 0.8],
            [0.2, 0.8]
          ],
          classes: ['person'],
          ...gates
        })
        const before = fires(d, tracks)
        for (const change of ask(d, tracks)) {
          expect(fires(change.detection, tracks)).toBe(!before)
          // Where nothing else stands in the way, a share or a time that is tightened never lets more through.
          if (change.gate === 'confirm') {
            const { confirmSeconds } = change.detection as { confirmSeconds: number }
            expect(
              fires(
                {
                  ...change.detection,
                  confirmSeconds: Math.max(
                    0,
                    Math.round((confirmSeconds + (before ? -0.1 : 0.1)) * 10) / 10
                  )
                } as Detection,
                tracks
              )
            ).toBe(before)
          }
        }
      }
    ),
    { numRuns: 60 }
  )
})

describe('side effects of a change', () => {
  const t = (target: number, time: number, d = 'd'): Trigger => ({
    detection: d,
    kind: 'line',
    target,
    frame: time * 10 + 1,
    time
  })
  test('counts triggers gained and lost, not those that only move in time', () => {
    expect(effectOf([t(1, 2), t(2, 3)], [t(1, 2.5), t(3, 4)])).toEqual({
      gained: [t(3, 4)],
      lost: [t(2, 3)]
    })
    expect(effectOf([t(1, 2)], [t(1, 2), t(1, 8)])).toEqual({ gained: [t(1, 8)], lost: [] })
    expect(
      effectOf(
        [{ ...t(1, 2), direction: 'leftToRight' }],
        [{ ...t(1, 5), direction: 'rightToLeft' }]
      )
    ).toEqual({
      gained: [{ ...t(1, 5), direction: 'rightToLeft' }],
      lost: [{ ...t(1, 2), direction: 'leftToRight' }]
    })
    expect(effectOf([t(1, 2)], [t(1, 2, 'e')])).toEqual({ gained: [t(1, 2, 'e')], lost: [t(1, 2)] })
  })
})

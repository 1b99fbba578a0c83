import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { triggerLine } from '../formats/triggers.ts'
import { DetectionSchema } from '../formats/plan.ts'
import { tracksFromRows, type TargetRow } from '../targets/tracks.ts'
import { Evaluator, evaluate, type Setting } from './evaluator.ts'
import { explain } from './ladder.ts'
import { parseWith } from '../schema/parse.ts'

/** The right half of the picture. */
const zone = [
  [0.5, 0],
  [1, 0],
  [1, 1],
  [0.5, 1]
]
const settingOf = (detection: object, more: Partial<Setting> = {}): Setting => ({
  plan: { schedules: [], timeZone: 'UTC' },
  camera: {
    ignore: [],
    detections: [parseWith(DetectionSchema, { id: 'z', name: 'Z', zone, ...detection })]
  },
  fps: 10,
  start: 0,
  ...more
})
/** A target 0.1 wide; `share` frame by frame is the part of it in the zone, null no row. */
const walk = (shares: (number | null)[], more: Partial<TargetRow> = {}, first = 1): TargetRow[] =>
  shares.flatMap((s, i) =>
    s === null
      ? []
      : [
          {
            frame: first + i,
            id: 1,
            x: 0.4 + 0.1 * s,
            y: 0.4,
            w: 0.1,
            h: 0.2,
            cls: 'person' as const,
            confidence: 1,
            ...more
          }
        ]
  )
const run = (detection: object, rows: TargetRow[], more: Partial<Setting> = {}) =>
  evaluate(settingOf(detection, more), tracksFromRows(rows, 10)).map((t) => t.frame)
const times = <T>(n: number, value: T): T[] => new Array<T>(n).fill(value)

describe('intrusion', () => {
  const intrusion = (change: object, rows: TargetRow[], more: Partial<Setting> = {}) =>
    run({ kind: 'intrusion', ...change }, rows, more)

  test('dwell 0 triggers at the first row with enough of the body in (common practice, no source)', () => {
    expect(intrusion({}, walk([0, 0.2, 0.4, 0.5, 1]))).toEqual([4])
    expect(intrusion({ sensitivity: 75 }, walk([0, 0.2, 0.26, 0.5, 1]))).toEqual([3])
    expect(intrusion({ sensitivity: 90 }, walk([0, 0.1, 0.4]))).toEqual([2])
    expect(intrusion({}, walk([0, 0.49, 0.49]))).toEqual([])
  })

  test('the dwell starts at the first row in and triggers when it is over', () => {
    expect(intrusion({ dwellSeconds: 0.5 }, walk([0, ...times(10, 1)]))).toEqual([7])
    expect(intrusion({ dwellSeconds: 0.5 }, walk([0, ...times(5, 1), 0]))).toEqual([])
  })

  // A passer-by takes five to six seconds across a zone; a dwell just above that catches who stays.
  // Common practice, no source.
  test('a dwell of 6 s ignores a passer-by of 5.5 s, and triggers for somebody who stays', () => {
    expect(intrusion({ dwellSeconds: 6 }, walk([0, ...times(56, 1), ...times(20, 0)]))).toEqual([])
    expect(intrusion({ dwellSeconds: 6 }, walk([0, ...times(100, 1)]))).toEqual([62])
  })

  test('up to 1.0 s out or unseen keeps the stay; more ends it', () => {
    const out = (n: number) => walk([0, 1, ...times(n, 0), ...times(12, 1)])
    expect(intrusion({ dwellSeconds: 1.5 }, out(9))).toEqual([17])
    expect(intrusion({ dwellSeconds: 1.5 }, out(10))).toEqual([]) // a new stay begins at frame 13 and lasts 1.1 s
    expect(
      intrusion({ dwellSeconds: 1.5 }, walk([0, 1, ...times(9, null), ...times(12, 1)]))
    ).toEqual([17])
    expect(
      intrusion({ dwellSeconds: 1.5 }, walk([0, 1, ...times(10, null), ...times(20, 1)]))
    ).toEqual([28]) // another target, first seen inside
  })

  test('triggers only while in, not while out within the grace time', () => {
    expect(intrusion({ dwellSeconds: 0.5 }, walk([0, 1, 1, ...times(5, 0), 1]))).toEqual([9])
  })

  test('triggers once per stay', () => {
    expect(intrusion({}, walk([0, ...times(30, 1)]))).toEqual([2])
    expect(intrusion({}, walk([0, 1, ...times(5, 0), 1]))).toEqual([2])
    expect(intrusion({}, walk([0, 1, ...times(11, 0), 1]))).toEqual([2, 14])
  })

  test('counts targets first seen inside, unless told not to', () => {
    expect(intrusion({}, walk([1, 1]))).toEqual([1])
    expect(intrusion({ countFirstSeenInside: false }, walk(times(30, 1)))).toEqual([])
    expect(intrusion({ countFirstSeenInside: false }, walk([1, 1, 0.4, 1]))).toEqual([4])
    expect(intrusion({ countFirstSeenInside: false }, walk([0.4, 1]))).toEqual([2])
  })

  test('a stopped stay stays pending while the target is in', () => {
    const late = [...walk([0, 1, 1], { cls: 'unknown' }), ...walk([1, 1], {}, 4)]
    expect(intrusion({ classes: ['person'] }, late)).toEqual([4])
    const gone = [...walk([0, 1, 1], { cls: 'unknown' }), ...walk([0, 0], {}, 4)]
    expect(intrusion({ classes: ['person'] }, gone)).toEqual([])
    expect(
      intrusion({ holdOffSeconds: 0.5 }, [
        ...walk([0, ...times(12, 1)]),
        ...walk([0, 0, 0, ...times(12, 1)], { id: 2 })
      ])
    ).toEqual([2, 7])
  })

  test('has no direction', () => {
    const [trigger] = evaluate(settingOf({ kind: 'intrusion' }), tracksFromRows(walk([0, 1]), 10))
    expect(triggerLine(trigger!)).toBe(
      '{"detection":"z","kind":"intrusion","target":1,"frame":2,"time":0.1}'
    )
  })
})

describe('intrusion of at least N', () => {
  const two = { kind: 'intrusion', atLeast: 2 }
  const all = (detection: object, rows: TargetRow[], more: Partial<Setting> = {}) =>
    evaluate(settingOf(detection, more), tracksFromRows(rows, 10)).map((t) => [t.frame, t.targets])

  test('triggers when N are in together and names them in ascending order', () => {
    expect(
      all(two, [...walk([0, 1, 1, 1, 1], { id: 9 }), ...walk([0, 0, 0, 1, 1], { id: 4 })])
    ).toEqual([[4, [4, 9]]])
    expect(all(two, walk([0, 1, 1, 1]))).toEqual([])
    const [trigger] = evaluate(
      settingOf(two),
      tracksFromRows([...walk([0, 1], { id: 9 }), ...walk([0, 1], { id: 4 })], 10)
    )
    expect(triggerLine(trigger!)).toBe(
      '{"detection":"z","kind":"intrusion","targets":[4,9],"frame":2,"time":0.1}'
    )
  })

  test('each must complete the dwell and pass class, size, ignore and confirmation once', () => {
    expect(
      all({ ...two, dwellSeconds: 0.3 }, [
        ...walk([0, ...times(9, 1)]),
        ...walk([0, 0, 0, ...times(7, 1)], { id: 2 })
      ])
    ).toEqual([[7, [1, 2]]])
    expect(
      all({ ...two, classes: ['person'] }, [
        ...walk([0, ...times(9, 1)]),
        ...walk([0, ...times(9, 1)], { id: 2, cls: 'animal' })
      ])
    ).toEqual([])
    // Once qualified it stays so, whatever its class becomes.
    const changed = [
      ...walk([0, 1]),
      ...walk(times(5, 1), { cls: 'unknown' }, 3),
      ...walk([0, 0, 0, 0, 1, 1], { id: 2 })
    ]
    expect(all({ ...two, classes: ['person'] }, changed)).toEqual([[5, [1, 2]]])
  })

  test('a stay counts until a frame after its last row in plus the grace time', () => {
    const other = (first: number) =>
      walk(
        times(40, 0).map((_, i) => (i + 1 >= first ? 1 : 0)),
        { id: 2 }
      )
    expect(all(two, [...walk([0, 1, ...times(30, 0)]), ...other(12)])).toEqual([[12, [1, 2]]])
    expect(all(two, [...walk([0, 1, ...times(30, 0)]), ...other(13)])).toEqual([])
    // The same for one who is no longer seen at all.
    expect(all(two, [...walk([0, 1]), ...other(12)])).toEqual([[12, [1, 2]]])
    expect(all(two, [...walk([0, 1]), ...other(13)])).toEqual([])
  })

  test('triggers again only after fewer than N qualify', () => {
    const first = walk([0, ...times(60, 1)])
    expect(
      all(two, [...first, ...walk([0, ...times(20, 1), ...times(8, 0), 1, 1], { id: 2 })])
    ).toEqual([[2, [1, 2]]])
    expect(
      all(two, [...first, ...walk([0, ...times(20, 1), ...times(12, 0), 1, 1], { id: 2 })])
    ).toEqual([
      [2, [1, 2]],
      [34, [1, 2]]
    ])
    // A third who comes when two are in changes nothing.
    expect(
      all(two, [
        ...first,
        ...walk([0, ...times(20, 1)], { id: 2 }),
        ...walk([0, 0, 0, 1, 1, 1], { id: 3 })
      ])
    ).toEqual([[2, [1, 2]]])
    // Frames in which nobody is seen count as well: in between, nobody was qualified.
    const gone = [...walk([0, 1], { id: 1 }), ...walk([0, 1], { id: 2 })]
    const back = [...walk([1], { id: 3 }, 40), ...walk([1], { id: 4 }, 40)]
    expect(all(two, [...gone, ...back])).toEqual([
      [2, [1, 2]],
      [40, [3, 4]]
    ])
  })

  test('waits for the schedule and the re-trigger delay', () => {
    const schedules = [
      {
        id: 's',
        name: 'S',
        week: {
          mon: [],
          tue: [],
          wed: [],
          thu: [['00:00', '24:00'] as const],
          fri: [],
          sat: [],
          sun: []
        },
        exceptions: []
      }
    ]
    const start = Date.parse('2026-06-03T23:59:59.500Z') // a Wednesday; armed from 0.5 s on
    const rows = [...walk([0, ...times(12, 1)]), ...walk([0, ...times(12, 1)], { id: 2 })]
    expect(
      all({ ...two, schedule: 's' }, rows, { plan: { schedules, timeZone: 'UTC' }, start })
    ).toEqual([[6, [1, 2]]])
  })
})

describe('loitering', () => {
  const loitering = (change: object, rows: TargetRow[]) =>
    run({ kind: 'loitering', dwellSeconds: 2, ...change }, rows)

  test('stepping out within the grace time keeps the stay, and the time outside counts', () => {
    expect(loitering({ graceSeconds: 3 }, walk([0, 1, ...times(25, 0), 1]))).toEqual([28])
    expect(loitering({ graceSeconds: 2.4 }, walk([0, 1, ...times(25, 0), 1]))).toEqual([])
    expect(loitering({}, walk([0, 1, ...times(95, 0), 1]))).toEqual([98]) // 10 s are the default
    expect(loitering({}, walk([0, 1, ...times(101, 0), 1]))).toEqual([])
    expect(loitering({ graceSeconds: 0 }, walk([0, ...times(22, 1)]))).toEqual([22])
  })

  test('a target unseen for over a second ends its stay, whatever the grace time', () => {
    expect(loitering({}, walk([0, 1, ...times(11, null), ...times(15, 1)]))).toEqual([])
  })

  test('refuses a dwell or grace time out of range', () => {
    const refused = (change: object) => () =>
      parseWith(DetectionSchema, {
        id: 'z',
        name: 'Z',
        zone,
        kind: 'loitering',
        dwellSeconds: 5,
        ...change
      })
    expect(refused({ dwellSeconds: 0.5 })).toThrowWords(
      '$.dwellSeconds: must be a number from 1 to 3600 s'
    )
    expect(refused({ graceSeconds: 121 })).toThrowWords(
      '$.graceSeconds: must be a number from 0 to 120 s'
    )
    expect(refused({})).not.toThrow()
  })
})

describe('zone entry and exit', () => {
  const entry = (change: object, rows: TargetRow[]) => run({ kind: 'entry', ...change }, rows)
  const exit = (change: object, rows: TargetRow[]) => run({ kind: 'exit', ...change }, rows)

  test('entry needs the target seen outside first', () => {
    expect(entry({}, walk([0, 0.3, 0.5, 1]))).toEqual([3])
    expect(entry({}, walk([1, 1, 1]))).toEqual([])
    expect(entry({}, walk([1, 0.4, 1]))).toEqual([3])
  })

  test('exit needs the target seen inside first; vanishing inside is not leaving', () => {
    expect(exit({}, walk([1, 0.7, 0.5, 0]))).toEqual([3])
    expect(exit({}, walk([0, 0, 0]))).toEqual([])
    expect(exit({}, walk([0, 1, 1]))).toEqual([])
    expect(exit({ sensitivity: 90 }, walk([1, 0.91, 0.9, 0]))).toEqual([3])
  })

  test('after a trigger, re-opens only below half of the overlap needed', () => {
    expect(entry({}, walk([0, 0.6, 0.3, 0.6]))).toEqual([2])
    expect(entry({}, walk([0, 0.6, 0.24, 0.6]))).toEqual([2, 4])
    expect(exit({}, walk([1, 0.4, 0.7, 0.4]))).toEqual([2])
    expect(exit({}, walk([1, 0.4, 0.8, 0.4]))).toEqual([2, 4])
  })

  test('a stopped crossing stays pending while enough is over', () => {
    const late = [...walk([0, 0.6], { cls: 'unknown' }), ...walk([0.7, 1], {}, 3)]
    expect(entry({ classes: ['person'] }, late)).toEqual([3])
    const gone = [...walk([0, 0.6, 0.4], { cls: 'unknown' }), ...walk([0.6], {}, 4)]
    expect(entry({ classes: ['person'] }, gone)).toEqual([])
  })
})

describe('zones: invariants', () => {
  const shares = fc.array(
    fc.integer({ min: 0, max: 20 }).map((n) => n / 20),
    { minLength: 1, maxLength: 80 }
  )
  const people = fc
    .array(shares, { minLength: 1, maxLength: 3 })
    .map((list) => list.flatMap((s, i) => walk(s, { id: i + 1 })))

  test('a longer dwell never adds triggers', () => {
    fc.assert(
      fc.property(
        people,
        fc.integer({ min: 0, max: 30 }),
        fc.integer({ min: 0, max: 30 }),
        (rows, a, b) => {
          const count = (dwell: number) =>
            run({ kind: 'intrusion', dwellSeconds: dwell / 10 }, rows).length
          expect(count(Math.max(a, b))).toBeLessThanOrEqual(count(Math.min(a, b)))
        }
      )
    )
  })

  test('a target that triggers an intrusion also does at a higher sensitivity', () => {
    fc.assert(
      fc.property(
        people,
        fc.integer({ min: 1, max: 100 }),
        fc.integer({ min: 1, max: 100 }),
        fc.integer({ min: 0, max: 10 }),
        (rows, a, b, dwell) => {
          const who = (sensitivity: number) =>
            new Set(
              evaluate(
                settingOf({ kind: 'intrusion', sensitivity, dwellSeconds: dwell / 10 }),
                tracksFromRows(rows, 10)
              ).map((t) => t.target)
            )
          const high = who(Math.max(a, b))
          for (const target of who(Math.min(a, b))) expect(high).toContain(target)
        }
      )
    )
  })

  test('gives the same frame by frame as for the whole clip, for every kind', () => {
    const kinds = fc.constantFrom(
      { kind: 'intrusion' },
      { kind: 'intrusion', atLeast: 2, dwellSeconds: 0.3 },
      { kind: 'intrusion', countFirstSeenInside: false },
      { kind: 'entry' },
      { kind: 'exit' },
      { kind: 'loitering', dwellSeconds: 1, atLeast: 2 }
    )
    fc.assert(
      fc.property(people, kinds, (rows, detection) => {
        const tracks = tracksFromRows(rows, 10)
        const evaluator = new Evaluator(settingOf(detection))
        const pieces = []
        for (let i = 0; i < tracks.length;) {
          const start = i
          while (i < tracks.length && tracks.frame[i] === tracks.frame[start]) i++
          pieces.push(...evaluator.push(tracks, start, i))
        }
        expect(pieces).toEqual(evaluate(settingOf(detection), tracks))
      })
    )
  })

  test('an exit never comes before the first row in, an entry never before the first row out', () => {
    fc.assert(
      fc.property(shares, (list) => {
        const first = (found: number) => (found < 0 ? Infinity : found + 1)
        for (const frame of run({ kind: 'exit' }, walk(list)))
          expect(frame).toBeGreaterThan(first(list.findIndex((s) => 1 - s < 0.5)))
        for (const frame of run({ kind: 'entry' }, walk(list)))
          expect(frame).toBeGreaterThan(first(list.findIndex((s) => s < 0.5)))
      })
    )
  })
})

describe('the ladder of zones', () => {
  const ladder = (detection: object, rows: TargetRow[], target = 1) =>
    explain(settingOf(detection), tracksFromRows(rows, 10), 'z', target)!

  test('the dwell stops a target that left too early, with the time missing', () => {
    const early = ladder({ kind: 'intrusion', dwellSeconds: 5 }, walk([0, ...times(20, 1), 0]))
    expect(early.sentence).toEqual('Dwell not met: 1.9 s in the zone at 2.0 s, needs at least 5 s.')
    expect(early.readings.find((r) => r.gate === 'dwell')).toMatchObject({
      passed: false,
      value: 1.9,
      needed: 5
    })
  })

  test('the overlap stops a target that only brushed the zone; a distant one has none', () => {
    expect(ladder({ kind: 'entry' }, walk([0, 0.3, 0])).sentence).toEqual(
      'Overlap not met: 30% in the zone at 0.1 s, needs at least 50%.'
    )
    expect(ladder({ kind: 'intrusion' }, walk([-2, -2])).sentence).toEqual(
      'No part of the target was in the zone.'
    )
  })

  test('a trigger of two together belongs to both', () => {
    const rows = [...walk([0, 1, 1]), ...walk([0, 0, 1], { id: 2 })]
    for (const target of [1, 2])
      expect(ladder({ kind: 'intrusion', atLeast: 2 }, rows, target)).toMatchObject({
        fired: true,
        frame: 3
      })
  })
})

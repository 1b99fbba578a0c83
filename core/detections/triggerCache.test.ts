import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { DetectionSchema, ScheduleSchema, type Detection } from '../formats/plan.ts'
import { tracksFromRows, type TargetRow } from '../targets/tracks.ts'
import { evaluate, type Setting } from './evaluator.ts'
import { TriggerCache, inOrderOf } from './triggerCache.ts'
import type { Trigger } from './types.ts'
import { parseWith } from '../schema/parse.ts'

test('of a long stretch the newest triggers are told first, as the whole has them', () => {
  // 2,600 targets one after the other, each over the line after 4 s and gone after 8: 208,000 rows.
  const long = tracksFromRows(
    Array.from({ length: 2600 * 80 }, (_, i): TargetRow => ({
      frame: i + 1,
      id: Math.floor(i / 80),
      x: 0.4,
      y: (i % 80) / 100,
      w: 0.08,
      h: 0.05,
      cls: 'person',
      confidence: 1
    })),
    10
  )
  const across = d('a', {
    kind: 'line',
    line: [
      [0.1, 0.4],
      [0.9, 0.4]
    ]
  })
  const told: { found: Map<string, Trigger[]>; since: number }[] = []
  const cache = new TriggerCache()
  const ask = (setting: Setting, of = long) =>
    cache.changed(setting, of, null, (found, since) => told.push({ found, since }))
  const whole = ask(settingOf([across]))
  expect(whole.get('a')).toHaveLength(2600)
  expect(told).toHaveLength(1)
  const { found, since } = told[0]!
  expect(found.get('a')!.length).toBeGreaterThan(1000)
  expect(found.get('a')).toEqual(whole.get('a')!.filter(({ frame }) => frame >= since))
  // Nothing changed, and a short stretch: nothing is told first.
  ask(settingOf([across]))
  ask(settingOf([{ ...across, name: 'B' }]), tracks)
  expect(told).toHaveLength(1)
})

const rows: TargetRow[] = [1, 2, 3, 4].flatMap((id) =>
  Array.from({ length: 60 }, (_, i): TargetRow => ({
    frame: 1 + i + 7 * id,
    id,
    x: 0.1 * id + 0.002 * i,
    y: 0.05 * id + 0.01 * i,
    w: 0.08,
    h: 0.2,
    cls: id % 2 ? 'person' : 'vehicle',
    confidence: 1
  }))
)
const tracks = tracksFromRows(rows, 10)
const hours = parseWith(ScheduleSchema, { id: 's', name: 'S', week: { thu: [['00:00', '24:00']] } })
const settingOf = (
  detections: Detection[],
  more: Partial<Setting['camera']> = {},
  schedules = [hours]
): Setting => ({
  plan: { schedules, timeZone: 'UTC' },
  camera: { ignore: [], detections, ...more },
  fps: 10,
  start: 0
})
const d = (id: string, more: object): Detection =>
  parseWith(DetectionSchema, { id, name: id, ...more })

const detection = fc.record({
  y: fc.integer({ min: 2, max: 8 }),
  kind: fc.constantFrom('line', 'intrusion', 'entry'),
  sensitivity: fc.constantFrom(20, 50, 90),
  scheduled: fc.boolean(),
  enabled: fc.boolean(),
  holdOffSeconds: fc.constantFrom(0, 2)
})
const made = (
  id: string,
  {
    y,
    kind,
    sensitivity,
    scheduled,
    enabled,
    holdOffSeconds
  }: {
    y: number
    kind: string
    sensitivity: number
    scheduled: boolean
    enabled: boolean
    holdOffSeconds: number
  }
): Detection =>
  d(id, {
    kind,
    sensitivity,
    enabled,
    holdOffSeconds,
    ...(kind === 'line'
      ? {
          line: [
            [0, y / 10],
            [1, y / 10]
          ]
        }
      : {
          zone: [
            [0, y / 10],
            [1, y / 10],
            [1, 1],
            [0, 1]
          ]
        }),
    ...(scheduled && { schedule: 's' })
  })

test('after any edit, gives what evaluating everything together gives, in that order', () => {
  const edit = fc.record({
    at: fc.nat(5),
    detection,
    ignore: fc.boolean(),
    closed: fc.boolean(),
    drop: fc.boolean()
  })
  fc.assert(
    fc.property(
      fc.array(detection, { minLength: 1, maxLength: 5 }),
      fc.array(edit, { maxLength: 8 }),
      (first, edits) => {
        const kept = new TriggerCache()
        let detections = first.map((m, i) => made(`d${i}`, m))
        let held = new Map<string, Trigger[]>()
        const check = (setting: Setting): number => {
          const changed = kept.changed(setting, tracks, null)
          const ids = setting.camera.detections.map(({ id }) => id)
          held = new Map(ids.map((id) => [id, changed.get(id) ?? held.get(id)!]))
          expect(inOrderOf(ids, held)).toEqual(evaluate(setting, tracks))
          return changed.size
        }
        check(settingOf(detections))
        for (const { at, detection: m, ignore, closed, drop } of edits) {
          const i = at % Math.max(1, detections.length)
          detections = drop
            ? detections.filter((_, k) => k !== i)
            : [...detections.slice(0, i), made(`d${i}`, m), ...detections.slice(i + 1)].filter(
                (x, k, all) => all.findIndex((y) => y.id === x.id) === k
              )
          check(
            settingOf(
              detections,
              ignore
                ? {
                    ignore: [
                      [
                        [0, 0],
                        [0.3, 0],
                        [0.3, 1],
                        [0, 1]
                      ]
                    ]
                  }
                : {},
              closed ? [{ ...hours, week: { ...hours.week, thu: [] } }] : [hours]
            )
          )
        }
      }
    ),
    { numRuns: 60 }
  )
})

test('evaluates only what has changed', () => {
  const kept = new TriggerCache()
  const [a, b] = [
    d('a', {
      kind: 'line',
      line: [
        [0, 0.5],
        [1, 0.5]
      ],
      schedule: 's'
    }),
    d('b', {
      kind: 'line',
      line: [
        [0, 0.6],
        [1, 0.6]
      ]
    })
  ]
  const changed = (setting: Setting): string[] => [...kept.changed(setting, tracks, null).keys()]
  expect(changed(settingOf([a, b]))).toEqual(['a', 'b'])
  expect(changed(settingOf([a, b]))).toEqual([])
  expect(changed(settingOf([b, a]))).toEqual([])
  expect(changed(settingOf([a, { ...b, sensitivity: 60 } as Detection]))).toEqual(['b'])
  expect(changed(settingOf([a, b], {}, [{ ...hours, name: 'Other' }]))).toEqual(['a', 'b'])
  expect(
    changed(
      settingOf(
        [a, b],
        {
          ignore: [
            [
              [0, 0],
              [1, 0],
              [1, 1]
            ]
          ]
        },
        [{ ...hours, name: 'Other' }]
      )
    )
  ).toEqual(['a', 'b'])
  kept.forget()
  expect(changed(settingOf([a, b]))).toEqual(['a', 'b'])
})

import { expect, test } from '@jest/globals'
import { evaluate } from '../detections/index.ts'
import { DetectionSchema } from '../formats/plan.ts'
import { tracksFromRows, type TargetRow } from '../targets/tracks.ts'
import { accountOf, type TriggerRecord } from './explanation.ts'
import { parseWith } from '../schema/parse.ts'

const detection = parseWith(DetectionSchema, {
  id: 'd',
  name: 'Edge',
  kind: 'line',
  line: [
    [0.5, 0],
    [0.5, 1]
  ],
  classes: ['person'],
  schedule: 'day',
  armInput: { input: 'panel' }
})
const from = Date.parse('2026-11-24T12:00:00Z')
/** Somebody who walks from the left to the right in 4 s; another one who stands. */
const rows: TargetRow[] = Array.from({ length: 40 }, (_, i) => [
  {
    frame: i + 1,
    id: 7,
    x: 0.2 + i * 0.015,
    y: 0.4,
    w: 0.05,
    h: 0.2,
    cls: 'person' as const,
    confidence: 1
  },
  { frame: i + 1, id: 8, x: 0.8, y: 0.4, w: 0.05, h: 0.2, cls: 'person' as const, confidence: 1 }
]).flat()
const day = {
  id: 'day',
  name: 'By day',
  week: Object.fromEntries(
    ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'].map((d) => [d, [['08:00', '18:00']]])
  ),
  exceptions: []
}
const at = (seconds: number): TriggerRecord => ({
  from,
  at: from + seconds * 1000,
  fps: 10,
  rows,
  plan: { timeZone: 'UTC', schedules: [day] as never },
  ignore: [],
  scene: null
})

test('keeps the target’s path, its gates as the engine had them, the schedule and the panel', () => {
  const [fired] = evaluate(
    {
      plan: { timeZone: 'UTC', schedules: [day] as never },
      camera: { ignore: [], detections: [detection] },
      fps: 10,
      start: from,
      inputs: { panel: [{ at: 0, set: true }] }
    },
    tracksFromRows(rows, 10)
  )
  const account = accountOf(detection, 7, at(fired!.time))
  expect(account.ladder).toMatchObject({ fired: true, target: 7, frame: fired!.frame })
  expect(account.hours?.name).toBe('By day')
  expect(account.path).toHaveLength(40)
  // It begins before the trigger, at the foot of where it came in.
  expect(account.path[0]!.at).toBeCloseTo(-fired!.time, 6)
  expect([account.path[0]!.x, account.path[0]!.y].map((v) => Math.round(v * 1000) / 1000)).toEqual([
    0.225, 0.6
  ])
})

test('counts seconds from when the target came into view', () => {
  const later = { ...at(6.9), rows: rows.map((r) => ({ ...r, frame: r.frame + 50 })) }
  const account = accountOf(detection, 7, later)
  expect(account.path[0]!.at).toBeCloseTo(-1.9, 6)
  expect(account.ladder!.time).toBeLessThan(4)
  expect(account.ladder!.fired).toBe(true)
})

test('shows the camera’s report beside the gates where the targets fall short of the trigger', () => {
  const short = { ...at(2), rows: rows.filter((r) => r.frame < 15) }
  expect(accountOf(detection, 7, short)).toMatchObject({
    ladder: { fired: false },
    words: expect.saying(
      'The camera itself decided. The conditions here are calculated from what it reported, and fall just short.'
    )
  })
  expect(accountOf(detection, 7, at(2)).words).toBeNull()
})

test('says what is missing, and invents nothing', () => {
  expect(accountOf(detection, 7, null)).toMatchObject({
    path: [],
    ladder: null,
    words: expect.saying('not kept')
  })
  expect(accountOf(detection, 99, at(2))).toMatchObject({
    path: [],
    ladder: null,
    words: expect.saying('The camera’s metadata does not contain this target.')
  })
  expect(accountOf(detection, null, at(2))).toMatchObject({
    path: [],
    ladder: null,
    words: expect.saying('no target')
  })
})

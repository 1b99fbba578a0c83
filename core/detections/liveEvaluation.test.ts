import { expect, test } from '@jest/globals'
import { DetectionSchema, type Detection } from '../formats/plan.ts'
import { wordsOf } from '../messages/words.ts'
import { parseWith } from '../schema/parse.ts'
import { tracksFromRows, type TargetRow } from '../targets/tracks.ts'
import { evaluate } from './evaluator.ts'
import { LiveEvaluation, sideBySide } from './liveEvaluation.ts'

const START = Date.parse('2026-11-24T10:00:00Z')
const d = (id: string, more: object): Detection =>
  parseWith(DetectionSchema, { id, name: id, classes: ['person'], ...more })
const line = d('line', {
  kind: 'line',
  line: [
    [0.1, 0.5],
    [0.9, 0.5]
  ]
})
const zone = d('zone', {
  kind: 'intrusion',
  zone: [
    [0.2, 0.4],
    [0.8, 0.4],
    [0.8, 0.95],
    [0.2, 0.95]
  ],
  dwellSeconds: 3
})
const settingOf = (...detections: Detection[]) => ({
  plan: { schedules: [], timeZone: 'UTC' },
  camera: { ignore: [], detections }
})
/** Somebody walks down the picture for 8 s. */
const at = (k: number) => ({
  targets: [{ id: 3, class: 'person', x: 0.4, y: 0.1 + 0.008 * k, w: 0.06, h: 0.12 }]
})
const walk = (live: LiveEvaluation, from: number, to: number) => {
  const found = []
  for (let k = from; k < to; k++) found.push(...live.take(at(k), START + 100 * k))
  return found
}
const asClip = (...detections: Detection[]) =>
  evaluate(
    { ...settingOf(...detections), fps: 10, start: START },
    tracksFromRows(
      Array.from({ length: 80 }, (_, k): TargetRow => {
        const { id, x, y, w, h } = at(k).targets[0]!
        return { frame: k + 1, id, x, y, w, h, cls: 'person', confidence: 1 }
      }),
      10
    )
  )

test('gives what the same rows give as a clip', () => {
  const live = new LiveEvaluation()
  expect(live.draw(settingOf(line, zone))).toEqual([])
  const found = walk(live, 0, 80)
  expect(found.map(({ detection, at: when }) => [detection, when - START])).toEqual(
    asClip(line, zone).map(({ detection, time }) => [detection, 1000 * time])
  )
  expect(found).toHaveLength(2)
})

test('what is drawn anew is answered for the last minute and a half at once, and goes on from there', () => {
  const live = new LiveEvaluation()
  walk(live, 0, 60)
  const before = live.draw(settingOf(line, zone))
  expect(before.map(({ detection }) => detection)).toContain('line')
  const all = [...before, ...walk(live, 60, 80)]
  expect(all.map(({ detection }) => detection).sort()).toEqual(['line', 'zone'])
  // What is older is forgotten.
  live.take({ targets: [] }, START + 300_000)
  live.take(at(0), START + 300_100)
  expect(live.draw(settingOf(line))).toEqual([])
})

test('says why the drawing did not trigger where the device did', () => {
  const live = new LiveEvaluation()
  walk(live, 0, 80)
  live.draw(settingOf({ ...line, classes: ['vehicle'] } as Detection))
  expect(wordsOf(live.whyNot('line', 3, START + 4500)!)).toMatch(/^Class not met/)
  expect(live.whyNot('line', null, START + 4500)).toBeNull()
  expect(live.whyNot('line', 99, START + 4500)).toBeNull()
})

test('what both say stands side by side, one to one; what only one says stands alone', () => {
  const heard = (target: number | null, when: number, detection = 'line') => ({
    detection,
    target,
    at: when
  })
  const would = heard
  const rows = sideBySide(
    [heard(3, 1200), heard(null, 9000), heard(5, 20_000), heard(3, 30_000, 'other')],
    [would(3, 1000), would(3, 1400), would(7, 8500), would(5, 40_000)]
  )
  expect(rows.map(({ at: when, heard: h, would: w }) => [when, !!h, w?.at ?? null])).toEqual([
    [40_000, false, 40_000],
    [30_000, true, null],
    [20_000, true, null],
    [9000, true, 8500],
    [1400, false, 1400],
    [1200, true, 1000]
  ])
  expect(rows.find(({ at: when }) => when === 9000)!.target).toBe(7)
})

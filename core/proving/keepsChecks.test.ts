import { expect, test } from '@jest/globals'
import { parseWith } from '../schema/parse.ts'
import { ABOUT, CheckSchema, type Check } from '../formats/check.ts'
import { DetectionSchema, type Detection } from '../formats/plan.ts'
import { tracksFromRows } from '../targets/tracks.ts'
import { keepsChecks, outlastsTuning } from './keepsChecks.ts'

const FPS = 10
/** Somebody who comes from the left and goes over the middle of the picture. */
const crossing = tracksFromRows(
  Array.from({ length: 60 }, (_, n) => ({
    frame: n + 1,
    id: 1,
    x: 0.1 + n / 100,
    y: 0.4,
    w: 0.05,
    h: 0.2,
    cls: 'person' as const,
    confidence: 1
  })),
  FPS
)
const check = (more: object): Check =>
  parseWith(CheckSchema, {
    id: 'c',
    detection: 'd',
    name: 'A person comes from the left',
    about: 'passes',
    by: { how: 'walk', walk: { seconds: 6 } },
    at: Date.UTC(2026, 5, 1),
    expect: { what: 'trigger', from: 0, to: 6 },
    ...more
  })
const line = (more: object = {}): Detection =>
  parseWith(DetectionSchema, {
    id: 'd',
    name: 'D',
    kind: 'line',
    line: [
      [0.4, 0.9],
      [0.4, 0.1]
    ],
    ...more
  })
const place = { plan: { schedules: [], timeZone: 'UTC' }, camera: { ignore: [] } }
const keeps = (checks: Check[], detection: Detection, ignore: [number, number][][] = []): boolean =>
  keepsChecks(
    place,
    checks.map((c) => ({ check: c, tracks: crossing, inputs: {} }))
  )({ detection, ignore })

test('settings under which a walk triggers as before are kept; others are not', () => {
  const passes = check({})
  expect(keeps([passes], line())).toBe(true)
  expect(keeps([passes], line({ confirmSeconds: 1 }))).toBe(true)
  expect(keeps([passes], line({ classes: ['vehicle'] }))).toBe(false)
  expect(keeps([passes], line({ size: { min: { w: 0.3, h: 0.5 } } }))).toBe(false)
  const everywhere: [number, number][] = [[0, 0], [1, 0], [1, 1], [0, 1]] // prettier-ignore
  expect(keeps([passes], line(), [everywhere])).toBe(false)
})

test('so is a walk that must not trigger; one that fails among many decides', () => {
  const silent = check({ id: 's', expect: { what: 'silence' } })
  expect(keeps([silent], line({ classes: ['vehicle'] }))).toBe(true)
  expect(keeps([silent], line())).toBe(false)
  expect(keeps([check({}), silent], line())).toBe(false)
  expect(keeps([], line())).toBe(true)
})

test('a detection that is switched off is tuned as if it were on', () => {
  expect(keeps([check({})], line({ enabled: false }))).toBe(true)
})

test('checks of a limit, of pictures, of clips and of people hold nothing back', () => {
  const by = (how: object) => check({ by: how })
  expect(ABOUT.filter((about) => outlastsTuning(check({ about })))).toEqual([
    'passes',
    'direction',
    'class',
    'ignore',
    'armed',
    'armInput',
    'face',
    'mask',
    'list',
    'cause',
    'contact',
    'outputs',
    'nuisance'
  ])
  expect(outlastsTuning(by({ how: 'clip', clip: 'a', from: 0, to: 1 }))).toBe(false)
  expect(outlastsTuning(by({ how: 'person', words: 'Walk', seconds: 9 }))).toBe(false)
  expect(outlastsTuning(by({ how: 'walk', walk: { seconds: 6 }, through: 'pictures' }))).toBe(false)
})

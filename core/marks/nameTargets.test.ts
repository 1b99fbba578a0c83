import { expect, test } from '@jest/globals'
import { DetectionSchema } from '../formats/plan.ts'
import { parseWith } from '../schema/parse.ts'
import { weekOf } from '../tuning/testing/weeks.ts'
import type { Mark } from './marks.ts'
import { nameTargets } from './nameTargets.ts'

const place = { plan: { schedules: [], timeZone: 'UTC' }, camera: { ignore: [] } }
const yard = parseWith(DetectionSchema, {
  id: 'd',
  name: 'D',
  kind: 'intrusion',
  zone: [
    [0.2, 0.3],
    [0.8, 0.3],
    [0.8, 0.9],
    [0.2, 0.9]
  ],
  dwellSeconds: 2
})
/** The first stays long enough to trigger; the second does not; the last two come together, and neither does. */
const { stretches } = weekOf([
  [
    { at: 10, stays: 6 },
    { at: 60, stays: 1 },
    { at: 120, stays: 1 },
    { at: 120.5, stays: 1 }
  ]
])
const unnamed = (time: number): Mark => ({ file: 0, time, target: null, mark: 'nuisance' })

test('a mark without a target is of the trigger nearest to it, else of the only one who was there', () => {
  // In the zone from 10.6 s on, and 2 s later it triggers; the device told of it a second later.
  expect(nameTargets(place, yard, stretches, [unnamed(13.6)])).toEqual([
    { file: 0, time: 12.6, target: 1, mark: 'nuisance' }
  ])
  expect(nameTargets(place, yard, stretches, [unnamed(62.5)])).toEqual([
    { file: 0, time: 62.5, target: 2, mark: 'nuisance' }
  ])
})

test('where it cannot be told, the mark is left out; one that names its target stays as it is', () => {
  expect(nameTargets(place, yard, stretches, [unnamed(122), unnamed(300)])).toEqual([])
  const named: Mark = { ...unnamed(300), target: 9 }
  expect(nameTargets(place, yard, stretches, [named])).toEqual([named])
})

test('of what looks at the whole picture a mark never has a target', () => {
  const tamper = parseWith(DetectionSchema, { id: 't', name: 'T', kind: 'tamper' })
  expect(nameTargets(place, tamper, stretches, [unnamed(13.6)])).toEqual([unnamed(13.6)])
})

import { expect, test } from '@jest/globals'
import { tracksFromRows, type TargetRow } from '../targets/tracks.ts'
import { isWanted } from './wanted.ts'

const row = (frame: number, cls: TargetRow['cls']): TargetRow => ({
  frame,
  id: 1,
  x: 0.1,
  y: 0.1,
  w: 0.1,
  h: 0.2,
  cls,
  confidence: 1
})

test('a trigger is wanted while a target of the classes is there, give or take half a second', () => {
  const present = tracksFromRows(
    [...[20, 21, 22].map((f) => row(f, 'person')), row(60, 'animal')],
    10
  )
  const wanted = (frame: number, ...classes: TargetRow['cls'][]) =>
    isWanted({ frame }, present, classes)
  expect([14, 15, 21, 27, 28].map((f) => wanted(f, 'person'))).toEqual([
    false,
    true,
    true,
    true,
    false
  ])
  expect(wanted(60, 'person')).toBe(false)
  expect(wanted(60, 'person', 'animal')).toBe(true)
  expect(wanted(1, 'person')).toBe(false)
})

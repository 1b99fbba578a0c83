import { describe, expect, test } from '@jest/globals'
import {
  firstRowOfFrame,
  frameAt,
  frameTime,
  spansOf,
  tracksFromRows,
  type TargetRow
} from './tracks.ts'

const row = (frame: number, id: number, cls: TargetRow['cls'] = 'person'): TargetRow => ({
  frame,
  id,
  x: 0.1,
  y: 0.1,
  w: 0.1,
  h: 0.2,
  cls,
  confidence: 1
})

describe('tracks', () => {
  test('frame 1 is at 0 s; finds the frame at a time', () => {
    expect(frameTime(1, 10)).toBe(0)
    expect(frameTime(58, 10)).toBeCloseTo(5.7, 12)
    for (const fps of [10, 12.5, 30000 / 1001])
      for (let n = 1; n < 5000; n++) expect(frameAt(frameTime(n, fps), fps)).toBe(n)
    expect(frameAt(0.99 / 10, 10)).toBe(1)
  })

  test('sorts rows by frame, then id, and finds a frame', () => {
    const t = tracksFromRows([row(5, 2), row(3, 9), row(5, 1), row(3, 1)], 10)
    expect([...t.frame]).toEqual([3, 3, 5, 5])
    expect([...t.id]).toEqual([1, 9, 1, 2])
    expect(firstRowOfFrame(t, 4)).toBe(2)
    expect(firstRowOfFrame(t, 6)).toBe(4)
  })

  test('bridges a gap of exactly 1.0 s; a longer one ends the target', () => {
    const t = tracksFromRows(
      [row(1, 1), row(11, 1), row(22, 1, 'animal'), row(23, 1, 'animal')],
      10
    )
    expect(spansOf(t).map((s) => [s.id, s.from, s.to, s.cls, s.rows.length])).toEqual([
      [1, 0, 1, 'person', 2],
      [1, 2.1, 2.2, 'animal', 2]
    ])
  })
})

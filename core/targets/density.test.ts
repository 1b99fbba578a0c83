import { expect, test } from '@jest/globals'
import { DENSITY_GRID, densityOf } from './density.ts'
import { tracksFromRows, type TargetRow } from './tracks.ts'

const { columns, rows } = DENSITY_GRID
const row = (
  frame: number,
  id: number,
  x: number,
  foot: number,
  cls: TargetRow['cls'] = 'person'
) => ({
  frame,
  id,
  x: x - 0.02,
  y: foot - 0.1,
  w: 0.04,
  h: 0.1,
  cls,
  confidence: 1
})
const cellOf = (x: number, foot: number): number =>
  Math.floor(foot * rows) * columns + Math.floor(x * columns)

/** One walks across for 10 s at 0.08 of the width a second, another stands for 20 s, an animal runs by twice. */
const tracks = tracksFromRows(
  [
    ...Array.from({ length: 100 }, (_, k) => row(k + 1, 1, 0.1 + 0.008 * k, 0.505)),
    ...Array.from({ length: 200 }, (_, k) => row(k + 1, 2, 0.505, 0.805)),
    ...[0, 300].flatMap((first) =>
      Array.from({ length: 20 }, (_, k) => row(first + k + 1, 3, 0.105 + 0.04 * k, 0.205, 'animal'))
    )
  ],
  10
)

test('walked: each target once for each time that it comes to a cell', () => {
  const all = densityOf(tracks, 'walked')
  expect(all.values[cellOf(0.5, 0.505)]).toBe(1)
  expect(all.values[cellOf(0.505, 0.805)]).toBe(1)
  expect(all.values[cellOf(0.505, 0.205)]).toBe(2)
  expect(all.most).toBe(2)
  expect(densityOf(tracks, 'walked', ['person']).values[cellOf(0.505, 0.205)]).toBe(0)
  // Who walks across in 0.08 of the width a second passes over 50 or 51 of 64 columns.
  const along = all.values.slice(
    Math.floor(0.505 * rows) * columns,
    Math.floor(0.505 * rows) * columns + columns
  )
  expect(along.reduce((a, b) => a + b)).toBeCloseTo(0.792 * columns, -1)
})

test('stood: seconds of standing alone', () => {
  const { values, most } = densityOf(tracks, 'stood')
  // It is known to stand after half a second.
  expect(values[cellOf(0.505, 0.805)]).toBeCloseTo(19.5, 0)
  expect(most).toBe(values[cellOf(0.505, 0.805)])
  expect(values[cellOf(0.5, 0.505)]).toBe(0)
})

test('speed: heights of the picture a second, a picture twice as wide as high', () => {
  const { values } = densityOf(tracks, 'speed', [], 2)
  expect(values[cellOf(0.5, 0.505)]).toBeCloseTo(0.16, 3)
  expect(values[cellOf(0.505, 0.805)]).toBeCloseTo(0, 5)
})

test('of nobody there is nothing', () => {
  expect(densityOf(tracksFromRows([], 10), 'walked')).toMatchObject({ most: 0 })
})

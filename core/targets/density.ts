import { CLASSES, type TargetClass } from './classes.ts'
import { RECORD_GAP_SECONDS, frameTime, type Tracks } from './tracks.ts'

/** What a density tells of each cell: how many went over it, for how long somebody stood on it, how fast they were. */
export const DENSITIES = ['walked', 'stood', 'speed'] as const
export type DensityOf = (typeof DENSITIES)[number]

/** Cells over the picture, row by row from the top. */
export interface Density {
  columns: number
  rows: number
  /** Targets, seconds, or heights of the picture a second; 0: nobody was there. */
  values: Float64Array
  most: number
}

export const DENSITY_GRID = { columns: 64, rows: 36 }
/** Slower than this, heights of the picture a second, somebody stands. */
const STANDS = 0.02
/** Boxes tremble from frame to frame: how fast somebody is, is told over this. */
const OVER_SECONDS = 0.5

/**
 * Where targets walk, by the bottom centre of their boxes.
 *
 * @param classes those that count; empty: all
 * @param aspect width over height of the picture, for the speed
 */
export function densityOf(
  t: Tracks,
  of: DensityOf,
  classes: readonly TargetClass[] = [],
  aspect = 16 / 9
): Density {
  const { columns, rows } = DENSITY_GRID
  const values = new Float64Array(columns * rows)
  const counts = new Uint32Array(columns * rows)
  const counted = CLASSES.map((cls) => !classes.length || classes.includes(cls))
  const before = new Map<
    number,
    { time: number; cell: number; from: { time: number; x: number; y: number }; speed: number }
  >()
  for (let i = 0; i < t.length; i++) {
    if (!counted[t.cls[i]!]) continue
    const [x, y] = [t.x[i]! + t.w[i]! / 2, t.y[i]! + t.h[i]!]
    const time = frameTime(t.frame[i]!, t.fps)
    if (!(x >= 0 && x <= 1 && y >= 0 && y <= 1)) continue
    const cell =
      Math.min(rows - 1, Math.floor(y * rows)) * columns +
      Math.min(columns - 1, Math.floor(x * columns))
    let last = before.get(t.id[i]!)
    if (last && time - last.time > RECORD_GAP_SECONDS + 1e-9) last = undefined
    if (!last) {
      before.set(t.id[i]!, { time, cell, from: { time, x, y }, speed: NaN })
      if (of === 'walked') values[cell]!++
      continue
    }
    const since = time - last.from.time
    if (since >= OVER_SECONDS - 1e-9) {
      last.speed = Math.hypot((x - last.from.x) * aspect, y - last.from.y) / since
      last.from = { time, x, y }
    }
    if (of === 'walked') {
      if (cell !== last.cell) values[cell]!++
    } else if (of === 'stood') {
      if (last.speed < STANDS) values[cell]! += time - last.time
    } else if (Number.isFinite(last.speed)) {
      values[cell]! += last.speed
      counts[cell]!++
    }
    last.time = time
    last.cell = cell
  }
  if (of === 'speed')
    for (let cell = 0; cell < values.length; cell++)
      if (counts[cell]) values[cell]! /= counts[cell]!
  let most = 0
  for (const value of values) most = Math.max(most, value)
  return { columns, rows, values, most }
}

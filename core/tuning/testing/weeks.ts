import type { Mark } from '../../marks/marks.ts'
import type { TargetClass } from '../../targets/classes.ts'
import { tracksFromRows, type TargetRow } from '../../targets/tracks.ts'
import type { Stretch } from '../stretches.ts'

/** Days of one camera whose best settings are known because of how they are made. */

export const FPS = 10
const DAY_MS = 86_400_000

/** Somebody who comes from the left edge, stays at a place for some seconds, and goes off to the right. */
export interface Visitor {
  /** Seconds from the start of the day. */
  at: number
  /** How long its feet are at the place. */
  stays: number
  x?: number
  foot?: number
  w?: number
  h?: number
  cls?: TargetClass
  mark?: Mark['mark']
  /** Does not come and go: it is at its place only, as what sways in the wind. */
  sways?: boolean
}

/** Steps of a visitor's way in and out, in frames; it takes 0.6 s for each. */
const WAY = 6

function rowsOf(visitor: Visitor, id: number): TargetRow[] {
  const { at, stays, x = 0.5, foot = 0.6, w = 0.04, h = 0.14, cls = 'person', sways } = visitor
  const first = Math.round(at * FPS) + 1
  const still = Math.round(stays * FPS)
  const row = (n: number, centre: number, feet: number): TargetRow => ({
    frame: first + n,
    id,
    x: centre - w / 2,
    y: feet - h,
    w,
    h,
    cls,
    confidence: 1
  })
  if (sways)
    return Array.from({ length: still + 1 }, (_, n) =>
      row(n, x + 0.01 * Math.sin(n / 4), foot + 0.004 * Math.cos(n / 3))
    )
  // Beside the picture's middle it is outside of any zone of these tests.
  const rows: TargetRow[] = []
  for (let n = 0; n < WAY; n++) rows.push(row(n, 0.05 + 0.01 * n, foot))
  for (let n = 0; n <= still; n++) rows.push(row(WAY + n, x, foot))
  for (let n = 0; n < WAY; n++) rows.push(row(WAY + still + 1 + n, 0.9 + 0.01 * n, foot))
  return rows
}

/** Each list is a day; targets have the same ids every day, as a camera's may. */
export function weekOf(days: readonly (readonly Visitor[])[]): {
  stretches: Stretch[]
  marks: Mark[]
} {
  const start = Date.parse('2026-11-16T00:00:00Z')
  const marks: Mark[] = []
  const stretches = days.map((visitors, file): Stretch => {
    visitors.forEach(({ at, stays, mark }, i) => {
      if (mark) marks.push({ file, time: at + 0.6 + stays / 2, target: i + 1, mark })
    })
    return {
      start: start + file * DAY_MS,
      tracks: tracksFromRows(
        visitors.flatMap((visitor, i) => rowsOf(visitor, i + 1)),
        FPS
      )
    }
  })
  return { stretches, marks }
}

/** Numbers from 0 to 1, the same at every run. Source: Mulberry32, T. Ettinger (from memory). */
export function numbersFrom(seed: number): () => number {
  let state = seed
  return () => {
    state = (state + 0x6d2b79f5) | 0
    let t = Math.imul(state ^ (state >>> 15), 1 | state)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32
  }
}

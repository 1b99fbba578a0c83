import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import clipping from 'polygon-clipping'
import { DetectionSchema } from '../formats/plan.ts'
import { signedArea, type Point } from '../geometry/shapes.ts'
import { tracksFromRows, type TargetRow } from '../targets/tracks.ts'
import { evaluate, type Setting } from './evaluator.ts'
import { parseWith } from '../schema/parse.ts'

/**
 * A second reading of docs/detections.md, with nothing of the engine in it: it looks at a whole record at once instead of
 * row by row, and takes its shares from polygon-clipping. Two implementations written from the page must agree.
 */
const zone: Point[] = [
  [0.2, 0.2],
  [0.8, 0.25],
  [0.55, 0.5],
  [0.75, 0.8],
  [0.3, 0.7]
]
const EPS = 1e-9
const atLeast = (a: number, b: number) => a >= b - EPS

function shareOf({ x, y, w, h }: TargetRow): number {
  const parts = clipping.intersection(
    [
      [
        [x, y],
        [x + w, y],
        [x + w, y + h],
        [x, y + h]
      ]
    ],
    [zone.map(([a, b]): [number, number] => [a, b])]
  )
  return (
    parts.reduce(
      (sum, rings) =>
        sum + rings.reduce((s, ring, i) => s + (i ? -1 : 1) * Math.abs(signedArea(ring)), 0),
      0
    ) /
    (w * h)
  )
}

/** The rows of each target, cut where more than 1.0 s is missing. */
function records(rows: TargetRow[], fps: number): TargetRow[][] {
  const found: TargetRow[][] = []
  for (const id of [...new Set(rows.map((r) => r.id))]) {
    const own = rows.filter((r) => r.id === id).sort((a, b) => a.frame - b.frame)
    own.forEach((row, i) =>
      i > 0 && !((row.frame - own[i - 1]!.frame) / fps > 1 + EPS)
        ? found[found.length - 1]!.push(row)
        : found.push([row])
    )
  }
  return found
}

interface Asked {
  kind: string
  sensitivity: number
  dwellSeconds?: number
  graceSeconds?: number
  countFirstSeenInside?: boolean
  classes: readonly string[]
  confirmSeconds: number
  size?: { min?: { w: number; h: number }; max?: { w: number; h: number } }
}
const ignore: Point[] = [
  [0.3, 0.5],
  [0.5, 0.5],
  [0.5, 0.9],
  [0.3, 0.9]
]

function triggersByThePage(d: Asked, rows: TargetRow[], fps: number): [number, number][] {
  const need = Math.max(0.01, 1 - d.sensitivity / 100)
  const result: [number, number][] = []
  for (const record of records(rows, fps)) {
    const time = (i: number) => (record[i]!.frame - 1) / fps
    const passes = record.map((row, i) => {
      let took = i
      while (took > 0 && record[took - 1]!.cls === row.cls) took--
      const { min, max } = d.size ?? {}
      const [bx, by] = [row.x + row.w / 2, row.y + row.h]
      return (
        (!d.classes.length || d.classes.includes(row.cls)) &&
        !(min && row.w <= min.w && row.h <= min.h) &&
        !(max && (row.w > max.w || row.h > max.h)) &&
        !(bx > ignore[0]![0] && bx < ignore[2]![0] && by > ignore[0]![1] && by < ignore[2]![1]) &&
        atLeast(time(i) - time(took), d.confirmSeconds)
      )
    })
    const inside = record.map(shareOf)
    if (d.kind === 'intrusion' || d.kind === 'loitering') {
      const isIn = inside.map((s) => atLeast(s, need))
      const grace = d.kind === 'intrusion' ? 1 : d.graceSeconds!
      // The stays: runs of rows in, no two of which are further apart than the grace, unless they are frame on frame.
      const stays: number[][] = []
      isIn.forEach((yes, i) => {
        if (!yes) return
        const last = stays.at(-1)?.at(-1)
        if (
          last !== undefined &&
          (record[i]!.frame === record[last]!.frame + 1 || time(i) - time(last) <= grace + EPS)
        )
          stays.at(-1)!.push(i)
        else stays.push([i])
      })
      for (const stay of stays) {
        const at = stay.find(
          (i) =>
            passes[i] &&
            atLeast(time(i) - time(stay[0]!), d.dwellSeconds!) &&
            (d.countFirstSeenInside || isIn.slice(0, i).includes(false))
        )
        if (at !== undefined) result.push([record[at]!.frame, record[at]!.id])
      }
    } else {
      const s = d.kind === 'entry' ? inside : inside.map((x) => 1 - x)
      const firstOut = s.findIndex((x) => !atLeast(x, need))
      let from = firstOut
      while (from >= 0) {
        const holds = s.findIndex((x, i) => i >= from && atLeast(x, need))
        if (holds < 0) break
        for (let i = holds; i < s.length && atLeast(s[i]!, need); i++)
          if (passes[i]) {
            result.push([record[i]!.frame, record[i]!.id])
            break
          }
        from = s.findIndex((x, i) => i > holds && !atLeast(x, need / 2))
      }
    }
  }
  return result.sort((a, b) => a[0] - b[0] || a[1] - b[1])
}

const FPS = 5
const step = fc.record({
  dx: fc.integer({ min: -8, max: 8 }),
  dy: fc.integer({ min: -8, max: 8 }),
  gap: fc.constantFrom(1, 1, 1, 1, 2, 4, 5, 6),
  cls: fc.constantFrom('person', 'person', 'person', 'animal')
})
const target = fc.record({
  x: fc.integer({ min: 0, max: 80 }),
  y: fc.integer({ min: 0, max: 80 }),
  w: fc.integer({ min: 3, max: 12 }),
  steps: fc.array(step, { minLength: 5, maxLength: 60 })
})
const rowsOf = fc.array(target, { minLength: 1, maxLength: 3 }).map((targets) =>
  targets.flatMap(({ x, y, w, steps }, k): TargetRow[] => {
    let frame = 0
    return steps.map(({ dx, dy, gap, cls }) => {
      frame += gap
      x = Math.min(88, Math.max(0, x + dx))
      y = Math.min(80, Math.max(0, y + dy))
      return {
        frame,
        id: k + 1,
        x: x / 100 + 0.0013,
        y: y / 100 + 0.0017,
        w: w / 100,
        h: (1.5 * w) / 100,
        cls: cls,
        confidence: 1
      }
    })
  })
)
const detection = fc.record({
  kind: fc.constantFrom('intrusion', 'loitering', 'entry', 'exit'),
  sensitivity: fc.constantFrom(1, 25, 50, 75, 90, 100),
  dwellSeconds: fc.constantFrom(1, 1.2, 3),
  graceSeconds: fc.constantFrom(0, 0.4, 2, 10),
  countFirstSeenInside: fc.boolean(),
  classes: fc.constantFrom([], ['person'], ['person', 'animal']),
  confirmSeconds: fc.constantFrom(0, 0.4),
  size: fc.constantFrom(undefined, { min: { w: 0.05, h: 0.07 } }, { max: { w: 0.09, h: 0.14 } })
})

describe('zones: a second implementation of the page agrees frame by frame', () => {
  test('intrusion, loitering, entry, exit with class, size, confirm and ignore areas', () => {
    let fired = 0
    fc.assert(
      fc.property(rowsOf, detection, (rows, asked) => {
        const { dwellSeconds, graceSeconds, countFirstSeenInside, ...common } = asked
        const own = {
          ...common,
          ...(/intr|loit/.test(asked.kind) && { dwellSeconds, countFirstSeenInside }),
          ...(asked.kind === 'loitering' && { graceSeconds })
        }
        const setting: Setting = {
          plan: { schedules: [], timeZone: 'UTC' },
          camera: {
            ignore: [ignore],
            detections: [parseWith(DetectionSchema, { id: 'z', name: 'Z', zone, ...own })]
          },
          fps: FPS,
          start: 0
        }
        const expected = triggersByThePage(asked, rows, FPS)
        fired += expected.length
        expect(
          evaluate(setting, tracksFromRows(rows, FPS)).map((t) => [t.frame, t.target])
        ).toEqual(expected)
      }),
      { numRuns: 1500 }
    )
    expect(fired).toBeGreaterThan(200) // the cases must have something to agree about
  })
})

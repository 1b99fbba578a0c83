import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { contains, signedArea, type Point } from '../../geometry/shapes.ts'
import { DetectionSchema, type Detection } from '../../formats/plan.ts'
import { tracksFromRows, type TargetRow } from '../../targets/tracks.ts'
import { evaluate, type Setting } from '../../detections/evaluator.ts'
import { project } from '../../scene/camera.ts'
import { LATTICE } from './run.ts'
import { parseWith } from '../../schema/parse.ts'

/** A line from left to right at half height: its left is the upper half, so walking down is left → right. */
const across = {
  id: 'a',
  name: 'A',
  kind: 'line',
  line: [
    [0.1, 0.5],
    [0.9, 0.5]
  ]
}
const setting = (detections: object[], more: Partial<Setting> = {}): Setting => ({
  plan: { schedules: [], timeZone: 'UTC' },
  camera: {
    ignore: [],
    detections: detections.map((d): Detection => parseWith(DetectionSchema, d))
  },
  fps: 10,
  start: 0,
  ...more
})
/**
 * A target 0.12 high: its lattice rows are 0.02 apart, the lowest 0.01 above its lower edge.
 * `lower` gives that edge frame by frame; null: no row.
 */
const walk = (lower: (number | null)[], more: Partial<TargetRow> = {}, first = 1): TargetRow[] =>
  lower.flatMap((y, i) =>
    y === null
      ? []
      : [
          {
            frame: first + i,
            id: 1,
            x: 0.45,
            y: y - 0.12,
            w: 0.06,
            h: 0.12,
            cls: 'person' as const,
            confidence: 1,
            ...more
          }
        ]
  )
/** Lower edges at which `rows` of the six lattice rows are beyond the line. */
const over = (...rows: number[]): number[] => rows.map((n) => 0.5 + n * 0.02)
const run = (detection: object, rows: TargetRow[], more: Partial<Setting> = {}) =>
  evaluate(setting([{ ...across, ...detection }], more), tracksFromRows(rows, 10)).map((t) => [
    t.frame,
    t.direction
  ])

describe('line crossing: the lattice', () => {
  // Sensitivity 50: half of the body must be over; 60: 40 %; 75: a quarter; 90: a tenth. Common practice, no source.
  test.each([
    [50, 3],
    [60, 3], // 40 % needs three of six rows, as two are only a third
    [75, 2],
    [90, 1],
    [25, 5],
    [100, 1],
    [1, 6]
  ])('at sensitivity %i it triggers with %i of six rows of the body over', (sensitivity, rows) => {
    expect(run({ sensitivity }, walk(over(0, 1, 2, 3, 4, 5, 6, 7)))).toEqual([
      [rows + 1, 'leftToRight']
    ])
    expect(run({ sensitivity }, walk(over(7, 6, 5, 4, 3, 2, 1, 0, -1)))).toEqual([
      [rows + 2, 'rightToLeft']
    ])
  })

  test('one row short of half never triggers', () => {
    expect(run({}, walk(over(0, 1, 2, 2, 2, 1, 0)))).toEqual([])
  })

  test('triggers for the chosen direction only', () => {
    const thereAndBack = walk(over(0, 3, 7, 7, 3, 0))
    expect(run({}, thereAndBack)).toEqual([
      [2, 'leftToRight'],
      [5, 'rightToLeft']
    ])
    expect(run({ direction: 'leftToRight' }, thereAndBack)).toEqual([[2, 'leftToRight']])
    expect(run({ direction: 'rightToLeft' }, thereAndBack)).toEqual([[5, 'rightToLeft']])
  })

  test('a line drawn the other way swaps left and right', () => {
    expect(
      run(
        {
          line: [
            [0.9, 0.5],
            [0.1, 0.5]
          ]
        },
        walk(over(0, 3, 7))
      )
    ).toEqual([[2, 'rightToLeft']])
  })

  test('a line drawn from bottom to top has the picture’s left on its left', () => {
    const rows = [0.2, 0.3, 0.4, 0.6].map((x, i): TargetRow => ({
      frame: i + 1,
      id: 1,
      x,
      y: 0.4,
      w: 0.06,
      h: 0.1,
      cls: 'person',
      confidence: 1
    }))
    expect(
      run(
        {
          line: [
            [0.5, 0.9],
            [0.5, 0.1]
          ]
        },
        rows
      )
    ).toEqual([[4, 'leftToRight']])
  })

  test('passing beside the ends does not cross', () => {
    expect(run({}, walk(over(-3, 9), { x: 0.02 }))).toEqual([])
    expect(
      run(
        {
          line: [
            [0.48, 0.5],
            [0.9, 0.5]
          ]
        },
        walk(over(-3, 9))
      )
    ).toEqual([[2, 'leftToRight']]) // half of its width passes the end
    expect(
      run(
        {
          line: [
            [0.49, 0.5],
            [0.9, 0.5]
          ]
        },
        walk(over(-3, 9))
      )
    ).toEqual([])
  })

  test('counts a fast target never seen on the line itself', () => {
    expect(run({}, walk([0.2, 0.95]))).toEqual([[2, 'leftToRight']])
  })

  test('ignores a target that appears across or beyond the line', () => {
    expect(run({ sensitivity: 100 }, walk(over(3, 3, 3, 3)))).toEqual([])
    expect(run({ sensitivity: 100 }, walk(over(9, 9)))).toEqual([])
  })

  test('bridges gaps of up to 1.0 s', () => {
    const gap = (frames: number) => walk([0.4, ...new Array<null>(frames - 1).fill(null), 0.8])
    expect(run({}, gap(10))).toEqual([[11, 'leftToRight']])
    expect(run({}, gap(11))).toEqual([])
  })

  test('counts a path through a vertex once, in either direction', () => {
    // Column fractions put a lattice point at x = 0.5 exactly, where the middle vertex lies.
    const bent = {
      line: [
        [0.1, 0.5],
        [0.5, 0.5],
        [0.9, 0.5]
      ],
      sensitivity: 50
    }
    const column = { x: 0.5 - 0.06 / 12, w: 0.06 }
    expect(run(bent, walk(over(-3, 9), column))).toEqual([[2, 'leftToRight']])
    expect(run(bent, walk(over(9, -3), column))).toEqual([[2, 'rightToLeft']])
    const corner = {
      line: [
        [0.3, 0.3],
        [0.5, 0.5],
        [0.7, 0.3]
      ],
      sensitivity: 99
    }
    expect(run(corner, walk(over(-12, 9), { x: 0.47 }))).toEqual([[2, 'leftToRight']])
  })

  test('a lattice point on the line counts as crossed', () => {
    const rows = walk([0.44, 0.51], {}).map((r) => ({ ...r, h: 0.12 }))
    expect(run({ sensitivity: 90 }, rows)).toEqual([[2, 'leftToRight']])
    expect(run({ sensitivity: 90 }, walk([0.44, 0.51, 0.56]))).toEqual([[2, 'leftToRight']])
  })
})

describe('line crossing: levels, closed sides, going back', () => {
  test('going back before full overlap does not trigger, and the next crossing counts', () => {
    expect(run({}, walk(over(0, 3, 4, 3, 1, 0, 0, 3)))).toEqual([
      [2, 'leftToRight'],
      [8, 'leftToRight']
    ])
  })

  test('the same holds on the other side', () => {
    expect(run({}, walk(over(6, 3, 2, 3, 5, 6, 6, 3)))).toEqual([
      [2, 'rightToLeft'],
      [8, 'rightToLeft']
    ])
  })

  test('wavering around half the body triggers once', () => {
    expect(run({}, walk(over(0, 3, 2, 3, 2, 3, 2, 3, 7)))).toEqual([[2, 'leftToRight']])
  })

  test('the closed side re-opens below half of the overlap needed', () => {
    // After the crossing, `down` is what has come back: at need 0.5 it opens below 0.25, that is,
    // with at most one row back.
    expect(run({}, walk(over(0, 3, 5, 3)))).toEqual([
      [2, 'leftToRight'],
      [4, 'rightToLeft']
    ])
    expect(run({}, walk(over(0, 3, 4, 3)))).toEqual([[2, 'leftToRight']])
  })

  test('crossing over, back and over again in full counts three times', () => {
    expect(run({}, walk(over(0, 6, 7, 0, -1, 6)))).toEqual([
      [2, 'leftToRight'],
      [4, 'rightToLeft'],
      [6, 'leftToRight']
    ])
    // With no row at which the side behind could open again, the way back is a going back.
    expect(run({}, walk(over(0, 6, 0, 6)))).toEqual([
      [2, 'leftToRight'],
      [4, 'leftToRight']
    ])
  })
})

describe('line crossing: gates', () => {
  test('class: only the chosen classes pass; with none chosen all do', () => {
    const animal = walk(over(0, 3, 7), { cls: 'animal' })
    expect(run({ classes: ['person'] }, animal)).toEqual([])
    expect(run({ classes: ['person', 'animal'] }, animal)).toEqual([[2, 'leftToRight']])
    expect(run({}, walk(over(0, 3, 7), { cls: 'unknown' }))).toEqual([[2, 'leftToRight']])
  })

  test('a stopped crossing stays pending while enough is over, and triggers when the gate opens', () => {
    const late = [
      ...walk(over(0, 3), { cls: 'unknown' }),
      ...walk(over(4, 5), { cls: 'person' }, 3)
    ]
    expect(run({ classes: ['person'] }, late)).toEqual([[3, 'leftToRight']])
    const gone = [
      ...walk(over(0, 3, 2), { cls: 'unknown' }),
      ...walk(over(3, 6), { cls: 'person' }, 4)
    ]
    expect(run({ classes: ['person'] }, gone)).toEqual([])
  })

  test('a newer crossing replaces a pending one', () => {
    const rows = [
      ...walk(over(0, 6, 7, 0), { cls: 'unknown' }),
      ...walk(over(0), { cls: 'person' }, 5)
    ]
    expect(run({ classes: ['person'] }, rows)).toEqual([[5, 'rightToLeft']])
    expect(run({ classes: ['person'], direction: 'leftToRight' }, rows)).toEqual([])
  })

  test('size: too small when it fits into the smallest frame, too large when it exceeds the largest', () => {
    const rows = walk(over(0, 3, 7))
    const size = (min: object | undefined, max: object | undefined) =>
      run({ size: { min, max } }, rows)
    expect(size({ w: 0.07, h: 0.13 }, undefined)).toEqual([])
    expect(size({ w: 0.05, h: 0.13 }, undefined)).toEqual([[2, 'leftToRight']])
    expect(size({ w: 0.07, h: 0.11 }, undefined)).toEqual([[2, 'leftToRight']])
    expect(size(undefined, { w: 0.05, h: 0.5 })).toEqual([])
    expect(size(undefined, { w: 0.5, h: 0.11 })).toEqual([])
    expect(size(undefined, { w: 0.06, h: 0.5 })).toEqual([[2, 'leftToRight']])
  })

  test('confirmation: counts from the row at which the target took its class', () => {
    expect(run({ confirmSeconds: 0.3 }, walk(over(0, 3, 4, 5, 6)))).toEqual([[4, 'leftToRight']])
    const changed = [...walk(over(0, 0, 0), { cls: 'animal' }), ...walk(over(3, 4, 5, 6), {}, 4)]
    expect(run({ confirmSeconds: 0.2 }, changed)).toEqual([[6, 'leftToRight']])
  })

  test('ignore area: the bottom centre decides', () => {
    const area: Point[] = [
      [0.4, 0.5],
      [0.6, 0.5],
      [0.6, 0.6],
      [0.4, 0.6]
    ]
    const camera = (ignore: Point[][]) => ({
      camera: { ignore, detections: [parseWith(DetectionSchema, across)] }
    })
    const rows = walk(over(0, 3, 4, 6))
    const out = (ignore: Point[][]) =>
      evaluate({ ...setting([]), ...camera(ignore) }, tracksFromRows(rows, 10)).map((t) => t.frame)
    expect(out([])).toEqual([2])
    expect(out([area])).toEqual([4]) // pending until its feet have left the area
  })

  test('re-trigger delay: since the detection’s last trigger, of any target', () => {
    const two = [
      ...walk(over(0, 6, 7, 7, 7, 7, 7, 7)),
      ...walk(over(0, 0, 0, 6, 6, 7, 7, 7), { id: 2 })
    ]
    expect(run({ holdOffSeconds: 0 }, two).map(([f]) => f)).toEqual([2, 4])
    expect(run({ holdOffSeconds: 0.4 }, two).map(([f]) => f)).toEqual([2, 6])
    expect(run({ holdOffSeconds: 5 }, two).map(([f]) => f)).toEqual([2])
  })

  test('armed: by the site’s wall clock at the frame’s instant', () => {
    const schedules = [
      {
        id: 's',
        name: 'S',
        week: {
          mon: [['10:00', '11:00'] as const],
          tue: [],
          wed: [],
          thu: [],
          fri: [],
          sat: [],
          sun: []
        },
        exceptions: []
      }
    ]
    const at = (iso: string, timeZone: string) =>
      run({ schedule: 's' }, walk(over(0, 3, 4, 5)), {
        plan: { schedules, timeZone },
        start: Date.parse(iso)
      }).map(([f]) => f)
    expect(at('2026-06-01T10:30:00Z', 'UTC')).toEqual([2])
    expect(at('2026-06-01T09:30:00Z', 'Europe/London')).toEqual([2])
    expect(at('2026-06-01T10:30:00Z', 'Europe/London')).toEqual([])
    expect(at('2026-06-01T09:59:59.700Z', 'UTC')).toEqual([4]) // pending until 10:00
    expect(at('2026-06-02T10:30:00Z', 'UTC')).toEqual([])
  })

  test('armed: needs the arm input set, or not set if inverted; an unknown input is not set', () => {
    const at = (armInput: object, inputs: Setting['inputs']) =>
      run({ armInput }, walk(over(0, 3, 4, 5, 6)), { inputs, start: 1_000_000 }).map(([f]) => f)
    const panel = {
      panel: [
        { at: 0, set: true },
        { at: 1_000_050, set: false },
        { at: 1_000_250, set: true }
      ]
    }
    expect(at({ input: 'panel' }, panel)).toEqual([4]) // pending from frame 2 (unset) to 0.3 s
    expect(at({ input: 'panel', inverted: true }, panel)).toEqual([2])
    expect(at({ input: 'door' }, panel)).toEqual([])
    expect(at({ input: 'door', inverted: true }, panel)).toEqual([2])
  })

  test('size in metres: the height of an upright target at its foot point', () => {
    const scene = { height: 5, tilt: 20, fieldOfView: 40, aspect: 16 / 9 }
    const standing = (metres: number): TargetRow[] =>
      [30, 20, 12, 7].map((z, i) => {
        const [foot, head] = [project(scene, { x: 0, z }), project(scene, { x: 0, y: metres, z })]
        return {
          frame: i + 1,
          id: 1,
          x: foot.x - 0.02,
          y: head.y,
          w: 0.04,
          h: foot.y - head.y,
          cls: 'person',
          confidence: 1
        }
      })
    const count = (size: object, metres: number) =>
      run(
        {
          size,
          line: [
            [0.1, 0.45],
            [0.9, 0.45]
          ]
        },
        standing(metres),
        {
          camera: {
            ignore: [],
            scene,
            detections: [
              parseWith(DetectionSchema, {
                ...across,
                size,
                line: [
                  [0.1, 0.45],
                  [0.9, 0.45]
                ]
              })
            ]
          }
        }
      ).length
    expect(count({}, 1.7)).toBe(1)
    expect(count({ minMetres: 1.2 }, 1.7)).toBe(1)
    expect(count({ minMetres: 1.2 }, 0.7)).toBe(0) // a dog as near as a person is still a dog
    expect(count({ maxMetres: 1.2 }, 1.7)).toBe(0)
    expect(count({ maxMetres: 1.2 }, 0.7)).toBe(1)
  })

  test('a disabled detection does not trigger', () => {
    expect(run({ enabled: false }, walk(over(0, 3, 7)))).toEqual([])
  })

  test('sorts by time, then by detection as in the plan, then by target', () => {
    const rows = [...walk(over(0, 6), { id: 7 }), ...walk(over(0, 6), { id: 3 })]
    const triggers = evaluate(
      setting([
        { ...across, id: 'second' },
        { ...across, id: 'first' }
      ]),
      tracksFromRows(rows, 10)
    )
    expect(triggers.map((t) => [t.detection, t.target])).toEqual([
      ['second', 3],
      ['second', 7],
      ['first', 3],
      ['first', 7]
    ])
  })
})

describe('line crossing: against general inside-tests', () => {
  /**
   * A closed polyline is crossed left to right as often, net, as a point has gone from one side of the outline to
   * the other, whatever way it took. So each lattice point's count is known from a point-in-polygon test (itself
   * checked against polygon-clipping), and with it the frame of the first crossing.
   */
  const unit = fc.double({ min: 0.05, max: 0.85, noNaN: true })
  test('the first crossing of a closed line is where inside-tests say', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(unit, unit), { minLength: 2, maxLength: 12 }),
        fc.integer({ min: 2, max: 99 }),
        fc.integer({ min: 3, max: 8 }),
        (path, sensitivity, corners) => {
          const polygon = Array.from({ length: corners }, (_, i): Point => [
            0.5 + 0.3 * Math.cos((2 * Math.PI * (i + 0.3)) / corners),
            0.5 + 0.25 * Math.sin((2 * Math.PI * (i + 0.3)) / corners)
          ])
          expect(signedArea(polygon)).toBeGreaterThan(0) // clockwise on the picture: the inside is on the right
          const rows = path.map(([x, y], i): TargetRow => ({
            frame: i + 1,
            id: 1,
            x,
            y,
            w: 0.1,
            h: 0.14,
            cls: 'person',
            confidence: 1
          }))
          const inside = rows.map((r) =>
            Array.from({ length: LATTICE * LATTICE }, (_, k) =>
              contains(
                polygon,
                r.x + (((k % LATTICE) + 0.5) / LATTICE) * r.w,
                r.y + ((Math.floor(k / LATTICE) + 0.5) / LATTICE) * r.h
              )
                ? 1
                : 0
            )
          )
          const need = Math.max(0.01, 1 - sensitivity / 100)
          const share = (n: number, sign: number) =>
            inside[n]!.filter((v, k) => (v - inside[0]![k]!) * sign > 0).length /
            (LATTICE * LATTICE)
          const first = rows.findIndex(
            (_, n) => share(n, 1) >= need - 1e-9 || share(n, -1) >= need - 1e-9
          )
          const found = run({ line: [...polygon, polygon[0]], sensitivity }, rows)[0]
          expect(found).toEqual(
            first < 0
              ? undefined
              : [first + 1, share(first, 1) >= need - 1e-9 ? 'leftToRight' : 'rightToLeft']
          )
        }
      ),
      { numRuns: 3000 }
    )
  })

  // The line's ends lie outside the reach of the path: a step exactly through an end counts on one
  // side only, by the half-open rule.
  test('mirroring the picture mirrors directions', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(unit, unit), { minLength: 2, maxLength: 20 }),
        unit,
        unit,
        fc.integer({ min: 1, max: 100 }),
        (path, top, bottom, sensitivity) => {
          const rows = path.map(([x, y], i): TargetRow => ({
            frame: i + 1,
            id: 1,
            x,
            y,
            w: 0.1,
            h: 0.14,
            cls: 'person',
            confidence: 1
          }))
          const mirrored = rows.map((r) => ({ ...r, x: 1 - r.x - r.w }))
          const straight = run(
            {
              line: [
                [top, 0],
                [bottom, 1]
              ],
              sensitivity
            },
            rows
          )
          const other = run(
            {
              line: [
                [1 - top, 0],
                [1 - bottom, 1]
              ],
              sensitivity
            },
            mirrored
          )
          expect(other).toEqual(
            straight.map(([frame, direction]) => [
              frame,
              direction === 'leftToRight' ? 'rightToLeft' : 'leftToRight'
            ])
          )
        }
      ),
      { numRuns: 1000 }
    )
  })
})

import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import type { ArmInputs } from '../arming/armInputs.ts'
import { DetectionSchema } from '../formats/plan.ts'
import { triggerLine } from '../formats/triggers.ts'
import { FIGURES, emptyMeasures, type Figure, type Measures } from '../measures/measures.ts'
import { faceKey, type Face } from '../targets/faces.ts'
import { tracksFromRows, type TargetRow, type Tracks } from '../targets/tracks.ts'
import { Evaluator, evaluate, type Setting } from './evaluator.ts'
import { explain } from './ladder.ts'
import { traceFrames } from './frameTrace.ts'
import { motionLevel } from '../kinds/cellsInMotion.ts'
import { allCells } from '../kinds/parts.ts'
import { parseWith } from '../schema/parse.ts'

const GRID = { columns: 10, rows: 10 }
const none = tracksFromRows([], 10)
const setting = (detection: object, more: Partial<Setting> = {}): Setting => ({
  plan: { schedules: [], timeZone: 'UTC' },
  camera: {
    ignore: [],
    detections: [parseWith(DetectionSchema, { id: 'd', name: 'D', ...detection })]
  },
  fps: 10,
  start: 0,
  ...more
})
/** Measures in which so many cells, from the top left on, are at a level, frame by frame. */
function moving(counts: number[], level = 255): Measures {
  const m = emptyMeasures(GRID, 100, 100, 10, counts.length)
  counts.forEach((count, n) => m.cells.fill(level, n * 100, n * 100 + count))
  m.fresh.fill(1)
  return m
}
const usual: Record<Figure, number> = {
  luma: 120,
  contrast: 40,
  sharpness: 200,
  structure: 0.95,
  shapes: 0.97,
  shiftX: 0,
  shiftY: 0,
  detail: 150,
  lumaBefore: 120,
  contrastBefore: 40,
  detailBefore: 150,
  change: 2
}
/** Measures of a picture that is as it should be, but for the changes. */
function looking(frames: Partial<Record<Figure, number>>[]): Measures {
  const m = emptyMeasures(GRID, 100, 100, 10, frames.length)
  frames.forEach((change, n) =>
    FIGURES.forEach((f) => (m.figures[f][n] = { ...usual, ...change }[f]))
  )
  m.fresh.fill(1)
  return m
}
const times = <T>(n: number, value: T): T[] => new Array<T>(n).fill(value)
const run = (
  detection: object,
  measures: Measures | null,
  more: Partial<Setting> = {},
  tracks: Tracks = none
) => evaluate(setting(detection, more), tracks, measures).map((t) => t.frame)

describe('motion', () => {
  const motion = {
    kind: 'motion',
    cells: allCells(10, 10),
    threshold: 10,
    onDelaySeconds: 0.2,
    offDelaySeconds: 1
  }

  test('triggers once when enough cells are in motion for the on-delay', () => {
    expect(run(motion, moving([0, ...times(20, 10)]))).toEqual([4])
    expect(run(motion, moving([0, ...times(20, 9)]))).toEqual([])
    expect(run(motion, moving([0, 10, 10, 0, 10, 10, 0]))).toEqual([])
    expect(run({ ...motion, onDelaySeconds: 0 }, moving([0, 10]))).toEqual([2])
  })

  test('ends after the off-delay, and can trigger again', () => {
    const gap = (n: number) => moving([...times(5, 10), ...times(n, 0), ...times(5, 10)])
    expect(run(motion, gap(10))).toEqual([3])
    expect(run(motion, gap(11))).toEqual([3, 19])
  })

  test('a cell is in motion above the sensitivity’s level; higher sensitivity never sees less', () => {
    expect([1, 50, 100].map(motionLevel)).toEqual([expect.closeTo(43.6), 24, 4])
    expect(run({ ...motion, sensitivity: 50 }, moving(times(9, 50), 24))).toEqual([])
    expect(run({ ...motion, sensitivity: 50 }, moving(times(9, 50), 25))).toEqual([3])
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 255 }), { minLength: 5, maxLength: 40 }),
        fc.integer({ min: 1, max: 100 }),
        fc.integer({ min: 1, max: 100 }),
        (levels, a, b) => {
          const measures = moving(levels.map(() => 50))
          levels.forEach((level, n) => measures.cells.fill(level, n * 100, n * 100 + 50))
          const on = (sensitivity: number) =>
            traceFrames(
              setting({ ...motion, sensitivity, onDelaySeconds: 0, offDelaySeconds: 0 }),
              none,
              measures,
              'd'
            )!.curves[0]!.values.reduce((s, v) => s + v, 0)
          expect(on(Math.max(a, b))).toBeGreaterThanOrEqual(on(Math.min(a, b)))
        }
      )
    )
  })

  test('counts selected cells only, as a share of them', () => {
    const left = times(10, '1111100000')
    const measures = moving(times(10, 10)) // the first row of cells
    expect(run({ ...motion, cells: left, threshold: 10 }, measures)).toEqual([3]) // 5 of 50
    expect(run({ ...motion, cells: left, threshold: 10.1 }, measures)).toEqual([])
    expect(run({ ...motion, cells: times(10, '0000000001'), threshold: 11 }, measures)).toEqual([])
  })

  test('triggers when a gate opens while motion lasts', () => {
    expect(
      run({ ...motion, armInput: { input: 'panel' } }, moving(times(20, 50)), {
        inputs: { panel: [{ at: 1000, set: true }] }
      })
    ).toEqual([11])
    expect(
      run(
        { ...motion, holdOffSeconds: 4 },
        moving([...times(5, 10), ...times(12, 0), ...times(40, 10)])
      )
    ).toEqual([3, 43])
  })

  test('does nothing without measures or with the device’s motion detection off', () => {
    expect(run(motion, null)).toEqual([])
    expect(run(motion, moving(times(20, 50)), { motionOn: false })).toEqual([])
  })

  test('refuses a clip measured on another grid', () => {
    expect(() => run({ kind: 'motion' }, moving([0, 0]))).toThrowWords(
      'D has 22 × 18 cells, and the clip was measured with 10 × 10'
    )
  })

  test('names no target', () =>
    expect(triggerLine(evaluate(setting(motion), none, moving(times(5, 50)))[0]!)).toBe(
      '{"detection":"d","kind":"motion","frame":3,"time":0.2}'
    ))
})

describe('motion by class', () => {
  const byClass = {
    kind: 'classMotion',
    cells: allCells(10, 10),
    threshold: 10,
    classes: ['person']
  }
  const walk = (more: Partial<TargetRow> = {}, frames = 30): Tracks =>
    tracksFromRows(
      Array.from({ length: frames }, (_, i) => ({
        frame: i + 1,
        id: 7,
        x: 0.32,
        y: 0.01,
        w: 0.05,
        h: 0.07,
        cls: 'person' as const,
        confidence: 1,
        ...more
      })),
      10
    )
  const m = moving(times(30, 10)) // the first row of cells

  test('triggers for a target of the class on a moving cell, and names it', () => {
    expect(evaluate(setting(byClass), walk(), m)).toMatchObject([{ frame: 3, target: 7 }])
    expect(run(byClass, m, {}, walk({ y: 0.11 }))).toEqual([])
    expect(run(byClass, m, {}, walk({ y: 0.099 }))).toEqual([3])
    expect(run(byClass, m)).toEqual([])
  })

  test('applies the class, size and confirmation gates', () => {
    expect(run(byClass, m, {}, walk({ cls: 'animal' }))).toEqual([])
    expect(run({ ...byClass, size: { min: { w: 0.06, h: 0.08 } } }, m, {}, walk())).toEqual([])
    expect(run({ ...byClass, confirmSeconds: 0.9 }, m, {}, walk())).toEqual([10])
  })

  test('does nothing while the device’s motion detection is off', () =>
    expect(run(byClass, m, { motionOn: false }, walk())).toEqual([]))
  test('ignores moving cells that are not selected', () =>
    expect(run({ ...byClass, cells: times(10, '1110111111') }, m, {}, walk())).toEqual([]))
})

describe('tamper', () => {
  const tamper = { kind: 'tamper' }
  const bad = {
    covered: { luma: 60, contrast: 3, sharpness: 20, structure: 0.02, shapes: 0.2 },
    dark: { luma: 8, contrast: 4, sharpness: 10, structure: 0.1, shapes: 0.3 },
    washedOut: { luma: 240, contrast: 6, sharpness: 20, structure: 0.3, shapes: 0.4 },
    outOfFocus: { contrast: 35, sharpness: 15, detail: 12, structure: 0.5, shapes: 0.9 },
    moved: { structure: 0, shapes: 0.1, shiftX: -0.3 }
  }
  const fired = (detection: object, measures: Measures) =>
    evaluate(setting({ ...tamper, ...detection }), none, measures).map((t) => [t.frame, t.cause])

  test.each(Object.entries(bad))('%s: named after the delay of 3 s', (cause, figures) => {
    const measures = looking([...times(5, {}), ...times(40, figures)])
    expect(fired({}, measures)).toEqual([[36, cause]])
    expect(fired({ delaySeconds: 1 }, measures)).toEqual([[16, cause]])
  })

  test('ignores causes that are switched off', () => {
    const measures = looking(times(40, bad.moved))
    expect(fired({ causes: ['covered', 'dark', 'washedOut', 'outOfFocus'] }, measures)).toEqual([])
  })

  test('ignores a cause that ends within the delay, such as a truck that stops in front', () => {
    expect(fired({}, looking([...times(29, bad.covered), {}, ...times(29, bad.covered)]))).toEqual(
      []
    )
  })

  test('ends when the picture matches the reference for the delay, and can trigger again', () => {
    const twice = (between: number) =>
      looking([...times(35, bad.dark), ...times(between, {}), ...times(35, bad.dark)])
    expect(fired({}, twice(30)).length).toBe(1)
    expect(fired({}, twice(31)).length).toBe(2)
  })

  test('slow changes of light are not tamper, as the reference follows them', () => {
    expect(
      fired({}, looking(times(60, { luma: 20, lumaBefore: 22, contrast: 9, contrastBefore: 10 })))
    ).toEqual([])
  })

  test('sensitivity moves the limits', () => {
    const measures = looking(times(40, { luma: 48 })) // 40 % of the reference
    expect([20, 50, 90].map((sensitivity) => fired({ sensitivity }, measures).length)).toEqual([
      0, 0, 1
    ])
  })

  test('the trigger has its cause and severity', () => {
    const [t] = evaluate(
      setting({ ...tamper, severity: 'critical' }),
      none,
      looking(times(40, bad.dark))
    )
    expect(triggerLine(t!)).toBe(
      '{"detection":"d","kind":"tamper","frame":31,"time":3,"cause":"dark","severity":"critical"}'
    )
  })
})

describe('video loss', () => {
  const lost = (gone: [number, number], length: number) => {
    const m = moving(times(length, 0))
    m.fresh.fill(0, gone[0] - 1, gone[1])
    return m
  }
  test('triggers after the delay without a picture, and again only after one has arrived', () => {
    expect(run({ kind: 'signalLoss', delaySeconds: 2 }, lost([11, 60], 80))).toEqual([30]) // the last picture was frame 10
    expect(run({ kind: 'signalLoss', delaySeconds: 2 }, lost([11, 28], 80))).toEqual([])
    const twice = lost([11, 60], 120)
    twice.fresh.fill(0, 80, 110)
    expect(run({ kind: 'signalLoss', delaySeconds: 2 }, twice)).toEqual([30, 100])
  })
})

describe('contact input', () => {
  const m = moving(times(60, 0))
  const inputs: ArmInputs = {
    door: [
      { at: 1000, set: true },
      { at: 1150, set: false },
      { at: 2000, set: true },
      { at: 4000, set: false }
    ]
  }
  const contact = (more: object, at: ArmInputs = inputs) =>
    run({ kind: 'contact', input: 'door', ...more }, m, { inputs: at })

  test('triggers on becoming active, after the debounce time', () => {
    expect(contact({ debounceSeconds: 0 })).toEqual([11, 21])
    expect(contact({ debounceSeconds: 0.1 })).toEqual([12, 22])
    expect(contact({ debounceSeconds: 0.3 })).toEqual([24])
  })

  test('a normally closed contact triggers when it opens, not when open from the start', () => {
    expect(contact({ normally: 'closed', debounceSeconds: 0.3 })).toEqual([44])
    expect(contact({ normally: 'closed' }, {})).toEqual([])
  })
})

describe('face', () => {
  const rows = Array.from({ length: 20 }, (_, i): TargetRow => ({
    frame: i + 1,
    id: 3,
    x: 0.4,
    y: 0.2,
    w: 0.1,
    h: 0.5,
    cls: 'person',
    confidence: 1
  }))
  const seen = (from: number, face: Partial<Face>): Tracks => ({
    ...tracksFromRows(rows, 10),
    faces: new Map(
      rows
        .filter((r) => r.frame >= from)
        .map((r) => [
          faceKey(r.frame, 3),
          { x: 0.42, y: 0.2, w: 0.04, h: 0.08, mask: null, name: null, ...face }
        ])
    )
  })
  const face = (more: object, tracks: Tracks) =>
    run({ kind: 'face', faceMin: { w: 0.03, h: 0.06 }, ...more }, null, {}, tracks)

  test('triggers once per target for a face at least as large as the smallest', () => {
    expect(face({}, seen(5, {}))).toEqual([5])
    expect(face({}, seen(5, { w: 0.029 }))).toEqual([])
    expect(face({}, tracksFromRows(rows, 10))).toEqual([])
  })

  test.each([
    [{ mask: 'with' }, { mask: true }, true],
    [{ mask: 'with' }, { mask: false }, false],
    [{ mask: 'with' }, { mask: null }, false],
    [{ mask: 'without' }, { mask: false }, true],
    [{ mask: 'any' }, { mask: null }, true],
    [{ list: 'listed', faces: ['Isla Brae'] }, { name: 'Isla Brae' }, true],
    [{ list: 'listed', faces: ['Isla Brae'] }, { name: null }, false],
    [{ list: 'notListed', faces: ['Isla Brae'] }, { name: 'Rowan Skea' }, true],
    [{ list: 'notListed', faces: ['Isla Brae'] }, { name: 'Isla Brae' }, false],
    [{ list: 'notListed', faces: ['Isla Brae'] }, { name: null }, true]
  ])('%j with a face of %j: %s', (asked, seenFace, fires) =>
    expect(face(asked, seen(1, seenFace)).length).toBe(fires ? 1 : 0)
  )

  test('applies the gates common to targets', () => {
    expect(face({ classes: ['animal'] }, seen(1, {}))).toEqual([])
    expect(face({ confirmSeconds: 1 }, seen(1, {}))).toEqual([11])
  })

  test('the ladder names what was seen of the face', () => {
    const ladder = explain(
      setting({ kind: 'face', faceMin: { w: 0.03, h: 0.06 }, mask: 'with' }),
      seen(1, { mask: false }),
      'd',
      3
    )!
    expect(ladder.sentence).toSay(/^Mask not met: without a mask at .*, needs with a mask/)
  })
})

describe('all kinds together', () => {
  const counts = fc.array(fc.constantFrom(0, 0, 5, 20, 100), { minLength: 3, maxLength: 80 })
  const kinds = [
    { kind: 'motion' },
    { kind: 'classMotion' },
    { kind: 'tamper', delaySeconds: 0.5 },
    { kind: 'signalLoss', delaySeconds: 0.5 },
    { kind: 'contact', input: 'door' }
  ]

  test('gives the same frame by frame as for the whole clip, also for frames without targets', () => {
    fc.assert(
      fc.property(
        counts,
        fc.array(fc.integer({ min: 1, max: 80 }), { maxLength: 20 }),
        (list, frames) => {
          const measures = moving(list)
          list.forEach((c, n) =>
            FIGURES.forEach(
              (f) => (measures.figures[f][n] = { ...usual, ...(c === 100 && { luma: 5 }) }[f])
            )
          )
          list.forEach((c, n) => (measures.fresh[n] = c === 5 ? 0 : 1))
          const tracks = tracksFromRows(
            [...new Set(frames)]
              .filter((f) => f <= list.length)
              .map((frame) => ({
                frame,
                id: 1,
                x: 0.1,
                y: 0,
                w: 0.1,
                h: 0.1,
                cls: 'person' as const,
                confidence: 1
              })),
            10
          )
          const many = {
            ...setting({ kind: 'motion' }),
            camera: {
              ignore: [],
              detections: kinds.map((k, i) =>
                parseWith(DetectionSchema, {
                  id: `d${i}`,
                  name: `D${i}`,
                  ...('input' in k || k.kind === 'tamper' || k.kind === 'signalLoss'
                    ? {}
                    : { cells: allCells(10, 10) }),
                  ...k
                })
              )
            },
            inputs: { door: [{ at: 500, set: true }] }
          }
          const evaluator = new Evaluator(many)
          const pieces = []
          let row = 0
          for (let n = 1; n <= list.length; n++) {
            const start = row
            while (row < tracks.length && tracks.frame[row]! <= n) row++
            pieces.push(...evaluator.push(tracks, start, row, { ...measures, length: n }))
          }
          expect(pieces).toEqual(evaluate(many, tracks, measures))
        }
      ),
      { numRuns: 200 }
    )
  })

  test('the trace has the curve, its limit, the on-periods and their reasons', () => {
    const trace = traceFrames(
      setting({ kind: 'motion', cells: allCells(10, 10), threshold: 10, holdOffSeconds: 60 }),
      none,
      moving([...times(5, 20), ...times(15, 0), ...times(5, 20)]),
      'd'
    )!
    expect(trace.curves).toMatchObject([{ name: 'Cells in motion', unit: '%', limit: 10 }])
    expect([...trace.curves[0]!.values.slice(0, 6)]).toEqual([20, 20, 20, 20, 20, 0])
    expect(trace.episodes).toMatchObject([
      { from: 0.2, firedAt: 0.2 },
      { from: 2.2, firedAt: null }
    ])
    expect(trace.ladder).toMatchObject({
      fired: true,
      frame: 3,
      sentence: 'Triggered at 0.2 s: all conditions met.'
    })
    const later = traceFrames(
      setting({ kind: 'motion', cells: allCells(10, 10), threshold: 10, holdOffSeconds: 60 }),
      none,
      moving([...times(5, 20), ...times(15, 0), ...times(5, 20)]),
      'd',
      23
    )!
    expect(later.ladder.sentence).toEqual(
      'Re-trigger delay not met: 2.0 s since the last trigger at 2.2 s, needs at least 60 s.'
    )
    expect(
      traceFrames(
        setting({ kind: 'motion', cells: allCells(10, 10), threshold: 50 }),
        none,
        moving(times(5, 20)),
        'd'
      )!.ladder.sentence
    ).toSay(/^Cells in motion not met: 20% of the cells in motion at 0\.0 s, needs at least 50%/)
  })
})

describe('invalid plans', () => {
  const refused = (detection: object) => () =>
    parseWith(DetectionSchema, { id: 'd', name: 'D', ...detection })
  test.each([
    [
      { kind: 'motion', cells: ['000', '000'] },
      '$.cells: has no cell selected; motion would never count'
    ],
    [
      { kind: 'motion', cells: ['01', '011'] },
      '$.cells: must be a list of rows of 0 and 1, all of one length'
    ],
    [{ kind: 'motion', threshold: 0 }, '$.threshold: must be a number from 0.1 to 100%'],
    [{ kind: 'tamper', causes: [] }, '$.causes: must name at least one of covered, dark'],
    [
      { kind: 'tamper', severity: 'grave' },
      '$.severity: must be one of information, minor, major, critical'
    ],
    [{ kind: 'contact' }, '$.input: is missing'],
    [{ kind: 'face', mask: 'maybe' }, '$.mask: must be any, with or without'],
    [{ kind: 'motion', classes: ['person'] }, '$.classes: is not known here']
  ])('%j', (detection, message) => expect(refused(detection)).toThrowWords(message))
})

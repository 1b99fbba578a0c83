import { describe, expect, test } from '@jest/globals'
import { evaluate } from '../detections/index.ts'
import { DetectionSchema, type Detection } from '../formats/plan.ts'
import { tracksFromRows, type TargetRow } from '../targets/tracks.ts'
import { fitSizes, sizesIn } from './sizes.ts'
import { parseWith } from '../schema/parse.ts'

const zone = [
  [0.2, 0.4],
  [0.8, 0.4],
  [0.8, 0.9],
  [0.2, 0.9]
]
const detection = (more: object = {}): Detection =>
  parseWith(DetectionSchema, {
    id: 'd',
    name: 'D',
    kind: 'intrusion',
    zone,
    classes: ['person'],
    ...more
  })
const rows = (
  id: number,
  cls: TargetRow['cls'],
  w: number,
  h: number,
  foot: number,
  x = 0.5
): TargetRow[] =>
  Array.from({ length: 40 }, (_, i) => ({
    frame: i + 1,
    id,
    x,
    y: foot - h,
    w,
    h,
    cls,
    confidence: 1
  }))
// Known: a far person of 3 × 10 %, a near one of 8 × 24 %, a dog of 5 × 4 %, a van, and a person outside of the zone.
const tracks = tracksFromRows(
  [
    ...rows(1, 'person', 0.03, 0.1, 0.5),
    ...rows(2, 'person', 0.08, 0.24, 0.85),
    ...rows(3, 'animal', 0.05, 0.04, 0.7),
    ...rows(4, 'vehicle', 0.3, 0.2, 0.8),
    ...rows(5, 'person', 0.02, 0.05, 0.2)
  ],
  10
)

describe('size limits fitted to a clip', () => {
  const sizes = sizesIn(detection(), tracks)
  const fit = fitSizes(sizes, ['person'])!

  test('fits to the targets at the shape with a quarter to spare', () => {
    expect(fit).toEqual({
      targets: 2,
      min: { w: 0.024, h: 0.08 },
      max: { w: 0.1, h: 0.3 },
      metres: null
    })
    expect(sizes.filter((s) => s.target === 5).every((s) => !s.atShape)).toBe(true)
  })

  test('the engine passes those it fitted to, and stops smaller and larger', () => {
    const fired = (classes: string[]) => [
      ...new Set(
        evaluate(
          {
            plan: { schedules: [], timeZone: 'UTC' },
            camera: {
              ignore: [],
              detections: [detection({ classes, size: { min: fit.min, max: fit.max } })]
            },
            fps: 10,
            start: 0
          },
          tracks
        ).map((t) => t.target)
      )
    ]
    expect(fired(['person'])).toEqual([1, 2])
    expect(fired([])).toEqual([1, 2, 3])
    expect(fired(['vehicle'])).toEqual([])
  })

  test('fits in metres on a calibrated scene; without targets there is no fit', () => {
    const measured = fitSizes(
      sizesIn(detection(), tracks, { height: 4, tilt: 15, fieldOfView: 45, aspect: 16 / 9 }),
      ['person']
    )!
    expect(measured.metres!.min).toBeLessThan(measured.metres!.max)
    expect(fitSizes(sizes, ['cycle'])).toBeNull()
    expect(fitSizes([], [])).toBeNull()
  })

  test('counts targets near a line, not far along or beside it', () => {
    const line = parseWith(DetectionSchema, {
      id: 'l',
      name: 'L',
      kind: 'line',
      line: [
        [0.4, 0.5],
        [0.6, 0.5]
      ]
    })
    const at = (id: number) =>
      sizesIn(line, tracks)
        .filter((s) => s.target === id)
        .some((s) => s.atShape)
    expect([at(1), at(2), at(4)]).toEqual([true, false, false])
  })
})

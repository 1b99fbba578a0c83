import { describe, expect, test } from '@jest/globals'
import { DetectionSchema, type Detection } from '../../../core/formats/plan.ts'
import { forCamera } from './copyTo.ts'
import { parseWith } from '../../../core/schema/parse.ts'

const [high, low] = [
  { height: 6, tilt: 24, fieldOfView: 45, aspect: 16 / 9 },
  { height: 3.2, tilt: 12, fieldOfView: 52, aspect: 4 / 3 }
]
const zone = (more: object = {}): Detection =>
  parseWith(DetectionSchema, {
    id: 'z',
    name: 'Z',
    kind: 'intrusion',
    zone: [
      [0.3, 0.5],
      [0.7, 0.5],
      [0.7, 0.8],
      [0.3, 0.8]
    ],
    ...more
  })

describe('a detection for another camera', () => {
  test('without two calibrations: keeps the place on the picture, and says so', () => {
    expect(forCamera(zone(), high, null)).toEqual({
      detection: zone(),
      notes: ['at the same place in the picture, as not both scenes are calibrated']
    })
  })

  test('with both calibrated: goes through the ground, and scales its size limits and aspect', () => {
    const { detection, notes } = forCamera(
      zone({ size: { min: { w: 0.02, h: 0.1 } } }),
      high,
      low
    ) as { detection: { size: { min: { w: number; h: number } } }; notes: string[] }
    expect(notes[0]).toEqual('at the same place on the ground')
    const [wide, tall] = [detection.size.min.w / 0.02, detection.size.min.h / 0.1]
    expect(tall).toBeCloseTo(0.943, 2) // as core/scene/copy.test.ts finds it against OpenCV
    expect(wide / tall).toBeCloseTo(high.aspect / low.aspect, 2)
  })

  test('keeps a size in metres only on a calibrated scene', () => {
    const metres = zone({ size: { minMetres: 1.2, max: { w: 0.3, h: 0.6 } } })
    expect(forCamera(metres, high, null)).toMatchObject({
      detection: { size: { max: { w: 0.3, h: 0.6 } } },
      notes: [expect.anything(), 'without its size in metres, as that scene is not calibrated']
    })
    expect('minMetres' in (forCamera(metres, high, null).detection as { size: object }).size).toBe(
      false
    )
    expect(forCamera(metres, high, low)).toMatchObject({ detection: { size: { minMetres: 1.2 } } })
  })

  test('copies a detection without a shape unchanged', () => {
    const care = parseWith(DetectionSchema, { id: 't', name: 'T', kind: 'tamper' })
    expect(forCamera(care, high, low)).toEqual({ detection: care, notes: [] })
  })
})

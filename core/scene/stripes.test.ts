import { describe, expect, test } from '@jest/globals'
import { DENSITY_BANDS, horizon, type CameraPose } from './camera.ts'
import { densityStripes } from './stripes.ts'
import { openCvSees, type P3 } from './testing/openCvSees.ts'

const pose: CameraPose = { height: 4.5, tilt: 18, fieldOfView: 44, aspect: 16 / 9 }
const PICTURE = 1080

describe('bands of pixel density', () => {
  const stripes = densityStripes(pose, PICTURE)

  test('cover the ground from the horizon down without gaps, from few pixels to many', () => {
    expect(stripes[0]!.from).toBeCloseTo(Math.max(0, horizon(pose)), 9)
    expect(stripes[stripes.length - 1]!.to).toBe(1)
    stripes.slice(1).forEach((s, i) => {
      expect(s.from).toBe(stripes[i]!.to)
      expect(s.least).toBeGreaterThan(stripes[i]!.least)
    })
  })

  test('at a border, a metre has exactly that many pixels as OpenCV projects it', () => {
    const distances = Array.from({ length: 600 }, (_, i) => 2 * 1.008 ** i)
    const seen = openCvSees(
      pose,
      distances.flatMap((z): P3[] => [
        [0, 0, z],
        [1, 0, z]
      ])
    )
    for (const { least, from } of stripes.slice(1)) {
      const i = distances.findIndex((_, k) => seen[2 * k]![1] <= from)
      const metre = (k: number): number =>
        (seen[2 * k + 1]![0] - seen[2 * k]![0]) * PICTURE * pose.aspect
      const t = (seen[2 * i - 2]![1] - from) / (seen[2 * i - 2]![1] - seen[2 * i]![1])
      expect(Math.abs(metre(i - 1) + (metre(i) - metre(i - 1)) * t - least)).toBeLessThan(
        0.01 * least
      )
    }
  })

  test('are those of the standard, in its order (IEC 62676-4, from memory)', () => {
    expect(DENSITY_BANDS.map(({ least }) => least)).toEqual([250, 125, 62.5, 25, 12.5])
    expect(stripes.map(({ band }) => band)).toEqual(
      [null, 'monitor', 'detect', 'observe', 'recognise', 'identify'].slice(0, stripes.length)
    )
  })

  test('are none for a camera that looks at the sky', () =>
    expect(densityStripes({ ...pose, tilt: -30 }, PICTURE)).toEqual([]))
})

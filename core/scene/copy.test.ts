import { describe, expect, test } from '@jest/globals'
import { DetectionSchema } from '../formats/plan.ts'
import type { CameraPose } from './camera.ts'
import { copyShape, scaledSize } from './copy.ts'
import { openCvSees, type P3 } from './testing/openCvSees.ts'
import { parseWith } from '../schema/parse.ts'

const high: CameraPose = { height: 6, tilt: 24, fieldOfView: 45, aspect: 16 / 9 }
const low: CameraPose = { height: 3.2, tilt: 12, fieldOfView: 52, aspect: 4 / 3 }
const bay: P3[] = [
  [-2, 0, 11],
  [2.5, 0, 10],
  [2, 0, 14.5],
  [-1.5, 0, 15]
]

describe('a shape copied through the ground', () => {
  test.each([
    [high, low],
    [low, high]
  ])('lands where OpenCV’s projectPoints puts the same ground: %j to %j', (from, to) => {
    const { points, through, cut } = copyShape(openCvSees(from, bay), true, from, to)
    expect([through, cut]).toEqual(['ground', false])
    openCvSees(to, bay).forEach(([x, y], i) => {
      expect(Math.abs(points[i]![0] - x)).toBeLessThan(1e-4)
      expect(Math.abs(points[i]![1] - y)).toBeLessThan(1e-4)
    })
  })

  test('comes back unchanged', () => {
    const seen = openCvSees(high, bay)
    const back = copyShape(copyShape(seen, true, high, low).points, true, low, high)
    back.points.forEach(([x, y], i) => {
      expect(Math.abs(x - seen[i]![0])).toBeLessThan(5e-4)
      expect(Math.abs(y - seen[i]![1])).toBeLessThan(5e-4)
    })
  })

  test('scales by the size of a 1.75 m person as OpenCV projects it', () => {
    const person = (pose: CameraPose): number => {
      const [foot, head] = openCvSees(pose, [
        [0.2, 0, 12.5],
        [0.2, 1.75, 12.5]
      ])
      return foot![1] - head![1]
    }
    const { scale } = copyShape(openCvSees(high, bay), true, high, low)
    const truth = person(low) / person(high)
    expect(Math.abs(scale / truth - 1)).toBeLessThan(0.12)
    const d = parseWith(DetectionSchema, {
      id: 'z',
      name: 'Z',
      kind: 'intrusion',
      zone: [
        [0, 0],
        [1, 0],
        [1, 1]
      ],
      size: { min: { w: 0.02, h: 0.1 }, maxMetres: 2.2 }
    })
    expect(scaledSize(d, scale, 2 * scale)).toMatchObject({
      size: {
        min: { w: Math.round(0.04 * scale * 1e4) / 1e4, h: Math.round(0.1 * scale * 1e4) / 1e4 },
        maxMetres: 2.2
      }
    })
  })

  test('is clipped at the edge of the other picture', () => {
    const wide: P3[] = [
      [-14, 0, 12],
      [3, 0, 12],
      [3, 0, 16],
      [-14, 0, 16]
    ]
    const from: CameraPose = { ...high, fieldOfView: 80 }
    const zone = copyShape(openCvSees(from, wide), true, from, low)
    expect(zone).toMatchObject({ through: 'ground', cut: true })
    expect(zone.points.every(([x, y]) => x >= 0 && x <= 1 && y >= 0 && y <= 1)).toBe(true)
    expect(zone.points.filter(([x]) => x === 0)).toHaveLength(2)
    const line = copyShape(openCvSees(from, wide.slice(0, 2)), false, from, low)
    expect(line.points).toHaveLength(2)
    // The cut end lies on the line that OpenCV sees.
    const [a, b] = openCvSees(low, wide.slice(0, 2))
    const [[ax, ay], [bx, by]] = [a!, b!]
    const [x, y] = line.points[0]!
    expect(x).toBe(0)
    expect(Math.abs(ay + ((by - ay) * (x - ax)) / (bx - ax) - y)).toBeLessThan(1e-4)
  })
})

describe('a shape copied through the picture', () => {
  const zone = [
    [0.2, 0.2],
    [0.8, 0.2],
    [0.5, 0.9]
  ] as const
  test('is used when a scene is not calibrated, the shape is above the horizon, or would be invisible', () => {
    for (const [from, to] of [
      [null, low],
      [high, null],
      [high, low]
    ] as const)
      expect(
        copyShape([[0.2, 0.001], ...zone.slice(1)], true, from && { ...from, tilt: 2 }, to)
      ).toMatchObject({ through: 'picture', scale: 1, cut: false })
    const far: P3[] = [
      [-30, 0, 14],
      [-26, 0, 14],
      [-28, 0, 18]
    ]
    const from: CameraPose = { ...high, fieldOfView: 120, tilt: 20 }
    expect(copyShape(openCvSees(from, far), true, from, low)).toMatchObject({ through: 'picture' })
  })
})

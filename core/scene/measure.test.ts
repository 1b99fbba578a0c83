import { describe, expect, test } from '@jest/globals'
import {
  densityBand,
  groundAt,
  heightOf,
  pixelDensity,
  project,
  type CameraPose
} from './camera.ts'
import { leastSquares, solveLinear } from './leastSquares.ts'
import { openCvSees, type P3 } from './testing/openCvSees.ts'
import { heightsSeen, measureFromPeople, measureFromRectangle, type PersonMark } from './measure.ts'

const cameras: CameraPose[] = [
  { height: 4.2, tilt: 13, fieldOfView: 36, aspect: 16 / 9 },
  { height: 3, tilt: 25, fieldOfView: 60, aspect: 4 / 3 },
  { height: 7.5, tilt: 32, fieldOfView: 48, aspect: 16 / 9 },
  { height: 2.6, tilt: 8, fieldOfView: 75, aspect: 16 / 9 }
]
const people: [x: number, z: number, metres: number][] = [
  [-2, 7, 1.8],
  [1.5, 9, 1.65],
  [-1, 13, 1.75],
  [2.5, 18, 1.7],
  [0.5, 11, 1.9]
]

function marksOf(pose: CameraPose, noise: (i: number) => number = () => 0): PersonMark[] {
  const seen = openCvSees(
    pose,
    people.flatMap(([x, z, metres]): P3[] => [
      [x, 0, z],
      [x, metres, z]
    ])
  )
  return people.map(([, , metres], i) => ({
    foot: [seen[2 * i]![0] + noise(4 * i), seen[2 * i]![1] + noise(4 * i + 1)],
    head: [seen[2 * i + 1]![0] + noise(4 * i + 2), seen[2 * i + 1]![1] + noise(4 * i + 3)],
    metres
  }))
}

describe('calibrating from people, on cameras projected by OpenCV', () => {
  test.each(cameras)('recovers the camera from exact marks: %j', (pose) => {
    const { pose: found, error } = measureFromPeople(marksOf(pose), pose.aspect)
    expect(found.height).toBeCloseTo(pose.height, 2)
    expect(found.tilt).toBeCloseTo(pose.tilt, 1)
    expect(found.fieldOfView).toBeCloseTo(pose.fieldOfView, 1)
    expect(error).toBeLessThan(1e-5)
  })

  test.each(cameras)(
    'recovers it from marks a pixel off to within the stated uncertainty: %j',
    (pose) => {
      // Off by up to 1.5 pixels of a picture 1000 high, always the same way (a fixed sequence).
      const noise = (i: number) => Math.sin(i * 12.9898 + 4.1) * 0.0015
      const {
        pose: found,
        error,
        uncertainty
      } = measureFromPeople(marksOf(pose, noise), pose.aspect)
      expect(error).toBeGreaterThan(1e-4)
      expect(error).toBeLessThan(0.004)
      expect(Math.abs(found.height - pose.height)).toBeLessThan(
        Math.max(0.05, 4 * uncertainty.height)
      )
      expect(Math.abs(found.tilt - pose.tilt)).toBeLessThan(Math.max(0.5, 4 * uncertainty.tilt))
      expect(Math.abs(found.fieldOfView - pose.fieldOfView)).toBeLessThan(
        Math.max(1, 4 * uncertainty.fieldOfView)
      )
      // What matters in the end: people are measured to a few centimetres.
      heightsSeen(marksOf(pose, noise), found).forEach((metres, i) =>
        expect(Math.abs(metres! - people[i]![2])).toBeLessThan(0.06)
      )
    }
  )

  test('needs two people when the lens is known', () => {
    const [pose] = cameras as [CameraPose]
    const { pose: found } = measureFromPeople(
      marksOf(pose).slice(0, 2),
      pose.aspect,
      pose.fieldOfView
    )
    expect(found.height).toBeCloseTo(pose.height, 2)
    expect(found.tilt).toBeCloseTo(pose.tilt, 1)
  })

  test('refuses too few, inverted, flat or similar marks, and says what is missing', () => {
    const marks = marksOf(cameras[0]!)
    expect(() => measureFromPeople(marks.slice(0, 2), 16 / 9)).toThrowWords(
      'marks: Mark at least 3 people'
    )
    expect(() =>
      measureFromPeople(
        [{ ...marks[0]!, foot: marks[0]!.head, head: marks[0]!.foot }, ...marks.slice(1)],
        16 / 9
      )
    ).toThrowWords('marks[0]: has its head at or below its foot')
    expect(() =>
      measureFromPeople([...marks.slice(0, 2), { ...marks[2]!, metres: 17 }], 16 / 9)
    ).toThrowWords('marks[2].metres: is 17; must be a height from 0.5 to 2.5 m')
    const same = [0, 1, 2].map((i) => ({
      ...marks[0]!,
      head: [marks[0]!.head[0], marks[0]!.head[1] + 0.003 * i] as const
    }))
    expect(() => measureFromPeople(same, 16 / 9)).toThrowWords(
      /^marks: (are too similar|do not fit)/
    )
  })
})

describe('calibrating from a rectangle on the ground', () => {
  const rectangle = (x: number, z: number, w: number, d: number, turn: number): P3[] =>
    [
      [0, 0],
      [w, 0],
      [w, d],
      [0, d]
    ].map(([a, b]) => [
      x + a! * Math.cos(turn) - b! * Math.sin(turn),
      0,
      z + a! * Math.sin(turn) + b! * Math.cos(turn)
    ])

  test.each(cameras)('recovers the camera from a parking bay: %j', (pose) => {
    const corners = openCvSees(pose, rectangle(-2, 8, 5, 4, 0.35))
    const { pose: found, error } = measureFromRectangle(corners, 5, 4, pose.aspect)
    expect(found.height).toBeCloseTo(pose.height, 2)
    expect(found.tilt).toBeCloseTo(pose.tilt, 1)
    expect(found.fieldOfView).toBeCloseTo(pose.fieldOfView, 1)
    expect(error).toBeLessThan(1e-5)
  })

  test('accepts corners in either order', () => {
    const [pose] = cameras as [CameraPose]
    const corners = openCvSees(pose, rectangle(-2, 8, 5, 4, 0.35)).reverse()
    // Reversed, the first side is the one that was third: again 5 m long.
    expect(measureFromRectangle(corners, 5, 4, pose.aspect).pose.height).toBeCloseTo(pose.height, 2)
  })

  test('refuses unusable corners', () => {
    expect(() =>
      measureFromRectangle(
        [
          [0, 0],
          [1, 1]
        ],
        5,
        4,
        1
      )
    ).toThrowWords('corners: Mark four corners')
    expect(() =>
      measureFromRectangle(
        [
          [0.1, 0.5],
          [0.3, 0.5],
          [0.5, 0.5],
          [0.7, 0.5]
        ],
        5,
        4,
        1
      )
    ).toThrowWords(/^corners: /)
    expect(() =>
      measureFromRectangle(
        [
          [0.1, 0.5],
          [0.3, 0.5],
          [0.3, 0.7],
          [0.1, 0.7]
        ],
        5,
        4,
        1
      )
    ).toThrowWords('corners: do not tell the lens')
    expect(() =>
      measureFromRectangle(
        [
          [0.1, 0.5],
          [0.3, 0.5],
          [0.3, 0.7],
          [0.1, 0.7]
        ],
        0,
        4,
        1
      )
    ).toThrowWords('width: is 0; must be metres above 0')
  })
})

describe('on a calibrated scene', () => {
  const [pose] = cameras as [CameraPose]

  test('recovers ground and height of what OpenCV projects', () => {
    for (const [x, z, metres] of people) {
      const [foot, head] = openCvSees(pose, [
        [x, 0, z],
        [x, metres, z]
      ])
      const [fx, fy, hy] = [foot![0], foot![1], head![1]]
      expect(groundAt(pose, fx, fy)!.x).toBeCloseTo(x, 6)
      expect(groundAt(pose, fx, fy)!.z).toBeCloseTo(z, 6)
      expect(heightOf(pose, { x: fx - 0.01, y: hy, w: 0.02, h: fy - hy })).toBeCloseTo(metres, 6)
    }
    expect(groundAt(pose, 0.5, 0.05)).toBeNull()
  })

  // Bands: IEC 62676-4 (from memory).
  test('pixel density falls with distance through the standard’s bands', () => {
    const at = (z: number) => {
      const { x, y } = project(pose, { x: 0, z })
      return pixelDensity(pose, x, y, 1080)!
    }
    // By hand: focal = 540 / tan 18° = 1662 px; at 10 m, depth = 4.2·sin 13° + 10·cos 13° = 10.69 m: 155.5 px/m.
    expect(at(10)).toBeCloseTo(155.5, 0)
    expect(at(20)).toBeLessThan(at(10))
    expect([300, 250, 249.9, 125, 62.5, 25, 12.5, 12.4].map(densityBand)).toEqual([
      'identify',
      'identify',
      'recognise',
      'recognise',
      'observe',
      'detect',
      'monitor',
      null
    ])
  })
})

describe('least squares', () => {
  test('a straight line with known standard errors (worked by the textbook formulas of linear regression)', () => {
    const xs = [0, 1, 2, 3, 4]
    const ys = [1.1, 2.9, 5.2, 6.8, 9.1]
    const { parameters, errors } = leastSquares(
      ([a, b]) => xs.map((x, i) => a! + b! * x - ys[i]!),
      [0, 0]
    )
    const mean = ys.reduce((s, y) => s + y) / 5
    const slope = xs.reduce((s, x, i) => s + (x - 2) * (ys[i]! - mean), 0) / 10
    const rest = xs.reduce((s, x, i) => s + (mean + slope * (x - 2) - ys[i]!) ** 2, 0) / 3
    expect(parameters[1]).toBeCloseTo(slope, 6)
    expect(parameters[0]).toBeCloseTo(mean - 2 * slope, 6)
    expect(errors[1]).toBeCloseTo(Math.sqrt(rest / 10), 4)
  })

  test('a singular system has no solution', () => {
    expect(
      solveLinear(
        [
          [1, 2],
          [2, 4]
        ],
        [1, 2]
      )
    ).toBeNull()
    expect(
      solveLinear(
        [
          [0, 2],
          [1, 1]
        ],
        [4, 3]
      )
    ).toEqual([1, 2])
  })
})

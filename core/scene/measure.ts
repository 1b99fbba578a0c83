import { said } from '../messages/said.ts'
import { InputError } from '../errors.ts'
import type { Point } from '../geometry/shapes.ts'
import { groundAt, heightOf, project, type CameraPose } from './camera.ts'
import { leastSquares, solveLinear, type Fit } from './leastSquares.ts'

/** An upright person of known height, marked on the picture. */
export interface PersonMark {
  foot: Point
  head: Point
  /** Height in metres. */
  metres: number
  /** Upper and lower middle of a target's box: how high they are is known, but not how the figure leans. */
  fromBox?: boolean
}

export interface Measured {
  pose: CameraPose
  /**
   * Root mean square distance of the marks from where the measured camera would see them, as a
   * share of the picture's height.
   */
  error: number
  /**
   * Standard errors: metres of the camera's height, degrees of tilt and field of view. 0 where the
   * marks leave nothing over to judge by.
   */
  uncertainty: { height: number; tilt: number; fieldOfView: number }
}

const degrees = 180 / Math.PI

const focalOf = (fieldOfView: number): number => 0.5 / Math.tan(fieldOfView / degrees / 2)
const fieldOf = (focal: number): number => 2 * Math.atan(0.5 / focal) * degrees

/** Parameters of a fit: log of the height, tilt in radians, log of the focal length in picture heights. */
const poseOf = (
  [logHeight = 0, tilt = 0, logFocal = 0]: readonly number[],
  aspect: number
): CameraPose => ({
  height: Math.exp(logHeight),
  tilt: tilt * degrees,
  fieldOfView: fieldOf(Math.exp(logFocal)),
  aspect
})

const measuredOf = (fit: Fit, aspect: number, count: number): Measured => {
  const pose = poseOf(fit.parameters, aspect)
  const [height, tilt, focal] = fit.errors as [number, number, number]
  return {
    pose,
    error: Math.sqrt(fit.squares / count),
    uncertainty: {
      height: pose.height * height,
      tilt: tilt * degrees,
      // d(fov)/d(log f) = −sin(fov), from fov = 2·atan(1 / 2f).
      fieldOfView: focal === undefined ? 0 : Math.sin(pose.fieldOfView / degrees) * focal * degrees
    }
  }
}

/** How far from where a camera would see their heads the marks are, in picture heights: two numbers a mark. */
function personResiduals(marks: readonly PersonMark[], pose: CameraPose): number[] {
  return marks.flatMap(({ foot, head, metres, fromBox }) => {
    const ground = groundAt(pose, foot[0], foot[1])
    if (!ground || metres >= pose.height + ground.z * 10) return [10, 10]
    const seen = project(pose, { ...ground, y: metres })
    if (seen.depth <= 0) return [10, 10]
    return [fromBox ? 0 : (seen.x - head[0]) * pose.aspect, seen.y - head[1]]
  })
}

/** Beyond these the marks do not tell: relative error of the height, degrees. */
const MAX_HEIGHT_ERROR = 0.5
const MAX_ANGLE_ERROR = 15

/**
 * Measures a scene from upright people of known height: the camera's height, tilt and field of view, without roll.
 * Method: least squares over the heads' places as seen from the feet's, from the best of a coarse grid of starts.
 *
 * @param fieldOfView degrees, if the lens is known; then two people are enough
 * @throws InputError naming the mark or what is missing
 */
export function measureFromPeople(
  marks: readonly PersonMark[],
  aspect: number,
  fieldOfView?: number
): Measured {
  const least = fieldOfView === undefined ? 3 : 2
  if (marks.length < least)
    throw new InputError('marks', said('scene.areAtLeastPeople', marks.length, least))
  marks.forEach(({ foot, head, metres }, i) => {
    if (!(metres >= 0.5 && metres <= 2.5))
      throw new InputError(`marks[${i}].metres`, said('scene.isMustBeA', metres))
    if (!(head[1] < foot[1] - 0.005))
      throw new InputError(`marks[${i}]`, said('scene.hasItsHeadAtOr'))
  })
  const fixed = fieldOfView === undefined ? null : Math.log(focalOf(fieldOfView))
  const full = (p: readonly number[]): readonly number[] =>
    fixed === null ? p : [p[0]!, p[1]!, fixed]
  const residuals = (p: readonly number[]): number[] =>
    personResiduals(marks, poseOf(full(p), aspect))
  const starts: { p: number[]; squares: number }[] = []
  for (const height of [1.5, 2.2, 3, 4.5, 7, 11, 18])
    for (let tilt = 2; tilt <= 70; tilt += 6)
      for (const field of fixed === null ? [14, 22, 32, 45, 60, 80, 105] : [0]) {
        const p =
          fixed === null
            ? [Math.log(height), tilt / degrees, Math.log(focalOf(field))]
            : [Math.log(height), tilt / degrees]
        starts.push({ p, squares: residuals(p).reduce((sum, v) => sum + v * v, 0) })
      }
  starts.sort((a, b) => a.squares - b.squares)
  const fit = starts
    .slice(0, 8)
    .map(({ p }) => leastSquares(residuals, p))
    .reduce((a, b) => (b.squares < a.squares ? b : a))
  const measured = measuredOf(
    { ...fit, parameters: [...full(fit.parameters)] },
    aspect,
    marks.length
  )
  const { height, tilt, fieldOfView: field } = measured.uncertainty
  if (fit.squares / marks.length > 0.01)
    throw new InputError('marks', said('scene.doNotFitOneCamera'))
  if (
    !(height < MAX_HEIGHT_ERROR * measured.pose.height) ||
    !(tilt < MAX_ANGLE_ERROR) ||
    !(field < Math.min(2 * MAX_ANGLE_ERROR, 0.5 * measured.pose.fieldOfView))
  )
    throw new InputError('marks', said('scene.areTooMuchAlikeTo'))
  return measured
}

/**
 * Measures a scene from a rectangle on the ground whose sides are known.
 * Method: the homography of its corners gives the focal length and the pose in closed form (source: Zhang, *A Flexible
 * New Technique for Camera Calibration*, 3.1, from memory, with square pixels and the centre known); least squares
 * over the corners then take out the roll.
 *
 * @param corners on the picture, in order around; the first side is `width` metres long, the second `depth`
 * @throws InputError when the corners or sides cannot be used
 */
export function measureFromRectangle(
  corners: readonly Point[],
  width: number,
  depth: number,
  aspect: number
): Measured {
  if (corners.length !== 4)
    throw new InputError('corners', said('scene.areMustBe4', corners.length))
  for (const [name, metres] of [
    ['width', width],
    ['depth', depth]
  ] as const)
    if (!(metres > 0 && metres <= 1000))
      throw new InputError(name, said('scene.isMustBeMetres', metres))
  const world: [number, number][] = [
    [0, 0],
    [width, 0],
    [width, depth],
    [0, depth]
  ]
  const seen = corners.map(([x, y]): [number, number] => [(x - 0.5) * aspect, y - 0.5])
  const rows: number[][] = []
  const right: number[] = []
  world.forEach(([X, Y], i) => {
    const [u, v] = seen[i]!
    rows.push([X, Y, 1, 0, 0, 0, -u * X, -u * Y], [0, 0, 0, X, Y, 1, -v * X, -v * Y])
    right.push(u, v)
  })
  const h = solveLinear(rows, right)
  if (!h) throw new InputError('corners', said('scene.lieOnOneStraightLine'))
  const [h1, h2, h3] = [
    [h[0], h[3], h[6]],
    [h[1], h[4], h[7]],
    [h[2], h[5], 1]
  ]
  const [a1, b1] = [2 * (h1[0]! * h2[0]! + h1[1]! * h2[1]!), 2 * h1[2]! * h2[2]!]
  const [a2, b2] = [
    h1[0]! ** 2 + h1[1]! ** 2 - h2[0]! ** 2 - h2[1]! ** 2,
    h1[2]! ** 2 - h2[2]! ** 2
  ]
  // Lengths along the two sides differ in metres; brought to one scale before the two conditions are weighed.
  const inverse = -(a1 * b1 + a2 * b2) / (a1 * a1 + a2 * a2)
  if (!(inverse > 0) || !Number.isFinite(inverse))
    throw new InputError('corners', said('scene.doNotTellTheLens'))
  const focal = 1 / Math.sqrt(inverse)
  const rays = [h1, h2, h3].map((h) => [h[0]! / focal, h[1]! / focal, h[2]!])
  const norm = (a: number[]): number => Math.hypot(...a)
  const scale = (norm(rays[0]!) + norm(rays[1]!)) / 2
  const [r1, r2] = [
    rays[0]!.map((v) => v / norm(rays[0]!)),
    rays[1]!.map((v) => v / norm(rays[1]!))
  ]
  const t = rays[2]!.map((v) => v / scale)
  const r3 = [
    r1[1]! * r2[2]! - r1[2]! * r2[1]!,
    r1[2]! * r2[0]! - r1[0]! * r2[2]!,
    r1[0]! * r2[1]! - r1[1]! * r2[0]!
  ]
  const along = r3[0]! * t[0]! + r3[1]! * t[1]! + r3[2]! * t[2]!
  // The ground's normal points up, towards the camera: C·n = −(r3·t) must be positive with it.
  const up = along < 0 ? 1 : -1
  const height = Math.abs(along)
  const tilt = Math.asin(Math.max(-1, Math.min(1, -up * r3[2]!)))
  const start: CameraPose = { height, tilt: tilt * degrees, fieldOfView: fieldOf(focal), aspect }
  return refineRectangle(corners, width, depth, start)
}

/** Fits height, tilt and lens without roll, and the rectangle's place and turn on the ground, to the corners. */
function refineRectangle(
  corners: readonly Point[],
  width: number,
  depth: number,
  start: CameraPose
): Measured {
  const grounds = corners.map(([x, y], i) => {
    const ground = groundAt(start, x, y)
    if (!ground) throw new InputError(`corners[${i}]`, said('scene.isAtOrAboveThe'))
    return ground
  })
  const turn = Math.atan2(grounds[1]!.z - grounds[0]!.z, grounds[1]!.x - grounds[0]!.x)
  const handed =
    Math.sign(
      (grounds[1]!.x - grounds[0]!.x) * (grounds[2]!.z - grounds[1]!.z) -
        (grounds[1]!.z - grounds[0]!.z) * (grounds[2]!.x - grounds[1]!.x)
    ) || 1
  const residuals = (p: readonly number[]): number[] => {
    const pose = poseOf(p, start.aspect)
    const [x0, z0, angle] = p.slice(3) as [number, number, number]
    return [
      [0, 0],
      [width, 0],
      [width, depth],
      [0, depth]
    ].flatMap(([X = 0, Y = 0], i) => {
      const [c, s] = [Math.cos(angle), Math.sin(angle)]
      const seen = project(pose, { x: x0 + X * c - handed * Y * s, z: z0 + X * s + handed * Y * c })
      if (seen.depth <= 0.01) return [10, 10]
      return [(seen.x - corners[i]![0]) * pose.aspect, seen.y - corners[i]![1]]
    })
  }
  const fit = leastSquares(residuals, [
    Math.log(start.height),
    start.tilt / degrees,
    Math.log(focalOf(start.fieldOfView)),
    grounds[0]!.x,
    grounds[0]!.z,
    turn
  ])
  return measuredOf(fit, start.aspect, 4)
}

/** The real heights, in metres, of the marked people as a measured camera sees them; for judging a fit mark by mark. */
export const heightsSeen = (marks: readonly PersonMark[], pose: CameraPose): (number | null)[] =>
  marks.map(({ foot, head }) =>
    heightOf(pose, { x: foot[0], y: head[1], w: 0, h: foot[1] - head[1] })
  )

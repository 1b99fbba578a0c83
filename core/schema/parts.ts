import * as v from 'valibot'
import { selfCrossing, signedArea, type Point } from '../geometry/shapes.ts'

/** Parts that many schemas share. */

export const bool = v.boolean('must be true or false')

export const number = (min: number, max: number, unit = '') => {
  const right = `must be a number from ${min} to ${max}${unit}`
  return v.pipe(v.number(right), v.finite(right), v.minValue(min, right), v.maxValue(max, right))
}

export const text = (most: number) => {
  const right = `must be a text of 1 to ${most} characters`
  return v.pipe(
    v.string(right),
    v.trim(),
    v.minLength(1, right),
    v.maxLength(
      most,
      (issue) => `is ${issue.input.length} characters long; at most ${most} are allowed`
    )
  )
}

export const NAME_MOST = 80
export const name = text(NAME_MOST)
export const id = v.pipe(
  v.string('must be a text'),
  v.regex(/^[A-Za-z0-9_-]{1,64}$/, 'must be 1 to 64 letters, digits, - or _')
)

const coordinate = number(0, 1, ' (a share of the picture)')
const pointRight = 'must be a point [x, y]'
export const PointSchema = v.pipe(v.strictTuple([coordinate, coordinate], pointRight), v.readonly())

const samePoint = (a: Point, b: Point): boolean => a[0] === b[0] && a[1] === b[1]
const repeats = (points: readonly Point[]): number =>
  points.findIndex((p, i) => i > 0 && samePoint(p, points[i - 1]!))

const lineRight = 'must be a list of 2 to 10 vertices'
export const LineSchema = v.pipe(
  v.array(PointSchema, lineRight),
  v.minLength(
    2,
    (issue) =>
      `has ${issue.input.length} ${issue.input.length === 1 ? 'vertex' : 'vertices'}; a line needs 2 to 10`
  ),
  v.maxLength(10, (issue) => `has ${issue.input.length} vertices; a line may have 2 to 10`),
  v.check(
    (points) => repeats(points) < 0,
    (issue) =>
      `has no length between vertices ${repeats(issue.input)} and ${repeats(issue.input) + 1}; they must be at different places`
  )
)

const zoneRight = 'must be a list of at least 3 vertices'
export const ZoneSchema = v.pipe(
  v.array(PointSchema, zoneRight),
  v.minLength(3, (issue) => `has ${issue.input.length} vertices; a zone needs at least 3`),
  v.maxLength(40, (issue) => `has ${issue.input.length} vertices; a zone may have at most 40`),
  v.check(
    (points) => selfCrossing(points) === null,
    (issue) => {
      const [a, b] = selfCrossing(issue.input) ?? [0, 0]
      return `crosses itself (edge ${a + 1} meets edge ${b + 1}); its outline must not touch itself`
    }
  ),
  v.check(
    (points) => Math.abs(signedArea(points)) > 1e-9,
    'has no area; its vertices must not lie on one straight line'
  )
)

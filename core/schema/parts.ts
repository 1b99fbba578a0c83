import { coded, said, type Said } from '../messages/said.ts'
import * as v from 'valibot'
import { selfCrossing, signedArea, type Point } from '../geometry/shapes.ts'

/** Parts that many schemas share. */

export const bool = v.boolean(coded('input.mustBeTrueOrFalse'))

export const number = (min: number, max: number, unit: string | Said = '') => {
  const right = coded('input.mustBeANumberFrom', min, max, unit)
  return v.pipe(v.number(right), v.finite(right), v.minValue(min, right), v.maxValue(max, right))
}

/** The length of a text, which is refused above so many characters and never cut. */
export const noLongerThan = (most: number) =>
  v.maxLength<string, number, string>(most, coded('input.isLongerThanCharacters', most))

/** One of these words. */
export const oneOf = <const T extends readonly string[]>(words: T) =>
  v.picklist(words, coded('input.mustBeOneOf', words.join(', ')))

/** A text that has something in it beside blanks, which are taken off its ends. @param right what to say of no text */
export const filled = (most: number, right = coded('input.mustBeAText')) =>
  v.pipe(
    v.string(right),
    v.trim(),
    v.minLength(1, coded('input.mustNotBeEmpty')),
    noLongerThan(most)
  )

export const text = (most: number) => {
  const right = coded('input.mustBeATextOf', most)
  return v.pipe(
    v.string(right),
    v.trim(),
    v.minLength(1, right),
    v.maxLength(most, (issue) => coded('input.isCharactersLongAtMost', issue.input.length, most))
  )
}

export const NAME_MOST = 80
export const name = text(NAME_MOST)
export const id = v.pipe(
  v.string(coded('input.mustBeAText')),
  v.regex(/^[A-Za-z0-9_-]{1,64}$/, coded('input.mustBe1To64'))
)

const coordinate = number(0, 1, said('input.shareOfThePicture'))
const pointRight = coded('input.mustBeAPointX')
export const PointSchema = v.pipe(v.strictTuple([coordinate, coordinate], pointRight), v.readonly())

const samePoint = (a: Point, b: Point): boolean => a[0] === b[0] && a[1] === b[1]
const repeats = (points: readonly Point[]): number =>
  points.findIndex((p, i) => i > 0 && samePoint(p, points[i - 1]!))

const lineRight = coded('input.mustBeAListOf')
export const LineSchema = v.pipe(
  v.array(PointSchema, lineRight),
  v.minLength(2, (issue) => coded('input.hasVertexVerticesA', issue.input.length)),
  v.maxLength(10, (issue) => coded('input.hasVerticesALineMay', issue.input.length)),
  v.check(
    (points) => repeats(points) < 0,
    (issue) =>
      coded('input.hasNoLengthBetweenVertices', repeats(issue.input), repeats(issue.input) + 1)
  )
)

const zoneRight = coded('input.mustBeAListOf2')
export const ZoneSchema = v.pipe(
  v.array(PointSchema, zoneRight),
  v.minLength(3, (issue) => coded('input.hasVerticesAZoneNeeds', issue.input.length)),
  v.maxLength(40, (issue) => coded('input.hasVerticesAZoneMay', issue.input.length)),
  v.check(
    (points) => selfCrossing(points) === null,
    (issue) => {
      const [a, b] = selfCrossing(issue.input) ?? [0, 0]
      return coded('input.crossesItselfEdgeMeetsEdge', a + 1, b + 1)
    }
  ),
  v.check((points) => Math.abs(signedArea(points)) > 1e-9, coded('input.hasNoAreaItsVertices'))
)

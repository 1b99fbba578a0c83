import { coded } from '../messages/said.ts'
import * as v from 'valibot'
import { measureFromPeople, measureFromRectangle, type Measured } from './measure.ts'
import { PointSchema, bool, number } from '../schema/parts.ts'

/** What a scene is measured from: upright people of known height, or a rectangle on the ground. */

const aspect = number(0.1, 10)

export const PeopleMarksSchema = v.strictObject({
  from: v.literal('people'),
  aspect,
  /** Degrees, vertical, where the lens is known. */
  fieldOfView: v.optional(number(1, 170, '°')),
  people: v.pipe(
    v.array(
      v.strictObject({
        foot: PointSchema,
        head: PointSchema,
        metres: number(0.5, 2.5, ' m'),
        fromBox: v.optional(bool)
      }),
      coded('input.mustBeAListOf10')
    ),
    v.maxLength(50, coded('scene.hasMoreThan50People'))
  )
})

export const RectangleMarksSchema = v.strictObject({
  from: v.literal('rectangle'),
  aspect,
  corners: v.pipe(
    v.array(PointSchema, coded('scene.mustBeFourCorners')),
    v.length(4, coded('scene.mustBeFourCornersIn'))
  ),
  /** Metres of the side from the first corner to the second, and from the second to the third. */
  width: number(0.1, 1000, ' m'),
  depth: number(0.1, 1000, ' m')
})

export const SceneMarksSchema = v.variant(
  'from',
  [PeopleMarksSchema, RectangleMarksSchema],
  coded('scene.mustBePeopleOrRectangle')
)

export type SceneMarks = v.InferOutput<typeof SceneMarksSchema>

/**
 * The camera that the marks tell of. The same marks always give the same camera, so the marks alone are kept.
 *
 * @throws InputError naming the mark, or what is missing
 */
export const measureScene = (marks: SceneMarks): Measured =>
  marks.from === 'people'
    ? measureFromPeople(marks.people, marks.aspect, marks.fieldOfView)
    : measureFromRectangle(marks.corners, marks.width, marks.depth, marks.aspect)

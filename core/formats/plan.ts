import { coded, said } from '../messages/said.ts'
import * as v from 'valibot'
import { InputError } from '../errors.ts'
import { DetectionSchema, isInMetres } from '../kinds/schemas.ts'
import { parseJson } from './lines.ts'
import { parseWith } from '../schema/parse.ts'
import { ZoneSchema, id, name, number } from '../schema/parts.ts'
import { isSpanEnd, sameDayOrder } from './spanEnd.ts'

export * from '../kinds/parts.ts'
export * from '../kinds/schemas.ts'

/**
 * The plan (`wardoptic-plan/1`, docs/detections.md): one schema per thing, the schema is the type. What is
 * left out gets its default; what is unknown or out of range is refused with its path.
 */

const spanEnd = v.pipe(
  v.string(coded('formats.mustBeATimeSuch')),
  v.check(isSpanEnd, (issue) => coded('formats.isMustBe', String(issue.input).slice(0, 20)))
)
const span = v.pipe(
  v.strictTuple([spanEnd, spanEnd], coded('formats.mustBeASpan1830')),
  v.check(
    ([from, to]) => sameDayOrder(from, to),
    (issue) => coded('formats.runsFromToIts', issue.input[0], issue.input[1])
  ),
  v.readonly()
)
const spans = v.pipe(
  v.array(span, coded('formats.mustBeAListOf')),
  v.maxLength(48, coded('formats.hasMoreThan48Spans'))
)

export const WEEKDAYS = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'] as const

const isDate = (text: string): boolean => {
  const m = /^(\d{4})-(\d\d)-(\d\d)$/.exec(text)
  if (!m) return false
  const date = new Date(Date.UTC(+m[1]!, +m[2]! - 1, +m[3]!))
  return date.toISOString().slice(0, 10) === text
}

export const ScheduleSchema = v.strictObject({
  id,
  name,
  week: v.strictObject({
    mon: v.optional(spans, []),
    tue: v.optional(spans, []),
    wed: v.optional(spans, []),
    thu: v.optional(spans, []),
    fri: v.optional(spans, []),
    sat: v.optional(spans, []),
    sun: v.optional(spans, [])
  }),
  exceptions: v.optional(
    v.array(
      v.strictObject({
        date: v.pipe(v.string(), v.check(isDate, coded('formats.mustBeADateSuch'))),
        /** Such as of a holiday. */ name: v.optional(name),
        spans
      })
    ),
    []
  )
})

export const TimeZoneSchema = v.pipe(
  v.string(coded('formats.mustBeATimeZone')),
  v.check((zone) => {
    try {
      new Intl.DateTimeFormat('en', { timeZone: zone })
      return true
    } catch {
      return false
    }
  }, coded('formats.mustBeATimeZone'))
)

export const PositionSchema = v.strictObject({
  latitude: number(-90, 90, '°'),
  longitude: number(-180, 180, '°')
})

/** A calibrated scene: how the camera hangs and looks (core/scene/camera.ts). */
export const SceneSchema = v.strictObject({
  height: number(0.1, 200, ' m'),
  tilt: number(-30, 90, '°'),
  fieldOfView: number(1, 170, '°'),
  aspect: number(0.1, 10)
})

export const CameraSchema = v.strictObject({
  id,
  name,
  scene: v.optional(SceneSchema),
  ignore: v.optional(v.array(ZoneSchema, coded('input.mustBeAListOf22')), []),
  detections: v.optional(v.array(DetectionSchema, coded('formats.mustBeAListOf3')), [])
})

export const PlanSchema = v.strictObject({
  format: v.literal('wardoptic-plan/1', coded('formats.mustBeWardopticPlan1')),
  timeZone: TimeZoneSchema,
  position: v.optional(PositionSchema),
  schedules: v.optional(v.array(ScheduleSchema, coded('formats.mustBeAListOf4')), []),
  cameras: v.array(CameraSchema, coded('formats.mustBeAListOf5'))
})

export type Plan = v.InferOutput<typeof PlanSchema>
export type Camera = v.InferOutput<typeof CameraSchema>
export type Schedule = v.InferOutput<typeof ScheduleSchema>
export type Weekday = (typeof WEEKDAYS)[number]
export type Span = v.InferOutput<typeof span>
export type SitePosition = NonNullable<Plan['position']>

/** Whether any end of a schedule's spans follows the sun; the site's position must be known then. */
export const isTiedToSun = ({ week, exceptions }: Schedule): boolean =>
  [...Object.values(week), ...exceptions.map((e) => e.spans)]
    .flat(2)
    .some((end) => end.startsWith('sun'))

/** The first thing whose id stands twice in a list, or -1. */
const twice = (list: readonly { id: string }[]): number =>
  list.findIndex((x, i) => list.findIndex((y) => y.id === x.id) < i)

/**
 * Reads a plan from JSON text: the schema, and what holds between its parts (ids are unique, schedules exist,
 * sun-tied ends need the site's position).
 *
 * @throws InputError with the JSON path of the first fault
 */
export function readPlan(json: string): Plan {
  const plan = parseWith(PlanSchema, parseJson(json, '$'))
  const unique = (list: readonly { id: string }[], path: string): void => {
    const at = twice(list)
    if (at >= 0)
      throw new InputError(`${path}[${at}].id`, said('formats.isUsedTwice', list[at]!.id))
  }
  unique(plan.schedules, '$.schedules')
  unique(plan.cameras, '$.cameras')
  plan.cameras.forEach((camera, c) => {
    unique(camera.detections, `$.cameras[${c}].detections`)
    camera.detections.forEach((detection, d) => {
      if (detection.schedule && !plan.schedules.some((s) => s.id === detection.schedule))
        throw new InputError(
          `$.cameras[${c}].detections[${d}].schedule`,
          said('formats.namesAndThe', detection.schedule)
        )
      if (!camera.scene && isInMetres(detection))
        throw new InputError(
          `$.cameras[${c}].detections[${d}].size`,
          said('formats.isInMetresAndThe')
        )
    })
  })
  if (!plan.position && plan.schedules.some(isTiedToSun))
    throw new InputError('$.position', said('formats.isMissingSpansTiedTo'))
  return plan
}

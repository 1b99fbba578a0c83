import * as v from 'valibot'
import { DetectionSchema, ScheduleSchema } from '../formats/plan.ts'
import type { Recommendation } from '../tuning/recommend/recommend.ts'
import { coded } from '../messages/said.ts'
import { ZoneSchema, id, number, oneOf } from '../schema/parts.ts'
import { SCALE_NAMES } from '../tuning/scales.ts'
import type { Swept } from '../tuning/sweep.ts'
import { MARKS, MARK_REASONS, type MarkKind, type MarkReason } from './marks.ts'

const instant = v.pipe(
  number(0, Number.MAX_SAFE_INTEGER),
  v.integer(coded('input.mustBeAWholeNumber'))
)
const said = {
  mark: oneOf(MARKS),
  reason: v.optional(v.nullable(oneOf(MARK_REASONS)), null)
}

/** What is said of an alarm: of each of its triggers. */
export const MarkAlarmSchema = v.strictObject(said)

/** What is said of a target at a moment. */
export const NewMarkSchema = v.strictObject({
  ...said,
  detection: id,
  /** The clip in which it is; null: it is of the live camera. */
  clip: v.optional(v.nullable(id), null),
  target: v.nullable(v.pipe(number(0, 2 ** 31 - 1), v.integer(coded('input.mustBeAWholeNumber')))),
  /** Of a clip: ms from its start. Else ms of UTC. */
  at: instant
})

export interface MarkView {
  id: number
  detection: string
  clip: string | null
  target: number | null
  at: number
  mark: MarkKind
  reason: MarkReason | null
  by: string
  madeAt: number
}

/** A detection as it is drawn, with what it needs of its plan. */
const drawn = {
  schedules: v.array(ScheduleSchema),
  ignore: v.array(ZoneSchema),
  from: instant,
  to: instant
}
export const CountSchema = v.strictObject({ ...drawn, detections: v.array(DetectionSchema) })
export const SweepSchema = v.strictObject({
  ...drawn,
  detection: DetectionSchema,
  setting: oneOf(SCALE_NAMES)
})
export const RecommendSchema = v.strictObject({ ...drawn, detection: DetectionSchema })

/** How often each detection would have triggered. */
export interface CountView {
  /** How long the camera was listened to, ms. */
  heardMs: number
  counted: { detection: string; count: number; hours: number[][] }[]
}
export interface SweepView {
  heardMs: number
  swept: Swept[]
}
export type RecommendView = Recommendation

/** How many nuisances a detection has had. */
export interface NuisanceView {
  camera: string
  cameraName: string
  detection: string
  name: string
  nuisances: number
  wanted: number
}
export interface NuisancesView {
  days: number
  detections: NuisanceView[]
}

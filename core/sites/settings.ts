import * as v from 'valibot'
import { PositionSchema, TimeZoneSchema } from '../formats/plan.ts'
import { coded } from '../messages/said.ts'
import { filled, number, oneOf } from '../schema/parts.ts'
import { SURROUNDINGS } from './surroundings.ts'

/** What a site is called, and where it is. */
export const SiteSettingsSchema = v.strictObject({
  name: filled(80),
  timeZone: TimeZoneSchema,
  /** For sunrise and sunset; null: not known. */
  position: v.nullable(PositionSchema),
  /** Of cameras that have none of their own. */
  surroundings: oneOf(SURROUNDINGS)
})
export type SiteSettings = v.InferOutput<typeof SiteSettingsSchema>

export const MAX_CAMERAS = 2000

export const CameraSettingsSchema = v.strictObject({
  name: filled(80),
  /** Among the cameras of the site, from 0. */
  order: v.pipe(number(0, MAX_CAMERAS), v.integer(coded('input.mustBeAWholeNumber'))),
  /** Null: as the site. */
  surroundings: v.nullable(oneOf(SURROUNDINGS))
})
export type CameraSettings = v.InferOutput<typeof CameraSettingsSchema>

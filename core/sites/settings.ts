import * as v from 'valibot'
import { PositionSchema, TimeZoneSchema } from '../formats/plan.ts'
import { coded } from '../messages/said.ts'
import { filled, number, oneOf } from '../schema/parts.ts'

/** Where a camera looks: under the sky, in a room, or outside under a roof. */
export const SURROUNDINGS = ['outdoors', 'indoors', 'roofed'] as const
export type Surroundings = (typeof SURROUNDINGS)[number]

/** A device's switch for that: what it can be set to, and is set to (null: to what nobody here knows). */
export interface SurroundingsSwitch {
  offered: Surroundings[]
  held: Surroundings | null
}

/** What a switch should be set to; null: it has nothing that fits. Under a roof is outdoors where only that is offered. */
export function surroundingsFor(
  { offered }: Pick<SurroundingsSwitch, 'offered'>,
  camera: Surroundings
): Surroundings | null {
  const nearest = camera === 'roofed' ? 'outdoors' : camera
  return offered.find((s) => s === camera) ?? offered.find((s) => s === nearest) ?? null
}

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

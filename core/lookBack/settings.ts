import * as v from 'valibot'
import { coded } from '../messages/said.ts'
import { id } from '../schema/parts.ts'

/** What a site keeps of what its cameras report, and for how long. */
export const LookBackSettingsSchema = v.strictObject({
  days: v.pipe(
    v.number(coded('server.mustBeAWholeNumber')),
    v.integer(coded('server.mustBeAWholeNumber')),
    v.minValue(1, coded('server.mustBeAWholeNumber')),
    v.maxValue(3650, coded('server.mustBeAWholeNumber'))
  ),
  gigabytes: v.pipe(
    v.number(coded('input.mustBeANumber')),
    v.minValue(0.1, coded('server.mustBeAtLeast01')),
    v.maxValue(10_000, coded('input.mustBeAtMost10000'))
  ),
  /** Cameras of which nothing is kept. */
  without: v.array(id)
})
export type LookBackSettings = v.InferOutput<typeof LookBackSettingsSchema>

export const DEFAULT_LOOK_BACK: LookBackSettings = { days: 14, gigabytes: 5, without: [] }

export const SaveLookBackSchema = v.strictObject({
  version: v.pipe(
    v.number(coded('input.mustBeANumber')),
    v.integer(coded('input.mustBeAWholeNumber')),
    v.minValue(0, coded('input.mustBe0OrMore'))
  ),
  lookBack: LookBackSettingsSchema
})

export interface LookBackSettingsView {
  lookBack: LookBackSettings
  version: number
  changedAt: number
  /** What is there now, of all cameras of the site. */
  bytes: number
  /** The first instant of which anything is there; null: nothing is. */
  since: number | null
}

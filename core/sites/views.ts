import * as v from 'valibot'
import type { Role } from '../accounts/accounts.ts'
import { filled } from '../schema/parts.ts'

/** The sites of an installation. */

export interface SiteSummary {
  id: string
  name: string
  timeZone: string
  /** How many it has. */
  cameras: number
  /** Alarms that nobody has acknowledged. */
  newAlarms: number
  /** Its name and place have been set. */
  isSetUp: boolean
  /** The role of whoever asks. */
  role: Role
}

/** A new site. `from`: the id of one whose schedules, default actions and messages it begins with. */
export const NewSiteSchema = v.strictObject({
  name: filled(80),
  from: v.optional(v.nullable(filled(64)), null)
})
export type NewSite = v.InferOutput<typeof NewSiteSchema>

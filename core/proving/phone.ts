import { noLongerThan } from '../schema/parts.ts'
import { coded, type Said } from '../messages/said.ts'
import * as v from 'valibot'
import type { Check } from '../formats/check.ts'
import type { Detection } from '../formats/plan.ts'

/** A walk test that an installer opens on a phone: what the server says to the desk and to the phone about it. */

/** From when its code is shown to the end of what it lets in, ms. */
export const PHONE_LINK_MS = 60 * 60_000

/** A link that has been made: its token is told once. */
export interface NewPhoneLink {
  id: number
  token: string
  /** Instant, ms of UTC. */
  expiresAt: number
}

/** A link that has not ended. Instants are milliseconds of UTC. */
export interface PhoneLinkView {
  id: number
  /** Of the check that is walked. */
  name: Said | string
  /** Who made it. */
  by: string
  createdAt: number
  expiresAt: number
  /** When and where it was opened; null: its code has not been used. */
  opened: { at: number; address: string; agent: string } | null
}

export interface PhoneLinksView {
  links: PhoneLinkView[]
  /** Where the server is reached from other machines, such as `https://192.168.1.5:4600`; none: it is not. */
  origins: string[]
}

export const OpenPhoneSchema = v.strictObject({
  token: v.pipe(v.string(coded('input.mustBeAText')), noLongerThan(100))
})

/** All that the phone is shown of the site. */
export interface PhoneView {
  site: { name: string; timeZone: string }
  camera: { id: string; name: string }
  detection: Detection
  /** Whether the device does not hold it. */
  unheld: boolean
  check: Check
  /** Who made the link. */
  by: string
  /** When it ends, ms of UTC. */
  expiresAt: number
}

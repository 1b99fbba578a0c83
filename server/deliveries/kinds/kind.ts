import { said, type Said } from '../../../core/messages/said.ts'
import type { Endpoint, People } from '../../../core/formats/actions.ts'
import { happening } from '../../../core/actions/email.ts'
import type { Clips } from '../../clips/service.ts'
import type { Database } from '../../database.ts'
import type { Devices } from '../../devices/service.ts'
import type { SiteAlone } from '../../sites/queries.ts'
import type { Encryption } from '../../devices/encryption.ts'
import type { Reach } from '../../reach.ts'
import type { Mailer } from '../mail.ts'
import type { Pictures } from '../pictures.ts'
import type { Popups } from '../popups.ts'
import type { DueDelivery } from '../queries.ts'

/** What deliveries are made with. */
export interface SenderParts {
  database: Database
  devices: Devices
  clips: Clips
  pictures: Pictures
  popups: Popups
  mailer: Mailer
  encryption: Encryption
  reach: Reach
  /** Where pictures and recordings are kept. */
  folder: string
}

/** What a delivery came to: what its history says of it, and what it left. */
export interface Done {
  outcome: Said | string
  result?: object
}

/** How often something is tried, and how long until it is tried again. */
export interface Patience {
  attempts: number
  firstMs: number
  longestMs: number
}

/** A light that flashes half an hour late helps nobody; a late message still does. */
export const short: Patience = { attempts: 4, firstMs: 2000, longestMs: 15_000 }
export const long: Patience = { attempts: 12, firstMs: 2000, longestMs: 10 * 60_000 }

/** What naming a recipient needs. */
export interface Naming {
  /** The detection's own camera. */
  camera: string
  people: People
  /** A device or a camera by its id, as people know it. */
  named: (id: string) => string
}

/** How endpoints of a kind are delivered. */
export interface DeliveryKind<E extends Endpoint> {
  /** Ends with a confirmation. @throws Failure with what was wrong; Refused when it is of no use to try again */
  send: (parts: SenderParts, due: DueDelivery, endpoint: E) => Promise<Done>
  /** Tests it as it is set up. @returns what was confirmed @throws Error */
  test: (parts: SenderParts, endpoint: E, site: SiteAlone) => Promise<Said | string>
  /** Where it goes, as people read it. */
  recipient: (endpoint: E, naming: Naming) => string
  patience: Patience
  /**
   * How many of one endpoint are made at the same time. What is switched is switched in order, one after the other; of
   * messages each stands for itself, and one that waits for an answer must not keep the next one waiting.
   */
  atOnce: number
}

/** What has happened. */
export const happeningOf = ({ trigger, camera }: DueDelivery): Said =>
  trigger
    ? said('happenings.at', camera.name, happening(trigger.detection, trigger))
    : said('edits.text', camera.name)

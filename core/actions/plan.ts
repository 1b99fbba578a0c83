import { said, type Said } from '../messages/said.ts'
import { ArmedHours } from '../arming/armedHours.ts'
import {
  missingOf,
  type Actions,
  type Endpoint,
  type Mail,
  type People
} from '../formats/actions.ts'
import { type Schedule, type SitePosition } from '../formats/plan.ts'
import { SEVERITIES, type Severity } from '../kinds/parts.ts'

/** The actions of a site, and what is known of them. */
export interface SiteActions {
  endpoints: readonly Endpoint[]
  hours: EndpointHours
  people: People
  mail: Mail | null
  /** Outputs that devices have, as `device token`. */
  outputs: ReadonlySet<string>
}

/** Whether an endpoint may act at an instant; keeps the hours of schedules that were asked for. */
export class EndpointHours {
  private readonly known = new Map<string, ArmedHours>()

  constructor(
    schedules: readonly Schedule[],
    timeZone: string,
    position: SitePosition | undefined
  ) {
    for (const schedule of schedules)
      this.known.set(schedule.id, new ArmedHours(schedule, timeZone, position))
  }

  /** @param schedule left out: always; one that is not there allows nothing */
  allow(schedule: string | undefined, instant: number): boolean {
    if (schedule === undefined) return true
    return this.known.get(schedule)?.intervalAt(instant) != null
  }
}

/** A trigger, as far as its actions go. */
export interface Occasion {
  /** When it fell, milliseconds of UTC. */
  instant: number
  /** The trigger's own (tamper), or else the detection's. */
  severity: Severity
  /** When the detection last ran its actions; null: never. */
  lastActedAt: number | null
  /** Endpoints that the camera runs itself: outputs of its own, with this detection linked on the device. */
  byCamera: ReadonlySet<string>
  /** Endpoints that are not to act this time, by id. */
  withheld?: ReadonlySet<string>
}

export interface PlannedDelivery {
  /** As it is set now: a later edit must not change the actions of this trigger. */
  endpoint: Endpoint
  by: 'server' | 'camera'
  /** Milliseconds after the trigger before it can be made: pictures after it have to exist. */
  waitMs: number
  /** Why it is not made; null: it is. */
  held: Said | null
}

/** Why a severity is too low for an action that accepts higher ones only; null: it is not. */
export const severityBelow = (endpoint: Endpoint, severity: Severity): Said | null =>
  'accepts' in endpoint && SEVERITIES.indexOf(severity) < SEVERITIES.indexOf(endpoint.accepts)
    ? said(
        'actions.severityTooLow',
        said(`severities.${severity}`),
        said(`severities.${endpoint.accepts}`)
      )
    : null

function heldBack(
  endpoint: Endpoint,
  { instant, severity, withheld }: Occasion,
  site: SiteActions
): Said | null {
  if (withheld?.has(endpoint.id)) return said('actions.withheld')
  const missing = missingOf(endpoint, site)
  if (missing) return missing
  if (!site.hours.allow(endpoint.schedule, instant)) return said('actions.outsideSchedule')
  return severityBelow(endpoint, severity)
}

/**
 * What follows from a trigger: one delivery for each link, also for those that are held back, so that it can be seen
 * why nothing came. During the pause after earlier actions none run: an empty list.
 */
export function planDeliveries(
  occasion: Occasion,
  { links, quietSeconds }: Actions,
  site: SiteActions
): PlannedDelivery[] {
  const { instant, lastActedAt, byCamera } = occasion
  if (lastActedAt !== null && instant >= lastActedAt && instant - lastActedAt < quietSeconds * 1000)
    return []
  return links.flatMap((link): PlannedDelivery[] => {
    const endpoint = site.endpoints.find((e) => e.id === link)
    if (!endpoint) return []
    return [
      {
        endpoint,
        by: byCamera.has(endpoint.id) ? 'camera' : 'server',
        waitMs: waitOf(endpoint),
        held: heldBack(endpoint, occasion, site)
      }
    ]
  })
}

const waitOf = (endpoint: Endpoint): number =>
  'after' in endpoint ? endpoint.after * endpoint.stepSeconds * 1000 : 0

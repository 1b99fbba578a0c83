import { isOutput } from '../../core/formats/actions.ts'
import { EndpointHours, type SiteActions } from '../../core/actions/plan.ts'
import { readEndpoints, readSettings } from '../actions/queries.ts'
import type { ArmInputs } from '../../core/arming/armInputs.ts'
import type { Sql } from '../database.ts'
import type { Devices } from '../devices/service.ts'
import { outputsOf } from '../devices/queries.ts'
import { namesOf, readSchedules, readSiteAlone, type SiteAlone } from '../sites/queries.ts'
import type { Schedule } from '../../core/formats/plan.ts'

/** What deciding the actions of a trigger needs to know of a site, as it is now. */
export interface ActionsContext {
  site: SiteAlone
  schedules: Schedule[]
  actions: SiteActions
  /** Of cameras and devices, by id. */
  names: ReadonlyMap<string, string>
}

/** Hours are worked out once for the same schedules; by site. */
const known = new Map<string, { key: string; hours: EndpointHours }>()

export async function readContext(sql: Sql, siteId: string): Promise<ActionsContext> {
  const site = await readSiteAlone(sql, siteId)
  const [endpoints, schedules, settings, names] = [
    await readEndpoints(sql, site.id),
    await readSchedules(sql, site.id),
    await readSettings(sql, site.id),
    await namesOf(sql, site.id)
  ]
  const kept = endpoints.map((e) => e.endpoint)
  const key = JSON.stringify([
    site.id,
    site.timeZone,
    site.position,
    schedules.map(({ schedule, version, changedAt }) => [schedule.id, version, changedAt])
  ])
  let hours = known.get(site.id)
  if (hours?.key !== key) {
    hours = {
      key,
      hours: new EndpointHours(
        schedules.map((s) => s.schedule),
        site.timeZone,
        site.position ?? undefined
      )
    }
    known.set(site.id, hours)
  }
  return {
    site,
    schedules: schedules.map((s) => s.schedule),
    actions: {
      endpoints: kept,
      hours: hours.hours,
      people: settings.people.people,
      mail: settings.mail.mail,
      outputs: new Set(
        (await outputsOf(sql, new Set(kept.filter(isOutput).map((e) => e.device)))).map(
          ({ device, token }) => `${device} ${token}`
        )
      )
    },
    names
  }
}

/** What the site's contacts are now, as they were heard last. */
export const inputsNow = ({ inputs }: SiteAlone, devices: Devices): ArmInputs =>
  Object.fromEntries(
    inputs.map(({ id, device, token }) => {
      const set = device && token ? devices.subscriptions.contact(device, token) : null
      return [id, set === null ? [] : [{ at: 0, set }]]
    })
  )

import { EndpointHours, type SiteActions } from '../../core/actions/plan.ts'
import { readEndpoints, readSettings } from '../actions/queries.ts'
import type { ArmInputs } from '../../core/arming/armInputs.ts'
import type { Sql } from '../database.ts'
import type { Devices } from '../devices/service.ts'
import { listDevices } from '../devices/queries.ts'
import { readSchedules, readSite } from '../sites/queries.ts'
import type { SiteView } from '../../core/api.ts'
import type { Schedule } from '../../core/formats/plan.ts'

/** What deciding the actions of a trigger needs to know of a site, as it is now. */
export interface ActionsContext {
  site: SiteView
  schedules: Schedule[]
  actions: SiteActions
  /** Of cameras and devices, by id. */
  names: ReadonlyMap<string, string>
}

/** Hours are worked out once for the same schedules; by site. */
const known = new Map<string, { key: string; hours: EndpointHours }>()

export async function readContext(sql: Sql, siteId: string): Promise<ActionsContext> {
  const site = await readSite(sql, siteId)
  const [endpoints, schedules, settings, devices] = [
    await readEndpoints(sql, site.id),
    await readSchedules(sql, site.id),
    await readSettings(sql, site.id),
    await listDevices(sql, site.id)
  ]
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
      endpoints: endpoints.map((e) => e.endpoint),
      hours: hours.hours,
      people: settings.people.people,
      mail: settings.mail.mail,
      outputs: new Set(devices.flatMap((d) => d.outputs.map(({ token }) => `${d.id} ${token}`)))
    },
    names: new Map([...site.cameras, ...devices].map(({ id, name }) => [id, name]))
  }
}

/** What the site's contacts are now, as they were heard last. */
export const inputsNow = ({ inputs }: SiteView, devices: Devices): ArmInputs =>
  Object.fromEntries(
    inputs.map(({ id, device, token }) => {
      const set = device && token ? devices.subscriptions.contact(device, token) : null
      return [id, set === null ? [] : [{ at: 0, set }]]
    })
  )

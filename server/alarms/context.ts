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

/** Of each site what was read last, and all that it depends on as it was then. */
const known = new Map<string, { stamp: string; context: ActionsContext }>()

/**
 * A site as deciding about its triggers needs it. Read again only when something of it has changed: with many triggers a
 * second, reading it for each would take longer than all else. The caller changes nothing in it.
 */
export async function readContext(sql: Sql, siteId: string): Promise<ActionsContext> {
  const [row] = await sql.rows<Record<string, unknown>>(stampOfSite, [siteId])
  const stamp = JSON.stringify(row)
  const last = known.get(siteId)
  if (row && last?.stamp === stamp) return last.context
  // Whatever changes from here on changes the stamp that the next one reads.
  const context = await readAll(sql, siteId)
  known.set(siteId, { stamp, context })
  return context
}

/**
 * One row that is another one whenever a site's inputs, hours, endpoints, settings, names or outputs are: what counts its
 * versions never has one again; of all else there is a sum of checksums.
 */
const stampOfSite = `SELECT DATABASE() AS site_of, site.name, time_zone, latitude, longitude, inputs, surroundings, is_set_up, version, changed_at,
  ${['endpoint', 'schedule', 'site_setting']
    .map(
      (table) =>
        `(SELECT CONCAT_WS(' ', COUNT(*), SUM(version), MAX(changed_at)) FROM ${table} WHERE site_id = site.id) AS ${table}s`
    )
    .join(', ')},
  (SELECT CONCAT_WS(' ', COUNT(*), SUM(CRC32(CONCAT(id, ' ', name)))) FROM camera WHERE site_id = site.id AND NOT removed) AS cameras,
  (SELECT CONCAT_WS(' ', COUNT(*), SUM(CRC32(CONCAT_WS(' ', id, name, outputs)))) FROM device WHERE site_id = site.id) AS devices
  FROM site WHERE id = ? AND NOT removed`

async function readAll(sql: Sql, siteId: string): Promise<ActionsContext> {
  const site = await readSiteAlone(sql, siteId)
  const [endpoints, saved, settings, names] = [
    await readEndpoints(sql, site.id),
    await readSchedules(sql, site.id),
    await readSettings(sql, site.id),
    await namesOf(sql, site.id)
  ]
  const kept = endpoints.map((e) => e.endpoint)
  const schedules = saved.map((s) => s.schedule)
  return {
    site,
    schedules,
    actions: {
      endpoints: kept,
      hours: new EndpointHours(schedules, site.timeZone, site.position ?? undefined),
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

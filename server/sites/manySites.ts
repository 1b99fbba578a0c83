import { randomUUID } from 'node:crypto'
import { roleAt, type AccountView } from '../../core/accounts/accounts.ts'
import { isOutput, type Actions, type Endpoint } from '../../core/formats/actions.ts'
import { said } from '../../core/messages/said.ts'
import type { NewSite, SiteSummary } from '../../core/sites/views.ts'
import { readEndpoints, readSettings, saveEndpoint, saveSetting } from '../actions/queries.ts'
import { conflict, notFound } from '../errors.ts'
import type { Sql } from '../database.ts'
import type { EditNote } from '../history/queries.ts'
import { readSchedules, readSiteAlone, saveSchedule, siteIds } from './queries.ts'

/** Sites as a whole: which there are, new ones, deleted ones. */

/** The sites that an account has to do with, by name. */
export async function listSites(sql: Sql, account: AccountView): Promise<SiteSummary[]> {
  const rows = await sql.rows<{
    id: string
    name: string
    time_zone: string
    is_set_up: number
    cameras: number
    alarms: number
  }>(
    `SELECT id, name, time_zone, is_set_up,
            (SELECT COUNT(*) FROM camera WHERE camera.site_id = site.id AND NOT camera.removed) AS cameras,
            (SELECT COUNT(*) FROM alarm WHERE alarm.site_id = site.id AND state = 'waiting') AS alarms
       FROM site WHERE NOT removed ORDER BY name, id`
  )
  return rows.flatMap(({ id, name, time_zone: timeZone, is_set_up, cameras, alarms }) => {
    const role = roleAt(account, id)
    return role
      ? [
          {
            id,
            name,
            timeZone,
            cameras: Number(cameras),
            newAlarms: Number(alarms),
            isSetUp: is_set_up !== 0,
            role
          }
        ]
      : []
  })
}

/**
 * Makes a site, with what it takes from another one: schedules, the actions that are no output of a device, default
 * actions, the mail server; no devices, no cameras, no people. In a transaction.
 *
 * @returns its id
 */
export async function makeSite(
  sql: Sql,
  { name, from }: NewSite,
  timeZone: string,
  note: Omit<EditNote, 'label'>,
  now: number
): Promise<string> {
  const id = `site-${randomUUID().slice(0, 8)}`
  const model = from === null ? null : await readSiteAlone(sql, from)
  await sql.run(
    'INSERT INTO site (id, name, time_zone, latitude, longitude, inputs, surroundings, is_set_up, added_at) VALUES (?, ?, ?, ?, ?, ?, ?, FALSE, ?)',
    [
      id,
      name,
      model?.timeZone ?? timeZone,
      model?.position?.latitude ?? null,
      model?.position?.longitude ?? null,
      '[]',
      model?.surroundings ?? 'outdoors',
      now
    ]
  )
  if (model)
    await takeFrom(sql, model.id, id, { ...note, label: said('edits.fromSite', model.name) }, now)
  return id
}

async function takeFrom(
  sql: Sql,
  from: string,
  id: string,
  note: EditNote,
  now: number
): Promise<void> {
  for (const { schedule } of await readSchedules(sql, from))
    await saveSchedule(sql, id, schedule, 0, note, now)
  const taken = (await readEndpoints(sql, from)).flatMap(({ endpoint }) => withoutSite(endpoint))
  for (const endpoint of taken) await saveEndpoint(sql, id, endpoint, 0, note, now)
  const { mail, usual, sealed } = await readSettings(sql, from)
  if (mail.version > 0) await saveSetting(sql, id, 'mail', mail.mail, 0, note, now, sealed)
  if (usual.actions) {
    const there = new Set(taken.map((e) => e.id))
    // What is switched at an acknowledgement is an output.
    const acknowledge = { ...usual.actions.acknowledge, switch: undefined }
    const actions: Actions = {
      ...usual.actions,
      links: usual.actions.links.filter((link) => there.has(link)),
      acknowledge
    }
    await saveSetting(sql, id, 'usual', actions, 0, note, now)
  }
}

/** An endpoint without what only its own site has; none: it is nothing without that. */
function withoutSite(endpoint: Endpoint): Endpoint[] {
  if (isOutput(endpoint) || ('camera' in endpoint && endpoint.camera)) return []
  return ['people' in endpoint ? { ...endpoint, people: [] } : endpoint]
}

/** Deletes a site; it can be brought back with all that it had. @throws ApiError for the only one */
export async function removeSite(sql: Sql, id: string): Promise<void> {
  const all = await siteIds(sql)
  if (!all.includes(id)) throw notFound(said('things.site'))
  if (all.length === 1) throw conflict(said('sites.onlyOne'))
  await sql.run('UPDATE site SET removed = TRUE WHERE id = ?', [id])
}

export async function restoreSite(sql: Sql, id: string): Promise<void> {
  const done = await sql.run('UPDATE site SET removed = FALSE WHERE id = ? AND removed', [id])
  if (done.affectedRows !== 1) throw notFound(said('things.site'))
}

import { said } from '../../core/messages/said.ts'
import type { CameraSettings, SiteSettings } from '../../core/sites/settings.ts'
import type { Sql } from '../database.ts'
import { writeVersion } from '../versioned.ts'
import { notFound, versionConflict } from '../errors.ts'
import { noteEdit, type EditNote } from '../history/queries.ts'
import { readSiteAlone } from './queries.ts'

export interface SavedCamera {
  settings: CameraSettings
  version: number
  changedAt: number
}

interface Row {
  name: string
  position: number
  surroundings: CameraSettings['surroundings']
  version: number
  changed_at: number
  removed: number
}

async function refuse(sql: Sql, siteId: string, id: string): Promise<never> {
  const [row] = await sql.rows<Row>(
    'SELECT name, position, surroundings, version, changed_at, removed FROM camera WHERE site_id = ? AND id = ?',
    [siteId, id]
  )
  if (!row) throw notFound(said('things.camera', id.slice(0, 64)))
  const { version, changed_at: changedAt } = row
  throw versionConflict(
    said('things.cameraNamed', row.name),
    row.removed
      ? { deleted: true, version, changedAt }
      : {
          settings: { name: row.name, order: row.position, surroundings: row.surroundings },
          version,
          changedAt
        }
  )
}

/**
 * Saves over exactly the version named; 0 makes a new one. Saving over a deleted one brings it back with all that it
 * had. In a transaction.
 */
export async function saveCamera(
  sql: Sql,
  siteId: string,
  id: string,
  settings: CameraSettings,
  version: number,
  note: EditNote,
  now: number
): Promise<SavedCamera> {
  const { name, order: position, surroundings } = settings
  const isWritten = await writeVersion(
    sql,
    'camera',
    { id, site_id: siteId },
    { name, position, surroundings, removed: false },
    version,
    now,
    { ignore_areas: '[]' }
  )
  if (!isWritten) return refuse(sql, siteId, id)
  await noteEdit(sql, siteId, id, 'camera', id, settings, note, now)
  return { settings, version: version + 1, changedAt: now }
}

/** Deletes exactly the version named. @returns the version under which it can be brought back */
export async function deleteCamera(
  sql: Sql,
  siteId: string,
  id: string,
  version: number,
  note: EditNote,
  now: number
): Promise<{ version: number }> {
  const done = await sql.run(
    'UPDATE camera SET removed = TRUE, version = version + 1, changed_at = ? WHERE id = ? AND site_id = ? AND version = ? AND NOT removed',
    [now, id, siteId, version]
  )
  if (done.affectedRows !== 1) return refuse(sql, siteId, id)
  await noteEdit(sql, siteId, id, 'camera', id, null, note, now)
  return { version: version + 1 }
}

/** Saves over exactly the version named. From then on the site counts as set up. In a transaction. */
export async function saveSite(
  sql: Sql,
  siteId: string,
  settings: SiteSettings,
  version: number,
  note: EditNote,
  now: number
): Promise<{ settings: SiteSettings; version: number; changedAt: number }> {
  const { name, timeZone, position, surroundings } = settings
  const done = await sql.run(
    'UPDATE site SET name = ?, time_zone = ?, latitude = ?, longitude = ?, surroundings = ?, is_set_up = TRUE, version = version + 1, changed_at = ? WHERE id = ? AND version = ?',
    [
      name,
      timeZone,
      position?.latitude ?? null,
      position?.longitude ?? null,
      surroundings,
      now,
      siteId,
      version
    ]
  )
  if (done.affectedRows !== 1) {
    const site = await readSiteAlone(sql, siteId)
    const { name, timeZone, position, surroundings, version, changedAt } = site
    throw versionConflict(said('things.site'), {
      settings: { name, timeZone, position, surroundings },
      version,
      changedAt
    })
  }
  await noteEdit(sql, siteId, null, 'setting', 'site', settings, note, now)
  return { settings, version: version + 1, changedAt: now }
}

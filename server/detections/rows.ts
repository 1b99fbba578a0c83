import type { KeptDetection, KeptEmail } from '../../core/api.ts'
import type { Detection } from '../../core/formats/plan.ts'
import type { Sql } from '../database.ts'
import { conflict, notFound } from '../errors.ts'
import { noteEdit, type EditNote } from '../history/rows.ts'
import { parsed } from '../sites/rows.ts'

interface Row {
  id: string
  body: string
  position: number
  version: number
  changed_at: number
  deleted: number
  recipient: string | null
  email_version: number | null
  email_changed_at: number | null
}

const select = `SELECT detection.id, detection.body, detection.position, detection.version, detection.changed_at, detection.deleted,
         email_link.recipient, email_link.version AS email_version, email_link.changed_at AS email_changed_at
    FROM detection LEFT JOIN email_link ON email_link.camera_id = detection.camera_id AND email_link.detection_id = detection.id`

const keptOf = (row: Row): KeptDetection => ({
  detection: parsed<Detection>(row.body),
  position: row.position,
  version: row.version,
  changedAt: row.changed_at,
  email: { to: row.recipient, version: row.email_version ?? 0, changedAt: row.email_changed_at ?? 0 }
})

/** The camera's detections, in the order of the rail. */
export async function readDetections(sql: Sql, cameraId: string): Promise<KeptDetection[]> {
  return (await sql.rows<Row>(`${select} WHERE detection.camera_id = ? AND NOT deleted ORDER BY detection.position, detection.id`, [cameraId])).map(keptOf)
}

/** The detections of all cameras of a site, each camera's in the order of its rail. */
export async function readDetectionsOfSite(sql: Sql, siteId: string): Promise<Map<string, Detection[]>> {
  const rows = await sql.rows<{ camera_id: string; body: string }>('SELECT detection.camera_id, detection.body FROM detection JOIN camera ON camera.id = detection.camera_id WHERE camera.site_id = ? AND NOT deleted ORDER BY detection.position, detection.id', [siteId])
  const all = new Map<string, Detection[]>()
  for (const { camera_id: camera, body } of rows) all.set(camera, [...(all.get(camera) ?? []), parsed<Detection>(body)])
  return all
}

/** What is kept under an id now; null: nothing, or deleted. */
async function current(sql: Sql, cameraId: string, id: string): Promise<{ row: Row; kept: KeptDetection | null } | null> {
  const [row] = await sql.rows<Row>(`${select} WHERE detection.camera_id = ? AND detection.id = ?`, [cameraId, id])
  return row ? { row, kept: row.deleted ? null : keptOf(row) } : null
}

const siteOf = async (sql: Sql, cameraId: string): Promise<string> => (await sql.rows<{ site_id: string }>('SELECT site_id FROM camera WHERE id = ?', [cameraId]))[0].site_id

async function refuse(sql: Sql, cameraId: string, id: string, name: string): Promise<never> {
  const now = await current(sql, cameraId, id)
  if (!now) throw notFound(`detection ${name}`)
  // A deleted one tells its version too, so that whoever wants to keep it can save over the deletion.
  throw conflict(`detection ${name}`, now.kept ?? { deleted: true, version: now.row.version, changedAt: now.row.changed_at })
}

/** Saves over exactly the version named; 0 makes a new one. Saving over a deleted one brings it back. In a transaction. */
export async function saveDetection(sql: Sql, cameraId: string, detection: Detection, position: number, version: number, note: EditNote, now: number): Promise<KeptDetection> {
  const body = JSON.stringify(detection)
  const done =
    version === 0
      ? await sql.run('INSERT IGNORE INTO detection (camera_id, id, position, body, version, changed_at) VALUES (?, ?, ?, ?, 1, ?)', [cameraId, detection.id, position, body, now])
      : await sql.run(
          'UPDATE detection SET body = ?, position = ?, version = version + 1, changed_at = ?, deleted = FALSE WHERE camera_id = ? AND id = ? AND version = ?',
          [body, position, now, cameraId, detection.id, version]
        )
  if (done.affectedRows !== 1) return refuse(sql, cameraId, detection.id, detection.name)
  await noteEdit(sql, await siteOf(sql, cameraId), cameraId, 'detection', detection.id, { detection, position }, note, now)
  return (await current(sql, cameraId, detection.id))!.kept!
}

/**
 * Deletes exactly the version named, and tells the version under which it can be brought back. What is deleted already
 * may be so again: a deletion that was undone and done again before it could be saved.
 */
export async function deleteDetection(sql: Sql, cameraId: string, id: string, version: number, note: EditNote, now: number): Promise<{ version: number }> {
  const done = await sql.run('UPDATE detection SET deleted = TRUE, version = version + 1, changed_at = ? WHERE camera_id = ? AND id = ? AND version = ?', [now, cameraId, id, version])
  if (done.affectedRows !== 1) return refuse(sql, cameraId, id, id)
  await noteEdit(sql, await siteOf(sql, cameraId), cameraId, 'detection', id, null, note, now)
  return { version: version + 1 }
}

export async function saveEmail(sql: Sql, cameraId: string, id: string, to: string | null, version: number, note: EditNote, now: number): Promise<KeptEmail> {
  const [there] = await sql.rows<{ id: string }>('SELECT id FROM detection WHERE camera_id = ? AND id = ? LOCK IN SHARE MODE', [cameraId, id])
  if (!there) throw notFound(`detection ${id.slice(0, 64)}`)
  const done =
    version === 0
      ? await sql.run('INSERT IGNORE INTO email_link (camera_id, detection_id, recipient, version, changed_at) VALUES (?, ?, ?, 1, ?)', [cameraId, id, to, now])
      : await sql.run('UPDATE email_link SET recipient = ?, version = version + 1, changed_at = ? WHERE camera_id = ? AND detection_id = ? AND version = ?', [to, now, cameraId, id, version])
  if (done.affectedRows === 1) {
    await noteEdit(sql, await siteOf(sql, cameraId), cameraId, 'email', id, to === null ? null : { to }, note, now)
    return { to, version: version + 1, changedAt: now }
  }
  throw conflict('the e-mail link', (await current(sql, cameraId, id))!.kept?.email ?? null)
}

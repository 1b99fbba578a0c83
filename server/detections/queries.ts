import { said } from '../../core/messages/said.ts'
import type { SavedActions, SavedDetection } from '../../core/api.ts'
import type { Actions } from '../../core/formats/actions.ts'
import { NO_ACTIONS } from '../../core/formats/noActions.ts'
import type { Detection, DetectionKind } from '../../core/formats/plan.ts'
import type { Sql } from '../database.ts'
import { deleteVersion, writeVersion } from '../versioned.ts'
import { versionConflict, notFound } from '../errors.ts'
import { noteEdit, type EditNote } from '../history/queries.ts'
import { parsedOnce } from '../columns.ts'

interface Row {
  id: string
  body: string
  position: number
  version: number
  changed_at: number
  deleted: number
  actions: string | null
  actions_version: number | null
  actions_changed_at: number | null
}

const select = `SELECT detection.id, detection.body, detection.position, detection.version, detection.changed_at, detection.deleted,
         a.body AS actions, a.version AS actions_version, a.changed_at AS actions_changed_at
    FROM detection LEFT JOIN detection_actions a ON a.camera_id = detection.camera_id AND a.detection_id = detection.id`

const keptOf = (row: Row): SavedDetection => ({
  detection: parsedOnce<Detection>(row.body),
  position: row.position,
  version: row.version,
  changedAt: row.changed_at,
  actions: {
    actions: row.actions === null ? NO_ACTIONS : parsedOnce<Actions>(row.actions),
    version: row.actions_version ?? 0,
    changedAt: row.actions_changed_at ?? 0
  }
})

/** The camera's detections, in the order of the rail. */
export async function readDetections(sql: Sql, cameraId: string): Promise<SavedDetection[]> {
  return (
    await sql.rows<Row>(
      `${select} WHERE detection.camera_id = ? AND NOT deleted ORDER BY detection.position, detection.id`,
      [cameraId]
    )
  ).map(keptOf)
}

/** The actions of a camera's deleted detections. */
export async function readDormant(
  sql: Sql,
  cameraId: string
): Promise<{ id: string; actions: SavedActions }[]> {
  return (
    await sql.rows<Row>(
      `${select} WHERE detection.camera_id = ? AND deleted AND a.version IS NOT NULL`,
      [cameraId]
    )
  ).map((row) => ({ id: row.id, actions: keptOf(row).actions }))
}

/** One detection that has not been deleted; null: there is none. */
export async function findDetection(
  sql: Sql,
  cameraId: string,
  id: string
): Promise<Detection | null> {
  const [row] = await sql.rows<{ body: string }>(
    'SELECT body FROM detection WHERE camera_id = ? AND id = ? AND NOT deleted',
    [cameraId, id]
  )
  return row ? parsedOnce<Detection>(row.body) : null
}

/** The detections of one kind, with their cameras. @param siteId null: of all sites */
export async function detectionsOfKind(
  sql: Sql,
  siteId: string | null,
  kind: DetectionKind
): Promise<{ camera: string; detection: Detection }[]> {
  const rows = await sql.rows<{ camera_id: string; body: string }>(
    `SELECT detection.camera_id, detection.body FROM detection JOIN camera ON camera.id = detection.camera_id WHERE NOT deleted AND NOT camera.removed AND JSON_VALUE(body, '$.kind') = ?${siteId === null ? '' : ' AND camera.site_id = ?'} ORDER BY camera.position, detection.position`,
    [kind, ...(siteId === null ? [] : [siteId])]
  )
  return rows.map(({ camera_id: camera, body }) => ({
    camera,
    detection: parsedOnce<Detection>(body)
  }))
}

/** What is kept under an id now; null: nothing, or deleted. */
async function current(
  sql: Sql,
  cameraId: string,
  id: string
): Promise<{ row: Row; kept: SavedDetection | null } | null> {
  const [row] = await sql.rows<Row>(
    `${select} WHERE detection.camera_id = ? AND detection.id = ?`,
    [cameraId, id]
  )
  return row ? { row, kept: row.deleted ? null : keptOf(row) } : null
}

const siteOf = async (sql: Sql, cameraId: string): Promise<string> =>
  (await sql.rows<{ site_id: string }>('SELECT site_id FROM camera WHERE id = ?', [cameraId]))[0]!
    .site_id

/** A detection's note with who wrote it and when; one that has not changed keeps both. */
async function signed(
  sql: Sql,
  cameraId: string,
  detection: Detection,
  { by }: EditNote,
  now: number
): Promise<Detection> {
  const { note } = detection
  if (!note) return detection
  const before = (await current(sql, cameraId, detection.id))?.row.body
  const kept = before === undefined ? undefined : parsedOnce<Detection>(before).note
  return { ...detection, note: kept?.text === note.text ? kept : { text: note.text, by, at: now } }
}

async function refuse(sql: Sql, cameraId: string, id: string, name: string): Promise<never> {
  const now = await current(sql, cameraId, id)
  if (!now) throw notFound(said('things.detection', name))
  // A deleted one tells its version too, so that whoever wants to keep it can save over the deletion.
  throw versionConflict(
    said('things.detection', name),
    now.kept ?? { deleted: true, version: now.row.version, changedAt: now.row.changed_at }
  )
}

/**
 * Saves over exactly the version named; 0 makes a new one. Saving over a deleted one brings it
 * back. In a transaction.
 */
export async function saveDetection(
  sql: Sql,
  cameraId: string,
  wanted: Detection,
  position: number,
  version: number,
  note: EditNote,
  now: number
): Promise<SavedDetection> {
  const detection = await signed(sql, cameraId, wanted, note, now)
  const isWritten = await writeVersion(
    sql,
    'detection',
    { camera_id: cameraId, id: detection.id },
    { body: JSON.stringify(detection), position, deleted: false },
    version,
    now
  )
  if (!isWritten) return refuse(sql, cameraId, detection.id, detection.name)
  await noteEdit(
    sql,
    await siteOf(sql, cameraId),
    cameraId,
    'detection',
    detection.id,
    { detection, position },
    note,
    now
  )
  return (await current(sql, cameraId, detection.id))!.kept!
}

/** Deletes exactly the version named, and tells the version under which it can be brought back. */
export async function deleteDetection(
  sql: Sql,
  cameraId: string,
  id: string,
  version: number,
  note: EditNote,
  now: number
): Promise<{ version: number }> {
  const isDeleted = await deleteVersion(sql, 'detection', { camera_id: cameraId, id }, version, now)
  if (!isDeleted) return refuse(sql, cameraId, id, id)
  await noteEdit(sql, await siteOf(sql, cameraId), cameraId, 'detection', id, null, note, now)
  return { version: version + 1 }
}

export async function saveActions(
  sql: Sql,
  cameraId: string,
  id: string,
  actions: Actions,
  version: number,
  note: EditNote,
  now: number
): Promise<SavedActions> {
  const [there] = await sql.rows<{ id: string }>(
    'SELECT id FROM detection WHERE camera_id = ? AND id = ? LOCK IN SHARE MODE',
    [cameraId, id]
  )
  if (!there) throw notFound(said('things.detection', id.slice(0, 64)))
  const isWritten = await writeVersion(
    sql,
    'detection_actions',
    { camera_id: cameraId, detection_id: id },
    { body: JSON.stringify(actions) },
    version,
    now
  )
  if (!isWritten)
    throw versionConflict(
      said('things.actions'),
      (await current(sql, cameraId, id))!.kept?.actions ?? null
    )
  await noteEdit(sql, await siteOf(sql, cameraId), cameraId, 'actions', id, actions, note, now)
  return { actions, version: version + 1, changedAt: now }
}

/**
 * Every detection of a site with its actions, in the order of cameras and rails.
 *
 * @param cameras only of these; left out: of all of the site
 */
export async function readAllDetections(
  sql: Sql,
  siteId: string,
  cameras?: readonly string[]
): Promise<(SavedDetection & { camera: string; cameraName: string })[]> {
  if (cameras?.length === 0) return []
  const rows = await sql.rows<Row & { camera_id: string; camera_name: string }>(
    `${select.replace('SELECT ', 'SELECT detection.camera_id, camera.name AS camera_name, ')} JOIN camera ON camera.id = detection.camera_id WHERE camera.site_id = ?${cameras ? ` AND camera.id IN (${cameras.map(() => '?').join(', ')})` : ''} AND NOT camera.removed AND NOT detection.deleted ORDER BY camera.position, camera.id, detection.position, detection.id`,
    [siteId, ...(cameras ?? [])]
  )
  return rows.map((row) => ({ ...keptOf(row), camera: row.camera_id, cameraName: row.camera_name }))
}

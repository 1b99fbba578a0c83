import { saidOf, saidText, type Said } from '../../core/messages/said.ts'
import type { EditEntry, EditThing } from '../../core/history/states.ts'
import type { Sql } from '../database.ts'
import { parsed } from '../columns.ts'

/** Who did something. */
export interface Author {
  by: string
  /** Of the account; null: the system itself. */
  byId: number | null
}

/** Of the column. */
const LABEL_MAX = 500

/** Who made an edit, and what it is called. */
export interface EditNote extends Author {
  label: Said | string
}

interface Row {
  id: number
  camera_id: string | null
  thing: EditThing
  thing_id: string
  body: string | null
  label: string
  made_by: string
  made_at: number
}

const entryOf = (row: Row): EditEntry => ({
  id: row.id,
  camera: row.camera_id,
  thing: row.thing,
  thingId: row.thing_id,
  body: row.body === null ? null : parsed(row.body),
  label: saidOf(row.label),
  by: row.made_by,
  at: row.made_at
})

/**
 * Writes down how a thing is after an edit; in the transaction that saves it. `camera` null: a
 * schedule of the site.
 */
export async function noteEdit(
  sql: Sql,
  site: string,
  camera: string | null,
  thing: EditThing,
  thingId: string,
  body: unknown,
  { by, byId, label }: EditNote,
  now: number
): Promise<void> {
  await sql.run(
    'INSERT INTO edit (site_id, camera_id, thing, thing_id, body, label, made_by, made_by_id, made_at) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)',
    [
      site,
      camera,
      thing,
      thingId,
      body === null ? null : JSON.stringify(body),
      saidText(label, LABEL_MAX),
      by.slice(0, 80),
      byId,
      now
    ]
  )
}

/** The camera's edits and those of the site's schedules, newest first, before an entry (or from the newest). */
export async function readEdits(
  sql: Sql,
  site: string,
  camera: string,
  before: number | null,
  limit: number
): Promise<EditEntry[]> {
  return (
    await sql.rows<Row>(
      `SELECT id, camera_id, thing, thing_id, body, label, made_by, made_at FROM edit WHERE site_id = ? AND (camera_id = ? OR camera_id IS NULL) AND id < ? ORDER BY id DESC LIMIT ${Math.trunc(limit)}`,
      [site, camera, before ?? Number.MAX_SAFE_INTEGER]
    )
  ).map(entryOf)
}

/** Of every thing of the camera, the last edit up to an entry: together, the state that it left. */
export async function readStateAt(
  sql: Sql,
  site: string,
  camera: string,
  id: number
): Promise<EditEntry[]> {
  return (
    await sql.rows<Row>(
      `SELECT edit.id, edit.camera_id, edit.thing, edit.thing_id, edit.body, edit.label, edit.made_by, edit.made_at
         FROM edit JOIN (SELECT MAX(id) AS last FROM edit WHERE site_id = ? AND (camera_id = ? OR camera_id IS NULL) AND id <= ? GROUP BY thing, thing_id) AS lasts ON lasts.last = edit.id
        WHERE edit.body IS NOT NULL ORDER BY edit.id`,
      [site, camera, id]
    )
  ).map(entryOf)
}

import { onlyRow } from '../columns.ts'
import type { Database, Sql } from '../database.ts'

/** How long things are kept holds for all sites; the site that it was first saved with keeps it. */
export async function retentionHome(sql: Sql): Promise<string> {
  const [row] = await sql.rows<{ id: string }>(
    "SELECT COALESCE((SELECT site_id FROM site_setting WHERE name = 'retention' LIMIT 1), (SELECT id FROM site ORDER BY added_at, id LIMIT 1), '') AS id"
  )
  return row!.id
}

// Each step takes few rows, so that what goes on beside it never waits for long.

/** @returns how many have gone */
export async function deleteOldEvents(sql: Sql, before: number, limit: number): Promise<number> {
  return (
    await sql.run(
      `DELETE FROM device_event WHERE received_at < ? ORDER BY received_at LIMIT ${limit}`,
      [before]
    )
  ).affectedRows
}

export async function deleteOldAudit(sql: Sql, before: number, limit: number): Promise<number> {
  return (await sql.run(`DELETE FROM audit WHERE at < ? ORDER BY at LIMIT ${limit}`, [before]))
    .affectedRows
}

/**
 * Steps of the history that a later one, old as well, has followed: how everything was at that
 * time, and since, can still be told.
 */
export async function deleteOldEdits(sql: Sql, before: number, limit: number): Promise<number> {
  const rows = await sql.rows<{ id: number }>(
    `SELECT old.id FROM edit old WHERE old.made_at < ? AND EXISTS
       (SELECT 1 FROM edit later WHERE later.site_id = old.site_id AND later.camera_id <=> old.camera_id AND later.thing = old.thing AND later.thing_id = old.thing_id AND later.id > old.id AND later.made_at < ?)
     ORDER BY old.made_at LIMIT ${limit}`,
    [before, before]
  )
  if (!rows.length) return 0
  return (
    await sql.run(
      `DELETE FROM edit WHERE id IN (${rows.map(() => '?').join()})`,
      rows.map(({ id }) => id)
    )
  ).affectedRows
}

/** What closed alarms have left on the disk. */
export interface Gone {
  alarms: number
  triggers: number[]
  deliveries: number[]
}

/**
 * Closed alarms whose last trigger is old, with all that belongs to them. None that is open, or
 * from which something is still to be delivered.
 */
export async function deleteOldAlarms(
  database: Database,
  before: number,
  limit: number
): Promise<Gone> {
  return database.transaction(async (sql) => {
    const alarms = await sql.rows<{ id: number }>(
      `SELECT id FROM alarm WHERE state = 'closed' AND last_at < ? AND NOT EXISTS (SELECT 1 FROM delivery WHERE delivery.alarm_id = alarm.id AND delivery.state = 'pending') ORDER BY last_at LIMIT ${limit} FOR UPDATE`,
      [before]
    )
    if (!alarms.length) return { alarms: 0, triggers: [], deliveries: [] }
    const ids = alarms.map(({ id }) => id)
    const places = ids.map(() => '?').join()
    const triggers = (
      await sql.rows<{ id: number }>(
        `SELECT id FROM fired_trigger WHERE alarm_id IN (${places})`,
        ids
      )
    ).map(({ id }) => id)
    const deliveries = (
      await sql.rows<{ id: number }>(`SELECT id FROM delivery WHERE alarm_id IN (${places})`, ids)
    ).map(({ id }) => id)
    await sql.run(`DELETE FROM delivery WHERE alarm_id IN (${places})`, ids)
    // Deleted explicitly: a cascade would leave the tally wrong.
    await sql.run(`DELETE FROM fired_trigger WHERE alarm_id IN (${places})`, ids)
    await sql.run(`DELETE FROM alarm WHERE id IN (${places})`, ids)
    return { alarms: ids.length, triggers, deliveries }
  })
}

/** Which of these deliveries and triggers are of alarms that are closed, or of none: their files may go. */
export async function ofClosed(
  sql: Sql,
  what: 'delivery' | 'trigger',
  ids: readonly number[]
): Promise<Set<number>> {
  const table = what === 'delivery' ? 'delivery' : 'fired_trigger'
  const rows = await sql.rows<{ id: number }>(
    `SELECT t.id FROM ${table} t LEFT JOIN alarm ON alarm.id = t.alarm_id WHERE t.id IN (${ids.map(() => '?').join()}) AND alarm.state <> 'closed'`,
    [...ids]
  )
  const open = new Set(rows.map(({ id }) => id))
  return new Set(ids.filter((id) => !open.has(id)))
}

/** A delivery's files have gone; what it came to stays. */
export async function forgetFiles(sql: Sql, delivery: number): Promise<void> {
  await sql.run(
    "UPDATE delivery SET result = JSON_REMOVE(result, '$.files') WHERE id = ? AND result IS NOT NULL",
    [delivery]
  )
}

export async function countAll(sql: Sql): Promise<{
  events: number
  alarms: number
  triggers: number
  deliveries: number
  edits: number
  audit: number
}> {
  const rows = await sql.rows<
    Record<'events' | 'alarms' | 'triggers' | 'deliveries' | 'edits' | 'audit', number>
  >(
    `SELECT (SELECT COUNT(*) FROM device_event) AS events, (SELECT COUNT(*) FROM alarm) AS alarms, (SELECT COALESCE(SUM(n), 0) FROM tally WHERE hours = 24) AS triggers,
            (SELECT COUNT(*) FROM delivery) AS deliveries, (SELECT COUNT(*) FROM edit) AS edits, (SELECT COUNT(*) FROM audit) AS audit`
  )
  const row = onlyRow(rows)
  return {
    events: Number(row.events),
    alarms: Number(row.alarms),
    triggers: Number(row.triggers),
    deliveries: Number(row.deliveries),
    edits: Number(row.edits),
    audit: Number(row.audit)
  }
}

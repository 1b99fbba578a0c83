import type { RunTrigger } from '../../core/api.ts'
import type { Direction, Trigger } from '../../core/detections/index.ts'
import type { Detection, TamperCause } from '../../core/formats/plan.ts'
import { deliveriesOfRun } from '../alarms/queries.ts'
import type { Sql } from '../database.ts'
import { parsed } from '../columns.ts'
import type { Severity } from '../../core/kinds/parts.ts'

export type RunState = 'running' | 'finished' | 'stopped' | 'failed'

export async function insertRun(sql: Sql, id: string, clipId: string, now: number): Promise<void> {
  await sql.run("INSERT INTO run (id, clip_id, state, started_at) VALUES (?, ?, 'running', ?)", [
    id,
    clipId,
    now
  ])
}

export async function setRunState(sql: Sql, id: string, state: RunState): Promise<void> {
  await sql.run('UPDATE run SET state = ? WHERE id = ?', [state, id])
}

/** Runs that were cut off by an end of the server. */
export async function endRunsLeftRunning(sql: Sql): Promise<void> {
  await sql.run("UPDATE run SET state = 'failed' WHERE state = 'running'")
}

export async function findRun(
  sql: Sql,
  id: string
): Promise<{ clip: string; state: RunState } | null> {
  const [row] = await sql.rows<{ clip: string; state: RunState }>(
    'SELECT clip_id AS clip, state FROM run WHERE id = ?',
    [id]
  )
  return row ?? null
}

interface Row {
  id: number
  detection_id: string
  kind: Trigger['kind']
  target: number | null
  frame: number
  clip_seconds: number
  direction: Direction | null
  cause: TamperCause | null
  severity: Severity | null
  fired_at: number
  fired_with: string
}

/** The triggers of a run with their deliveries, in order of time. */
export async function readRunTriggers(sql: Sql, runId: string): Promise<RunTrigger[]> {
  const [rows, deliveries] = await Promise.all([
    sql.rows<Row>(
      'SELECT id, detection_id, kind, target, frame, clip_seconds, direction, cause, severity, fired_at, fired_with FROM fired_trigger WHERE run_id = ? ORDER BY id',
      [runId]
    ),
    deliveriesOfRun(sql, runId)
  ])
  return rows.map((row) => ({
    id: row.id,
    detection: row.detection_id,
    name: parsed<Detection>(row.fired_with).name,
    kind: row.kind,
    ...(row.target !== null && { target: row.target }),
    frame: row.frame,
    time: row.clip_seconds,
    ...(row.direction && { direction: row.direction }),
    ...(row.cause && { cause: row.cause }),
    ...(row.severity && { severity: row.severity }),
    instant: row.fired_at,
    deliveries: deliveries.get(row.id) ?? []
  }))
}

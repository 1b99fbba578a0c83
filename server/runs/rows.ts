import type { DeliveryView, RunTrigger } from '../../core/api.ts'
import type { Direction, Trigger } from '../../core/detections/index.ts'
import type { Detection, Severity, TamperCause } from '../../core/formats/plan.ts'
import type { Database, Sql } from '../database.ts'
import { parsed } from '../sites/rows.ts'

export type RunState = 'running' | 'finished' | 'stopped' | 'failed'

export async function insertRun(sql: Sql, id: string, clipId: string, now: number): Promise<void> {
  await sql.run("INSERT INTO run (id, clip_id, state, started_at) VALUES (?, ?, 'running', ?)", [id, clipId, now])
}

export async function setRunState(sql: Sql, id: string, state: RunState): Promise<void> {
  await sql.run('UPDATE run SET state = ? WHERE id = ?', [state, id])
}

/** Runs that were cut off by an end of the server. */
export async function endRunsLeftRunning(sql: Sql): Promise<void> {
  await sql.run("UPDATE run SET state = 'failed' WHERE state = 'running'")
}

export async function findRun(sql: Sql, id: string): Promise<{ clip: string; state: RunState } | null> {
  const [row] = await sql.rows<{ clip: string; state: RunState }>('SELECT clip_id AS clip, state FROM run WHERE id = ?', [id])
  return row ?? null
}

/** Keeps a trigger and what it sets off, both or neither. */
export async function recordTrigger(database: Database, runId: string, cameraId: string, trigger: Trigger, detection: Detection, firedAt: number, now: number): Promise<void> {
  await database.transaction(async (sql) => {
    const { insertId } = await sql.run(
      `INSERT INTO fired_trigger (run_id, camera_id, detection_id, kind, target, frame, clip_seconds, direction, cause, severity, fired_at, fired_with)
       VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
      [runId, cameraId, trigger.detection, trigger.kind, trigger.target ?? null, trigger.frame, trigger.time, trigger.direction ?? null, trigger.cause ?? null, trigger.severity ?? null, firedAt, JSON.stringify(detection)]
    )
    await sql.run(
      `INSERT INTO delivery (trigger_id, kind, recipient, state, next_at)
       SELECT ?, 'email', recipient, 'pending', ? FROM email_link WHERE camera_id = ? AND detection_id = ? AND recipient IS NOT NULL`,
      [insertId, now, cameraId, trigger.detection]
    )
  })
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
  delivery_id: number | null
  delivery_kind: DeliveryView['kind']
  recipient: string
  state: DeliveryView['state']
  attempts: number
  error: string | null
}

/** The triggers of a run with their deliveries, in order of time. */
export async function readRunTriggers(sql: Sql, runId: string): Promise<RunTrigger[]> {
  const rows = await sql.rows<Row>(
    `SELECT t.id, t.detection_id, t.kind, t.target, t.frame, t.clip_seconds, t.direction, t.cause, t.severity, t.fired_at, t.fired_with,
            d.id AS delivery_id, d.kind AS delivery_kind, d.recipient, d.state, d.attempts, d.error
       FROM fired_trigger t LEFT JOIN delivery d ON d.trigger_id = t.id
      WHERE t.run_id = ? ORDER BY t.id, d.id`,
    [runId]
  )
  const triggers = new Map<number, RunTrigger>()
  for (const row of rows) {
    const trigger: RunTrigger = triggers.get(row.id) ?? {
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
      deliveries: []
    }
    triggers.set(row.id, trigger)
    if (row.delivery_id !== null)
      trigger.deliveries.push({ id: row.delivery_id, kind: row.delivery_kind, recipient: row.recipient, state: row.state, attempts: row.attempts, error: row.error })
  }
  return [...triggers.values()]
}

import type { Direction, Trigger } from '../../core/detections/index.ts'
import type { Detection, Severity, TamperCause } from '../../core/formats/plan.ts'
import type { Sql } from '../database.ts'
import { parsed } from '../sites/rows.ts'

/** A delivery that is due, with all that its message needs. */
export interface DueDelivery {
  id: number
  recipient: string
  attempts: number
  site: { name: string; timeZone: string }
  camera: string
  clip: string
  detection: Detection
  trigger: Pick<Trigger, 'target' | 'time' | 'frame' | 'direction' | 'cause' | 'severity'>
  instant: number
}

export async function nextDue(sql: Sql, now: number): Promise<DueDelivery | null> {
  const [row] = await sql.rows<{
    id: number
    recipient: string
    attempts: number
    site: string
    time_zone: string
    camera: string
    clip_id: string
    fired_with: string
    target: number | null
    frame: number
    clip_seconds: number
    direction: Direction | null
    cause: TamperCause | null
    severity: Severity | null
    fired_at: number
  }>(
    `SELECT d.id, d.recipient, d.attempts, site.name AS site, site.time_zone, camera.name AS camera, run.clip_id,
            t.fired_with, t.target, t.frame, t.clip_seconds, t.direction, t.cause, t.severity, t.fired_at
       FROM delivery d
       JOIN fired_trigger t ON t.id = d.trigger_id
       JOIN run ON run.id = t.run_id
       JOIN camera ON camera.id = t.camera_id
       JOIN site ON site.id = camera.site_id
      WHERE d.state = 'pending' AND d.next_at <= ? ORDER BY d.next_at, d.id LIMIT 1`,
    [now]
  )
  if (!row) return null
  return {
    id: row.id,
    recipient: row.recipient,
    attempts: row.attempts,
    site: { name: row.site, timeZone: row.time_zone },
    camera: row.camera,
    clip: row.clip_id,
    detection: parsed<Detection>(row.fired_with),
    trigger: {
      ...(row.target !== null && { target: row.target }),
      time: row.clip_seconds,
      frame: row.frame,
      ...(row.direction && { direction: row.direction }),
      ...(row.cause && { cause: row.cause }),
      ...(row.severity && { severity: row.severity })
    },
    instant: row.fired_at
  }
}

export async function markSent(sql: Sql, id: number): Promise<void> {
  await sql.run("UPDATE delivery SET state = 'sent', attempts = attempts + 1, error = NULL WHERE id = ?", [id])
}

/** Notes a failed attempt; `nextAt` null gives up. */
export async function markFailed(sql: Sql, id: number, error: string, nextAt: number | null): Promise<void> {
  await sql.run('UPDATE delivery SET state = ?, attempts = attempts + 1, error = ?, next_at = ? WHERE id = ?', [nextAt === null ? 'failed' : 'pending', error.slice(0, 500), nextAt ?? 0, id])
}

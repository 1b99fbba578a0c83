import { said, type Said } from '../../core/messages/said.ts'
import type { Direction, Trigger } from '../../core/detections/index.ts'
import type { Endpoint } from '../../core/formats/actions.ts'
import type { Detection, DetectionKind, TamperCause } from '../../core/formats/plan.ts'
import type { Database, Sql } from '../database.ts'
import { outcomeText, parsed } from '../columns.ts'
import type { Severity } from '../../core/kinds/parts.ts'

/** A trigger as its messages need it. */
export interface DueTrigger extends Pick<Trigger, 'target' | 'direction' | 'cause' | 'severity'> {
  kind: DetectionKind
  detection: Detection
  /** The clip that it fell in, with its frame and second; null: it is live. */
  clip: { id: string; frame: number; time: number } | null
  /** Milliseconds of UTC. */
  firedAt: number
}

/** A delivery that is due, with all that it needs. */
export interface DueDelivery {
  id: number
  endpoint: Endpoint
  by: 'server' | 'camera'
  does: 'on' | 'off'
  attempts: number
  createdAt: number
  site: { id: string; name: string; timeZone: string }
  camera: { id: string; name: string; /** On the site, from 1. */ number: number }
  alarm: number | null
  /** Null: an output that acknowledging switches. */
  trigger: DueTrigger | null
}

interface Row {
  id: number
  endpoint: unknown
  made_by: 'server' | 'camera'
  does: 'on' | 'off'
  attempts: number
  created_at: number
  alarm_id: number | null
  site_id: string
  site: string
  time_zone: string
  camera_id: string
  camera: string
  number: number
  clip_id: string | null
  kind: DetectionKind | null
  fired_with: unknown
  target: number | null
  frame: number | null
  clip_seconds: number | null
  direction: Direction | null
  cause: TamperCause | null
  severity: Severity | null
  fired_at: number | null
}

/** Endpoints of which something is due. */
export async function dueEndpoints(sql: Sql, now: number): Promise<string[]> {
  return (
    await sql.rows<{ endpoint: string; next: number }>(
      "SELECT endpoint_id AS endpoint, MIN(next_at) AS next FROM delivery FORCE INDEX (due) WHERE state = 'pending' GROUP BY endpoint_id"
    )
  )
    .filter(({ next }) => next <= now)
    .map(({ endpoint }) => endpoint)
}

/**
 * What is due of an endpoint, the longest due first; also what is being made. Read from an index
 * alone: it is asked for at each delivery.
 */
export async function listDue(
  sql: Sql,
  endpoint: string,
  now: number,
  limit: number
): Promise<number[]> {
  return (
    await sql.rows<{ id: number }>(
      `SELECT id FROM delivery FORCE INDEX (of_endpoint) WHERE endpoint_id = ? AND state = 'pending' AND next_at <= ? ORDER BY next_at, id LIMIT ${Math.trunc(limit)}`,
      [endpoint, now]
    )
  ).map(({ id }) => id)
}

/** So many are read at a time, at most; fewer are asked for with the same statement. */
export const MAX_READ = 16

/** Those of these that are due still, with all that they need, the longest due first. */
export async function readDue(
  sql: Sql,
  ids: readonly number[],
  now: number
): Promise<DueDelivery[]> {
  const rows = await sql.rows<Row>(
    `SELECT d.id, d.endpoint, d.made_by, d.does, d.attempts, d.created_at, d.alarm_id, site.id AS site_id, site.name AS site, site.time_zone, camera.id AS camera_id, camera.name AS camera, camera.position + 1 AS number,
            run.clip_id, t.kind, t.fired_with, t.target, t.frame, t.clip_seconds, t.direction, t.cause, t.severity, t.fired_at
       FROM delivery d
       LEFT JOIN fired_trigger t ON t.id = d.trigger_id
       LEFT JOIN run ON run.id = t.run_id
       LEFT JOIN alarm ON alarm.id = d.alarm_id
       JOIN camera ON camera.id = COALESCE(t.camera_id, alarm.camera_id)
       JOIN site ON site.id = camera.site_id
      WHERE d.id IN (${Array.from({ length: MAX_READ }, () => '?').join()}) AND d.state = 'pending' AND d.next_at <= ? ORDER BY d.next_at, d.id`,
    [...Array.from({ length: MAX_READ }, (_, i) => ids[i] ?? 0), now]
  )
  return rows.map((r) => ({
    id: r.id,
    endpoint: parsed<Endpoint>(r.endpoint),
    by: r.made_by,
    does: r.does,
    attempts: r.attempts,
    createdAt: r.created_at,
    site: { id: r.site_id, name: r.site, timeZone: r.time_zone },
    camera: { id: r.camera_id, name: r.camera, number: r.number },
    alarm: r.alarm_id,
    trigger:
      r.kind === null
        ? null
        : {
            kind: r.kind,
            detection: parsed<Detection>(r.fired_with),
            clip:
              r.clip_id === null
                ? null
                : { id: r.clip_id, frame: r.frame ?? 0, time: r.clip_seconds ?? 0 },
            firedAt: r.fired_at!,
            ...(r.target !== null && { target: r.target }),
            ...(r.direction && { direction: r.direction }),
            ...(r.cause && { cause: r.cause }),
            ...(r.severity && { severity: r.severity })
          }
  }))
}

const note = (
  sql: Sql,
  id: number,
  at: number,
  ok: boolean,
  outcome: Said | string
): Promise<unknown> =>
  sql.run('INSERT INTO delivery_attempt (delivery_id, made_at, ok, words) VALUES (?, ?, ?, ?)', [
    id,
    at,
    ok,
    outcomeText(outcome)
  ])

/** A delivery that has been made. */
export interface Made {
  id: number
  outcome: Said | string
  result: object | null
  /** When it was begun and when it was made, ms of UTC. */
  begun: number
  at: number
}

/** They have been confirmed; from now on they are never made again. All of them are noted, or none. */
export async function markSent(database: Database, made: readonly Made[]): Promise<void> {
  // One text for any number of them: a statement of its own for each number would have to be kept ready.
  const table = (some: readonly Made[]): string =>
    JSON.stringify(
      some.map(({ id, begun, at, outcome, result }) => ({
        id,
        begun,
        at,
        words: outcomeText(outcome),
        result: result && JSON.stringify(result)
      }))
    )
  const inOrder = [...made].sort((a, b) => a.id - b.id)
  await database.transaction(async (sql) => {
    // A camera may have said so in the meantime.
    const pending = await sql.rows<{ id: number }>(
      `SELECT made.id FROM ${MADE} STRAIGHT_JOIN delivery ON delivery.id = made.id WHERE state = 'pending' FOR UPDATE`,
      [table(inOrder)]
    )
    const ids = new Set(pending.map(({ id }) => id))
    const noted = table(inOrder.filter(({ id }) => ids.has(id)))
    await sql.run(
      `UPDATE ${MADE} STRAIGHT_JOIN delivery ON delivery.id = made.id
          SET state = 'sent', attempts = attempts + 1, error = NULL, begun_at = COALESCE(begun_at, made.begun), sent_at = made.at, delivery.result = made.result`,
      [noted]
    )
    await sql.run(
      `INSERT INTO delivery_attempt (delivery_id, made_at, ok, words) SELECT id, at, TRUE, words FROM ${MADE}`,
      [noted]
    )
  })
}

const MADE =
  "JSON_TABLE(?, '$[*]' COLUMNS (id BIGINT PATH '$.id', begun BIGINT PATH '$.begun', at BIGINT PATH '$.at', words LONGTEXT PATH '$.words', result LONGTEXT PATH '$.result')) made"

/** Notes a failed attempt; `nextAt` null gives up. */
export async function markFailed(
  database: Database,
  id: number,
  error: Said | string,
  nextAt: number | null,
  begun: number,
  now: number
): Promise<void> {
  await database.transaction(async (sql) => {
    // A camera may have said so in the meantime.
    const { affectedRows } = await sql.run(
      "UPDATE delivery SET state = ?, attempts = attempts + 1, error = ?, begun_at = COALESCE(begun_at, ?), next_at = ? WHERE id = ? AND state = 'pending'",
      [nextAt === null ? 'failed' : 'pending', outcomeText(error), begun, nextAt ?? 0, id]
    )
    if (affectedRows) await note(sql, id, now, false, error)
  })
}

/** A camera has reported that it switched an output of its own: what waited for that is done. */
export async function confirmByCamera(
  sql: Sql,
  siteId: string,
  endpoint: string,
  now: number
): Promise<void> {
  const rows = await sql.rows<{ id: number }>(
    "SELECT id FROM delivery WHERE endpoint_id = ? AND made_by = 'camera' AND state = 'pending' AND alarm_id IN (SELECT id FROM alarm WHERE site_id = ?) FOR UPDATE",
    [endpoint, siteId]
  )
  for (const { id } of rows) {
    await sql.run(
      "UPDATE delivery SET state = 'sent', attempts = attempts + 1, sent_at = ? WHERE id = ?",
      [now, id]
    )
    await note(sql, id, now, true, said('deliveries.cameraSaidActive'))
  }
}

/** A failed one is tried once more. @returns whether there was one */
export async function tryAgain(sql: Sql, id: number, now: number): Promise<boolean> {
  return (
    (
      await sql.run(
        "UPDATE delivery SET state = 'pending', next_at = ?, attempts = 0, created_at = ?, made_by = 'server' WHERE id = ? AND state = 'failed'",
        [now, now, id]
      )
    ).affectedRows === 1
  )
}

/** What a delivery left: files, and what a device was told to record. */
export interface Result {
  files?: { name: string; type: string }[]
  recording?: { device: string; token: string }
}

/** A delivery's recording, among its files. */
export const RECORDING = { name: 'recording.mp4', type: 'video/mp4' }

export async function keepResult(sql: Sql, id: number, result: Result): Promise<void> {
  await sql.run('UPDATE delivery SET result = ? WHERE id = ?', [JSON.stringify(result), id])
}

export async function readResult(sql: Sql, id: number): Promise<Result | null> {
  const [row] = await sql.rows<{ result: unknown }>('SELECT result FROM delivery WHERE id = ?', [
    id
  ])
  return row?.result ? parsed(row.result) : null
}

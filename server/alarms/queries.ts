import type { MarkKind } from '../../core/marks/marks.ts'
import { said, saidOf } from '../../core/messages/said.ts'
import { hostOf } from '../deliveries/hostOf.ts'
import type {
  AlarmNote,
  AlarmView,
  AttemptView,
  DeliveryState,
  DeliveryView
} from '../../core/api.ts'
import {
  PRIORITIES,
  type Actions,
  type Endpoint,
  type EndpointKind,
  type People,
  type Priority
} from '../../core/formats/actions.ts'
import { readSettings } from '../actions/queries.ts'
import type { Sql } from '../database.ts'
import { notFound } from '../errors.ts'
import type { Author } from '../history/queries.ts'
import { parsed } from '../columns.ts'
import type { DetectionNote, Severity } from '../../core/kinds/parts.ts'

interface DeliveryRow {
  id: number
  trigger_id: number | null
  alarm_id: number | null
  kind: EndpointKind
  recipient: string
  state: DeliveryState
  made_by: 'server' | 'camera'
  does: 'on' | 'off'
  attempts: number
  error: string | null
  created_at: number
  sent_at: number | null
  next_at: number
  endpoint: unknown
}

const DELIVERY_COLUMNS =
  'd.id, d.trigger_id, d.alarm_id, d.kind, d.recipient, d.state, d.made_by, d.does, d.attempts, d.error, d.created_at, d.sent_at, d.next_at, d.endpoint'

/** The host of an address, without whatever else it holds. */

const deliveryOf = (row: DeliveryRow): DeliveryView => ({
  id: row.id,
  trigger: row.trigger_id,
  kind: row.kind,
  name: row.endpoint === null ? row.kind : parsed<Endpoint>(row.endpoint).name,
  // Addresses of webhooks hold names, passwords and keys: who only looks at alarms is shown the host.
  recipient: row.kind === 'webhook' ? hostOf(row.recipient) : row.recipient,
  state: row.state,
  by: row.made_by,
  does: row.does,
  attempts: row.attempts,
  error: row.error === null ? null : saidOf(row.error),
  createdAt: row.created_at,
  sentAt: row.sent_at,
  nextAt: row.state === 'pending' ? row.next_at : null
})

/** Deliveries of triggers, by trigger. */
export async function deliveriesOfRun(
  sql: Sql,
  runId: string
): Promise<Map<number, DeliveryView[]>> {
  const rows = await sql.rows<DeliveryRow>(
    `SELECT ${DELIVERY_COLUMNS} FROM delivery d JOIN fired_trigger t ON t.id = d.trigger_id WHERE t.run_id = ? ORDER BY d.id`,
    [runId]
  )
  const all = new Map<number, DeliveryView[]>()
  for (const row of rows)
    all.set(row.trigger_id!, [...(all.get(row.trigger_id!) ?? []), deliveryOf(row)])
  return all
}

interface AlarmRow {
  id: number
  site_id: string
  camera_id: string
  camera_name: string
  detection_id: string
  name: string
  severity: Severity
  priority: Priority
  state: AlarmView['state']
  actions: unknown
  first_at: number
  last_at: number
  triggers: number
  acknowledged_at: number | null
  acknowledged_by: string | null
  comment: string | null
  run_id: string | null
  handed_to: string | null
  note: unknown
}

const select = `SELECT a.id, a.site_id, a.camera_id, camera.name AS camera_name, a.detection_id, a.name, a.severity, a.priority, a.state, a.actions, a.first_at, a.last_at, a.triggers, a.acknowledged_at, a.acknowledged_by, a.comment, a.run_id, a.handed_to, JSON_EXTRACT(d.body, '$.note') AS note
    FROM alarm a JOIN camera ON camera.id = a.camera_id LEFT JOIN detection d ON d.camera_id = a.camera_id AND d.id = a.detection_id`

const alarmOf = (
  row: AlarmRow,
  deliveries: DeliveryView[],
  people: People,
  mark: MarkKind | null
): AlarmView => {
  const actions = parsed<Actions>(row.actions)
  return {
    id: row.id,
    camera: row.camera_id,
    cameraName: row.camera_name,
    detection: row.detection_id,
    name: row.name,
    note: row.note === null ? null : parsed<DetectionNote>(row.note),
    severity: row.severity,
    priority: row.priority,
    state: row.state,
    acknowledge: actions.acknowledge,
    for: actions.for,
    forNames: actions.for.map(
      (id) => [...people.groups, ...people.people].find((w) => w.id === id)?.name ?? id
    ),
    assignee: row.handed_to,
    firstAt: row.first_at,
    lastAt: row.last_at,
    triggers: row.triggers,
    acknowledgedAt: row.acknowledged_at,
    acknowledgedBy: row.acknowledged_by,
    comment: row.comment,
    run: row.run_id,
    mark,
    deliveries
  }
}

const MAX_DELIVERIES = 200

async function withDeliveries(sql: Sql, rows: AlarmRow[]): Promise<AlarmView[]> {
  if (!rows.length) return []
  const found = await sql.rows<DeliveryRow>(
    `SELECT ${DELIVERY_COLUMNS} FROM delivery d WHERE d.alarm_id IN (${rows.map(() => '?').join()}) ORDER BY d.id DESC LIMIT ${MAX_DELIVERIES * rows.length}`,
    rows.map(({ id }) => id)
  )
  const people = (await readSettings(sql, rows[0]!.site_id)).people.people
  const marks = await marksOfAlarms(
    sql,
    rows.map(({ id }) => id)
  )
  return rows.map((row) =>
    alarmOf(
      row,
      found
        .filter((d) => d.alarm_id === row.id)
        .slice(0, MAX_DELIVERIES)
        .map(deliveryOf),
      people,
      marks.get(row.id) ?? null
    )
  )
}

/** What was said of the triggers of some alarms: by alarm, where nothing else was said of another one. */
async function marksOfAlarms(sql: Sql, alarms: readonly number[]): Promise<Map<number, MarkKind>> {
  const rows = await sql.rows<{ alarm: number; mark: MarkKind; kinds: number }>(
    `SELECT t.alarm_id AS alarm, MIN(mark.mark) AS mark, COUNT(DISTINCT mark.mark) AS kinds
       FROM fired_trigger t JOIN mark ON mark.trigger_id = t.id
      WHERE t.alarm_id IN (${alarms.map(() => '?').join()}) GROUP BY t.alarm_id`,
    [...alarms]
  )
  return new Map(rows.filter(({ kinds }) => Number(kinds) === 1).map((r) => [r.alarm, r.mark]))
}

/** As they are dealt with: the highest priority first. */
const byPriority = `FIELD(a.priority, ${PRIORITIES.map((p) => `'${p}'`).join()}) DESC, a.last_at DESC, `

/**
 * Alarms of a state, or of any, newest first, before an id (or from the newest); those that wait in
 * the order in which they are dealt with.
 */
export async function readAlarms(
  sql: Sql,
  siteId: string,
  {
    state,
    before,
    limit
  }: { state: AlarmView['state'] | 'open' | null; before: number | null; limit: number }
): Promise<AlarmView[]> {
  const rows = await sql.rows<AlarmRow>(
    `${select} WHERE a.site_id = ? AND a.id < ? ${state === null ? '' : state === 'open' ? "AND a.state <> 'closed'" : 'AND a.state = ?'} ORDER BY ${state === 'waiting' ? byPriority : ''}a.id DESC LIMIT ${Math.trunc(limit)}`,
    [
      siteId,
      before ?? Number.MAX_SAFE_INTEGER,
      ...(state === null || state === 'open' ? [] : [state])
    ]
  )
  return withDeliveries(sql, rows)
}

export async function countWaiting(sql: Sql, siteId: string): Promise<number> {
  return (
    await sql.rows<{ n: number }>(
      "SELECT COUNT(*) AS n FROM alarm WHERE site_id = ? AND state = 'waiting'",
      [siteId]
    )
  )[0]!.n
}

export async function readAlarm(sql: Sql, id: number): Promise<AlarmView> {
  const rows = await sql.rows<AlarmRow>(`${select} WHERE a.id = ?`, [id])
  if (!rows.length) throw notFound(said('things.alarm', id))
  return (await withDeliveries(sql, rows))[0]!
}

/** The actions that an alarm began with, under lock. */
export async function lockAlarm(
  sql: Sql,
  id: number
): Promise<{ site: string; state: AlarmView['state']; actions: Actions }> {
  const [row] = await sql.rows<{ site: string; state: AlarmView['state']; actions: unknown }>(
    'SELECT site_id AS site, state, actions FROM alarm WHERE id = ? FOR UPDATE',
    [id]
  )
  if (!row) throw notFound(said('things.alarm', id))
  return { ...row, actions: parsed<Actions>(row.actions) }
}

export async function noteAlarm(
  sql: Sql,
  alarm: number,
  what: AlarmNote['what'],
  words: string,
  { by, byId }: Author,
  now: number
): Promise<void> {
  await sql.run(
    'INSERT INTO alarm_note (alarm_id, what, words, made_by, made_by_id, made_at) VALUES (?, ?, ?, ?, ?, ?)',
    [alarm, what, words, by, byId, now]
  )
}

export async function readNotes(sql: Sql, alarm: number): Promise<AlarmNote[]> {
  const rows = await sql.rows<{
    id: number
    what: AlarmNote['what']
    words: string
    made_by: string
    made_at: number
  }>('SELECT id, what, words, made_by, made_at FROM alarm_note WHERE alarm_id = ? ORDER BY id', [
    alarm
  ])
  return rows.map(({ id, what, words, made_by: by, made_at: at }) => ({ id, what, words, by, at }))
}

export async function markClosed(sql: Sql, id: number, now: number): Promise<void> {
  await sql.run("UPDATE alarm SET state = 'closed', closed_at = ? WHERE id = ?", [now, id])
}

export async function markHanded(sql: Sql, id: number, to: string): Promise<void> {
  await sql.run('UPDATE alarm SET handed_to = ? WHERE id = ?', [to, id])
}

export async function markAcknowledged(
  sql: Sql,
  id: number,
  author: Author,
  comment: string,
  now: number
): Promise<void> {
  await noteAlarm(sql, id, 'acknowledged', comment, author, now)
  await sql.run('UPDATE fired_trigger SET acknowledged = TRUE WHERE alarm_id = ?', [id])
  await sql.run(
    "UPDATE alarm SET state = 'acknowledged', acknowledged_at = ?, acknowledged_by = ?, acknowledged_by_id = ?, comment = ? WHERE id = ?",
    [now, author.by, author.byId, comment || null, id]
  )
}

/** Relays that an alarm has closed until it is acknowledged, each once. */
export async function closedUntilAcknowledged(
  sql: Sql,
  alarm: number
): Promise<{ endpoint: Endpoint; recipient: string }[]> {
  const rows = await sql.rows<{ endpoint: unknown; recipient: string }>(
    "SELECT DISTINCT endpoint, recipient FROM delivery WHERE alarm_id = ? AND kind = 'relay' AND does = 'on' AND state <> 'held'",
    [alarm]
  )
  const found = rows
    .map(({ endpoint, recipient }) => ({ endpoint: parsed<Endpoint>(endpoint), recipient }))
    .filter(({ endpoint }) => 'mode' in endpoint && endpoint.mode === 'untilAcknowledged')
  return found.filter((f, i) => found.findIndex((g) => g.endpoint.id === f.endpoint.id) === i)
}

export async function readAttempts(sql: Sql, delivery: number): Promise<AttemptView[]> {
  return (
    await sql.rows<{ made_at: number; ok: number; words: string }>(
      'SELECT made_at, ok, words FROM delivery_attempt WHERE delivery_id = ? ORDER BY id',
      [delivery]
    )
  ).map((r) => ({ at: r.made_at, ok: r.ok !== 0, outcome: saidOf(r.words) }))
}

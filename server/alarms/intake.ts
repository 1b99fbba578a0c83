import { said, type Said } from '../../core/messages/said.ts'
import { joins } from '../../core/actions/alarms.ts'
import { planDeliveries, type PlannedDelivery, type SiteActions } from '../../core/actions/plan.ts'
import type { Trigger } from '../../core/detections/index.ts'
import { type Actions, type Endpoint } from '../../core/formats/actions.ts'
import { NO_ACTIONS } from '../../core/formats/noActions.ts'
import type { Detection } from '../../core/formats/plan.ts'
import type { TargetClass } from '../../core/targets/classes.ts'
import type { Sql } from '../database.ts'
import { notFound } from '../errors.ts'
import { outcomeText, parsed } from '../columns.ts'
import { deliveryKind } from '../deliveries/kinds.ts'
import type { Severity } from '../../core/kinds/parts.ts'

/** A trigger that has fallen, wherever it comes from. */
export interface NewTrigger {
  source: 'run' | 'device' | 'sender'
  run?: string
  device?: string
  /** The sender's own name for it: the same is taken once. */
  key?: string
  camera: string
  /** As it was when it triggered. */
  detection: Detection
  trigger: Pick<Trigger, 'target' | 'direction' | 'cause' | 'severity'> & {
    frame?: number
    time?: number
    /** Of the target, where it is known. */ class?: TargetClass
  }
  /** Milliseconds of UTC; of a run, on the clip's own clock. */
  firedAt: number
  byCamera: ReadonlySet<string>
  /** Endpoints that are not to act, by id. */
  withheld?: ReadonlySet<string>
  /** Of a walk test: hours are read so much later (ms), and earlier actions do not keep this one quiet. */
  walk?: { later: number } | null
}

export interface Ingested {
  id: number
  /** The id of its site. */
  site: string
  alarm: number
  deliveries: number
  /** It had been taken before. */
  again: boolean
  /** When its device said it, by the clock here; left out: now. */
  at?: number
}

/** How long a camera may take to report that it has switched its own output. */
const CAMERA_WITHIN_MS = 15_000

interface AlarmRow {
  id: number
  state: 'waiting' | 'acknowledged' | 'closed'
  last_at: number
  acted_at: number | null
}

/**
 * Takes a trigger: the trigger, its alarm and all its deliveries are written in the transaction of the caller, all or
 * nothing. Triggers of one detection are taken one after the other.
 *
 * @param names of devices and cameras, for what people read
 */
export async function takeTrigger(
  sql: Sql,
  siteId: string,
  site: SiteActions,
  names: ReadonlyMap<string, string>,
  t: NewTrigger,
  now: number
): Promise<Ingested> {
  // The detection's row is the lock; what follows reads what is committed.
  const [row] = await sql.rows<{ actions: unknown }>(
    'SELECT a.body AS actions FROM detection d LEFT JOIN detection_actions a ON a.camera_id = d.camera_id AND a.detection_id = d.id WHERE d.camera_id = ? AND d.id = ? FOR UPDATE',
    [t.camera, t.detection.id]
  )
  if (!row) throw notFound(said('things.detection', t.detection.id.slice(0, 64)))
  if (t.key !== undefined) {
    const [known] = await sql.rows<{ id: number; alarm_id: number; deliveries: number }>(
      'SELECT id, alarm_id, (SELECT COUNT(*) FROM delivery WHERE delivery.trigger_id = fired_trigger.id) AS deliveries FROM fired_trigger WHERE camera_id = ? AND sender_key = ?',
      [t.camera, t.key]
    )
    if (known)
      return {
        id: known.id,
        site: siteId,
        alarm: known.alarm_id,
        deliveries: known.deliveries,
        again: true
      }
  }
  const actions = row.actions === null ? NO_ACTIONS : parsed<Actions>(row.actions)
  const severity: Severity = t.trigger.severity ?? actions.severity
  const [last] = await sql.rows<AlarmRow>(
    `SELECT id, state, last_at, acted_at FROM alarm WHERE camera_id = ? AND detection_id = ? AND ${t.run === undefined ? 'run_id IS NULL' : 'run_id = ?'} ORDER BY id DESC LIMIT 1`,
    [t.camera, t.detection.id, ...(t.run === undefined ? [] : [t.run])]
  )
  const planned = planDeliveries(
    {
      instant: t.firedAt + (t.walk?.later ?? 0),
      severity,
      lastActedAt: t.walk ? null : (last?.acted_at ?? null),
      byCamera: t.byCamera,
      ...(t.withheld && { withheld: t.withheld })
    },
    actions,
    site
  )
  const actedAt = planned.length ? t.firedAt : (last?.acted_at ?? null)
  const alarm =
    last && joins({ state: last.state, lastAt: last.last_at }, t.firedAt, actions)
      ? await grow(sql, last.id, t.firedAt, actedAt)
      : await begin(sql, siteId, t, actions, severity, actedAt)
  const { insertId: id } = await sql.run(
    `INSERT INTO fired_trigger (run_id, camera_id, detection_id, kind, class, way, target, frame, clip_seconds, direction, cause, severity, fired_at, fired_with, source, sender_key, device_id, alarm_id)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    [
      t.run ?? null,
      t.camera,
      t.detection.id,
      t.detection.kind,
      t.trigger.class ?? null,
      wayOf(t),
      t.trigger.target ?? null,
      t.trigger.frame ?? null,
      t.trigger.time ?? null,
      t.trigger.direction ?? null,
      t.trigger.cause ?? null,
      severity,
      t.firedAt,
      JSON.stringify(t.detection),
      t.source,
      t.key ?? null,
      t.device ?? null,
      alarm
    ]
  )
  await insertDeliveries(
    sql,
    planned.map((p) => ({
      trigger: id,
      alarm,
      endpoint: p.endpoint,
      recipient: deliveryKind(p.endpoint.kind).recipient(p.endpoint, {
        camera: t.camera,
        people: site.people,
        named: (id) => names.get(id) ?? id
      }),
      by: p.by,
      does: 'on',
      at: now + (p.by === 'camera' ? CAMERA_WITHIN_MS : p.waitMs),
      held: p.held
    })),
    now
  )
  for (const p of planned) await followRelay(sql, siteId, p, alarm, names, now)
  return { id, site: siteId, alarm, deliveries: planned.length, again: false }
}

/** From which named side to which a line was crossed. */
function wayOf({ detection: d, trigger: { direction } }: NewTrigger): string | null {
  if (!('sides' in d) || !direction || !d.sides?.left || !d.sides.right) return null
  return direction === 'leftToRight'
    ? `${d.sides.left} → ${d.sides.right}`
    : `${d.sides.right} → ${d.sides.left}`
}

async function grow(
  sql: Sql,
  id: number,
  firedAt: number,
  actedAt: number | null
): Promise<number> {
  await sql.run(
    'UPDATE alarm SET last_at = GREATEST(last_at, ?), acted_at = ?, triggers = triggers + 1 WHERE id = ?',
    [firedAt, actedAt, id]
  )
  return id
}

async function begin(
  sql: Sql,
  siteId: string,
  { camera, detection, firedAt, run }: NewTrigger,
  actions: Actions,
  severity: Severity,
  actedAt: number | null
): Promise<number> {
  const { insertId } = await sql.run(
    "INSERT INTO alarm (site_id, camera_id, detection_id, name, severity, priority, state, actions, first_at, last_at, acted_at, triggers, run_id) VALUES (?, ?, ?, ?, ?, ?, 'waiting', ?, ?, ?, ?, 1, ?)",
    [
      siteId,
      camera,
      detection.id,
      detection.name,
      severity,
      actions.priority,
      JSON.stringify(actions),
      firedAt,
      firedAt,
      actedAt,
      run ?? null
    ]
  )
  return insertId
}

/** A relay that follows opens some seconds after the last trigger: what would open it earlier is put off. */
async function followRelay(
  sql: Sql,
  siteId: string,
  { endpoint, by, held }: PlannedDelivery,
  alarm: number,
  names: ReadonlyMap<string, string>,
  now: number
): Promise<void> {
  if (!('mode' in endpoint) || endpoint.mode !== 'follow' || by === 'camera' || held !== null)
    return
  const at = now + endpoint.seconds * 1000
  const { affectedRows } = await sql.run(
    "UPDATE delivery SET next_at = ? WHERE endpoint_id = ? AND does = 'off' AND state = 'pending' AND alarm_id IN (SELECT id FROM alarm WHERE site_id = ?)",
    [at, endpoint.id, siteId]
  )
  if (!affectedRows)
    await insertDeliveries(
      sql,
      [
        {
          trigger: null,
          alarm,
          endpoint,
          recipient: names.get(endpoint.device) ?? endpoint.device,
          by: 'server',
          does: 'off',
          at,
          held: null
        }
      ],
      now
    )
}

export interface NewDelivery {
  trigger: number | null
  alarm: number | null
  endpoint: Endpoint
  recipient: string
  by: 'server' | 'camera'
  does: 'on' | 'off'
  /** When it is due; of a camera's own, until when it may say that it has. */
  at: number
  held: Said | null
}

/** All of them in one statement, in their order. */
export async function insertDeliveries(
  sql: Sql,
  list: readonly NewDelivery[],
  now: number
): Promise<void> {
  if (!list.length) return
  await sql.run(
    `INSERT INTO delivery (trigger_id, alarm_id, kind, recipient, state, next_at, error, endpoint_id, endpoint, made_by, does, created_at) VALUES ${list.map(() => '(?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)').join(', ')}`,
    list.flatMap((d) => [
      d.trigger,
      d.alarm,
      d.endpoint.kind,
      d.recipient.slice(0, 500),
      d.held === null ? 'pending' : 'held',
      d.at,
      d.held && outcomeText(d.held),
      d.endpoint.id,
      JSON.stringify(d.endpoint),
      d.by,
      d.does,
      now
    ])
  )
}

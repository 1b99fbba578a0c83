import { said } from '../../core/messages/said.ts'
import { acknowledgeLacks } from '../../core/actions/alarms.ts'
import type { AlarmView } from '../../core/api.ts'
import { InputError } from '../../core/errors.ts'
import { isOutput } from '../../core/formats/actions.ts'
import type { Database, Sql } from '../database.ts'
import { findDetection } from '../detections/queries.ts'
import { conflict, notFound } from '../errors.ts'
import type { Author } from '../history/queries.ts'
import { readContext, type ActionsContext } from './context.ts'
import { insertDeliveries, takeTrigger, type NewTrigger, type Ingested } from './intake.ts'
import { siteOfCamera } from '../sites/queries.ts'
import {
  closedUntilAcknowledged,
  lockAlarm,
  markAcknowledged,
  markClosed,
  markHanded,
  noteAlarm,
  readAlarm
} from './queries.ts'

/** An alarm that is new or has changed. */
export interface TakenAlarm {
  /** The id of its site. */
  site: string
  alarm: number
  trigger?: number
  at?: number
}

/** Takes triggers, and what people do about the alarms that come of them. */
export class Alarms {
  private readonly database: Database
  private readonly wake: () => void
  private readonly tell: (what: TakenAlarm) => void

  /**
   * @param kick deliveries may be due
   * @param tell an alarm is new or has changed, by a trigger or by what somebody did
   */
  constructor(database: Database, wake: () => void, tell: (what: TakenAlarm) => void) {
    this.database = database
    this.wake = wake
    this.tell = tell
  }

  /** Takes a trigger in a transaction of its own; when this returns, it and all its deliveries are kept. */
  async take(trigger: NewTrigger): Promise<Ingested> {
    const taken = await this.database.transaction((sql) => this.ingest(sql, trigger))
    this.taken(taken)
    return taken
  }

  /**
   * The same in the transaction of the caller, who says `taken` once it is committed.
   *
   * @param context of the camera's site, where the caller has read it in this transaction
   */
  async ingest(sql: Sql, trigger: NewTrigger, context?: ActionsContext): Promise<Ingested> {
    const { site, actions, names } =
      context ?? (await readContext(sql, await siteOfCamera(sql, trigger.camera)))
    return takeTrigger(sql, site.id, actions, names, trigger, Date.now())
  }

  taken({ id, site, alarm, again, at }: Ingested): void {
    if (again) return
    this.wake()
    this.tell({ site, alarm, trigger: id, ...(at !== undefined && { at }) })
  }

  /** A trigger from elsewhere, by the ids of what triggered. @throws ApiError when there is no such detection */
  async send({
    key,
    camera,
    detection: id,
    at,
    ...trigger
  }: {
    key: string
    camera: string
    detection: string
    at?: number
    target?: number
    direction?: 'leftToRight' | 'rightToLeft'
    cause?: NewTrigger['trigger']['cause']
  }): Promise<Ingested> {
    const detection = await findDetection(this.database, camera, id)
    if (!detection) throw notFound(said('things.detectionOn', id.slice(0, 64), camera.slice(0, 64)))
    if (!detection.enabled) throw conflict(said('alarms.isSwitchedOff', detection.name))
    return this.take({
      source: 'sender',
      key,
      camera,
      detection,
      trigger: { ...trigger, ...('severity' in detection && { severity: detection.severity }) },
      firedAt: at ?? Date.now(),
      byCamera: new Set()
    })
  }

  /**
   * Acknowledges an alarm, with all that this does: relays that it closed open, the output that was chosen is switched.
   *
   * @throws InputError when something has to be given first; ApiError when somebody was faster
   */
  async acknowledge(
    id: number,
    given: Author & { comment: string; confirmed: boolean }
  ): Promise<AlarmView> {
    const site = await this.database.transaction(async (sql) => {
      const { state, actions, site } = await lockAlarm(sql, id)
      if (state !== 'waiting') throw conflict(said('alarms.somebodyHasAcknowledgedThisAlarm'))
      const lacks = acknowledgeLacks(actions.acknowledge, given)
      if (lacks) throw new InputError('acknowledging', lacks)
      const now = Date.now()
      await markAcknowledged(sql, id, given, given.comment.trim(), now)
      const byAlarm = {
        trigger: null,
        alarm: id,
        by: 'server' as const,
        at: now,
        held: null
      }
      await insertDeliveries(
        sql,
        (await closedUntilAcknowledged(sql, id)).map((one) => ({
          ...byAlarm,
          ...one,
          does: 'off' as const
        })),
        now
      )
      const { switch: wanted } = actions.acknowledge
      if (!wanted) return site
      const context = await readContext(sql, site)
      const endpoint = context.actions.endpoints.find((e) => e.id === wanted.endpoint)
      if (endpoint && isOutput(endpoint))
        await insertDeliveries(
          sql,
          [
            {
              ...byAlarm,
              endpoint,
              recipient: context.names.get(endpoint.device) ?? endpoint.device,
              does: wanted.on ? 'on' : 'off'
            }
          ],
          now
        )
      return site
    })
    this.wake()
    this.tell({ site, alarm: id })
    return readAlarm(this.database, id)
  }

  async comment(id: number, words: string, by: Author): Promise<AlarmView> {
    return this.write(id, (sql) => noteAlarm(sql, id, 'comment', words, by, Date.now()))
  }

  async hand(id: number, to: string, by: Author): Promise<AlarmView> {
    return this.write(id, async (sql, state) => {
      if (state === 'closed') throw conflict(said('alarms.thisAlarmHasBeenClosed'))
      await markHanded(sql, id, to)
      await noteAlarm(sql, id, 'handed', to, by, Date.now())
    })
  }

  /** Closes an acknowledged alarm: nothing is left to do about it. */
  async close(id: number, words: string, by: Author): Promise<AlarmView> {
    return this.write(id, async (sql, state) => {
      if (state === 'waiting') throw conflict(said('alarms.thisAlarmHasNotBeen'))
      if (state === 'closed') throw conflict(said('alarms.thisAlarmHasBeenClosed2'))
      await markClosed(sql, id, Date.now())
      await noteAlarm(sql, id, 'closed', words.trim(), by, Date.now())
    })
  }

  private async write(
    id: number,
    work: (sql: Sql, state: AlarmView['state']) => Promise<void>
  ): Promise<AlarmView> {
    const site = await this.database.transaction(async (sql) => {
      const { state, site } = await lockAlarm(sql, id)
      await work(sql, state)
      return site
    })
    this.tell({ site, alarm: id })
    return readAlarm(this.database, id)
  }
}

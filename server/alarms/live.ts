import { armedAt } from '../../core/arming/armedNow.ts'
import { setsOff } from '../../core/devices/outputs.ts'
import { isOutput } from '../../core/formats/actions.ts'
import {
  TAMPER_CAUSES,
  type ContactDetection,
  type Detection,
  type SignalLossDetection,
  type TamperCause
} from '../../core/formats/plan.ts'
import { classNames } from '../../core/formats/onvif/parameters.ts'
import { CLASSES } from '../../core/targets/classes.ts'
import type { Database, Sql } from '../database.ts'
import { channelsOf, listChannels, type ChannelRow } from '../devices/channelQueries.ts'
import type { Devices } from '../devices/service.ts'
import type { DeviceEvent } from '../devices/link/events.ts'
import { readDevice, type DeviceRow } from '../devices/queries.ts'
import { confirmByCamera } from '../deliveries/queries.ts'
import { detectionsOfKind, findDetection } from '../detections/queries.ts'
import { siteOfCamera } from '../sites/queries.ts'
import type { Alarms } from './service.ts'
import { inputsNow, readContext, type ActionsContext } from './context.ts'
import type { NewTrigger, Ingested } from './intake.ts'

const LOOK_MS = 1000
/** A device answers a question that it holds open after this long: silence up to then is none. */
const USUAL_SILENCE_MS = 2500
/** Shorter times of a contact's debounce are over before the server has heard of it. */
const SHORT_DEBOUNCE_S = 1

/** Walk tests, as they concern triggers. */
export interface Walks {
  /** The walk that went on in front of a camera at an instant: by how much hours are read later, ms. */
  walkAt: (camera: string, instant: number) => { later: number } | null
  /** When a device said something, by the clock here. */
  momentOf: (device: string, saidAt: number, heardAt: number) => number
}

/**
 * Live triggers: rules that fire on devices, contacts, and cameras that go silent. Hours and arm inputs hold here for
 * what a device cannot hold itself.
 */
export class LiveTriggers {
  private readonly database: Database
  private readonly devices: Devices
  private readonly alarms: Alarms
  private readonly log: (error: unknown) => void
  private readonly began = Date.now()
  /** Signal losses that have triggered, as `camera detection`, until the device is heard again. */
  private readonly silent = new Set<string>()
  private readonly debounced = new Map<string, NodeJS.Timeout>()
  /** What has been read of sites, by the transaction in which it was. */
  private readonly contexts = new WeakMap<Sql, Map<string, ActionsContext>>()
  private timer: NodeJS.Timeout | undefined
  private looking: Promise<void> = Promise.resolve()
  private readonly walks: Walks

  constructor(
    database: Database,
    devices: Devices,
    alarms: Alarms,
    log: (error: unknown) => void,
    walks: Walks
  ) {
    this.walks = walks
    this.database = database
    this.devices = devices
    this.alarms = alarms
    this.log = log
  }

  start(): void {
    this.timer = setInterval(
      () => void (this.looking = this.lookForSilence().catch(this.log)),
      LOOK_MS
    )
  }

  async close(): Promise<void> {
    clearInterval(this.timer)
    for (const timer of this.debounced.values()) clearTimeout(timer)
    await this.looking
  }

  /** Takes what a device has said, in the transaction that keeps it. @returns what to say once that is committed */
  async heard(sql: Sql, device: string, events: readonly DeviceEvent[]): Promise<() => void> {
    const relevant = events.filter(
      ({ topic }) =>
        topic.includes('RuleEngine/') || topic.endsWith('/DigitalInput') || topic.endsWith('/Relay')
    )
    if (!relevant.length) return () => {}
    const channels = await channelsOf(sql, device)
    const taken: Ingested[] = []
    // Most events trigger nothing: the rest of the site is read only when one may, and once in a transaction.
    let row: Promise<DeviceRow> | null = null
    const ofDevice = (): Promise<DeviceRow> => (row ??= readDevice(sql, device))
    const context = async (): Promise<ActionsContext> => {
      const { site } = await ofDevice()
      const known = this.contexts.get(sql) ?? new Map<string, ActionsContext>()
      this.contexts.set(sql, known)
      const read = known.get(site) ?? (await readContext(sql, site))
      known.set(site, read)
      return read
    }
    for (const event of relevant) {
      if (event.topic.includes('RuleEngine/'))
        taken.push(...(await this.rule(sql, ofDevice, event, channels, context)))
      else if (event.topic.endsWith('/Relay')) await this.output(sql, device, event, context)
      else taken.push(...(await this.contact(sql, device, event, context)))
    }
    return () => taken.forEach((t) => this.alarms.taken(t))
  }

  /** A rule on the device has triggered. */
  private async rule(
    sql: Sql,
    ofDevice: () => Promise<DeviceRow>,
    event: DeviceEvent,
    channels: readonly ChannelRow[],
    context: () => Promise<ActionsContext>
  ): Promise<Ingested[]> {
    const channel =
      channels.find((c) => c.token === event.channel) ??
      (channels.length === 1 ? channels[0] : undefined)
    if (!channel?.camera) return []
    const detection = await findDetection(sql, channel.camera, event.rule)
    if (!detection) return []
    const { id: device, clockAhead, outputs } = await ofDevice()
    const firedAt = Math.round(
      (Number.isFinite(event.at) ? event.at : Date.now()) - (clockAhead ?? 0) * 1000
    )
    const site = await context()
    if (!this.mayFire(channel.camera, detection, site, firedAt)) return []
    const byCamera = new Set(
      site.actions.endpoints.flatMap((e) =>
        isOutput(e) &&
        e.device === device &&
        setsOff(
          outputs.find((o) => o.token === e.output)?.held ?? null,
          channel.token,
          detection.id
        )
          ? e.id
          : []
      )
    )
    // Whether it is of a walk is decided by when it was said, not by how long it was on its way.
    const at = this.walks.momentOf(device, event.at, Date.now())
    const trigger: NewTrigger = {
      source: 'device',
      device,
      camera: channel.camera,
      detection,
      trigger: triggerOf(detection, event),
      firedAt,
      byCamera,
      walk: this.walks.walkAt(channel.camera, at)
    }
    const ingested = await this.alarms.ingest(sql, trigger, site)
    return [{ ...ingested, at }]
  }

  /** An output of the device has become active: what waited for the camera to say so is done. */
  private async output(
    sql: Sql,
    device: string,
    event: DeviceEvent,
    context: () => Promise<ActionsContext>
  ): Promise<void> {
    if (!/^(active|true)$/.test(event.data.LogicalState ?? '')) return
    const site = await context()
    const endpoint = site.actions.endpoints.find(
      (e) => isOutput(e) && e.device === device && e.output === event.rule
    )
    if (endpoint) await confirmByCamera(sql, site.site.id, endpoint.id, Date.now())
  }

  private mayFire(
    camera: string,
    detection: Detection,
    { site, schedules }: ActionsContext,
    instant: number
  ): boolean {
    if (detection.parked) return false
    return armedAt(
      detection,
      schedules,
      { timeZone: site.timeZone, position: site.position ?? undefined },
      inputsNow(site, this.devices),
      instant + (this.walks.walkAt(camera, Date.now())?.later ?? 0)
    ).armed
  }

  /** Contact inputs are watched by the server: a contact has moved. */
  private async contact(
    sql: Sql,
    device: string,
    event: DeviceEvent,
    context: () => Promise<ActionsContext>
  ): Promise<Ingested[]> {
    const site = await context()
    const input = site.site.inputs.find((i) => i.device === device && i.token === event.rule)
    if (!input) return []
    const taken: Ingested[] = []
    for (const { camera, detection } of await detectionsOfKind(sql, site.site.id, 'contact')) {
      const d = detection as ContactDetection
      if (d.input !== input.id) continue
      const key = `${camera} ${d.id}`
      clearTimeout(this.debounced.get(key))
      const isActive = (set: boolean): boolean => set === (d.normally === 'open')
      if (!isActive(event.data.LogicalState === 'true')) continue
      const now = Date.now()
      const trigger: NewTrigger = {
        source: 'device',
        device,
        camera,
        detection: d,
        trigger: {},
        firedAt: now,
        byCamera: new Set(),
        walk: this.walks.walkAt(camera, now)
      }
      if (d.debounceSeconds <= SHORT_DEBOUNCE_S) {
        if (this.mayFire(camera, d, site, now))
          taken.push(await this.alarms.ingest(sql, trigger, site))
      } else {
        const after = async (): Promise<void> => {
          const at = Date.now()
          if (
            isActive(this.devices.subscriptions.contact(device, event.rule) ?? false) &&
            this.mayFire(camera, d, await readContext(this.database, site.site.id), at)
          )
            await this.alarms.take({ ...trigger, firedAt: at })
        }
        this.debounced.set(
          key,
          setTimeout(() => void after().catch(this.log), d.debounceSeconds * 1000)
        )
      }
    }
    return taken
  }

  /** Video loss is seen by the server: the device that shows a camera has not answered for the delay. */
  private async lookForSilence(): Promise<void> {
    const wanted = await detectionsOfKind(this.database, null, 'signalLoss')
    if (!wanted.length) return
    const channels = await listChannels(this.database)
    const now = Date.now()
    for (const { camera, detection } of wanted) {
      const d = detection as SignalLossDetection
      const channel = channels.find((c) => c.camera === camera && c.used && c.readAt !== null)
      const heardAt = channel ? this.devices.subscriptions.heardAt(channel.device) : null
      if (!d.enabled || !channel || heardAt === null) continue
      const key = `${camera} ${d.id}`
      if (now - Math.max(heardAt, this.began) <= d.delaySeconds * 1000 + USUAL_SILENCE_MS)
        this.silent.delete(key)
      else if (
        !this.silent.has(key) &&
        this.mayFire(
          camera,
          d,
          await readContext(this.database, await siteOfCamera(this.database, camera)),
          now
        )
      ) {
        this.silent.add(key)
        await this.alarms.take({
          source: 'device',
          device: channel.device,
          camera,
          detection: d,
          trigger: {},
          firedAt: now,
          byCamera: new Set()
        })
      }
    }
  }
}

function triggerOf(detection: Detection, { data }: DeviceEvent): NewTrigger['trigger'] {
  const target =
    data.ObjectId !== undefined && /^\d+$/.test(data.ObjectId) ? Number(data.ObjectId) : undefined
  const direction =
    data.Direction === 'Right'
      ? 'leftToRight'
      : data.Direction === 'Left'
        ? 'rightToLeft'
        : undefined
  const cause = (TAMPER_CAUSES as readonly string[]).includes(data.Cause ?? '')
    ? (data.Cause as TamperCause)
    : undefined
  const cls = CLASSES.find((c) => c !== 'unknown' && classNames[c] === data.ClassTypes)
  return {
    ...(target !== undefined && { target }),
    ...(cls && { class: cls }),
    ...(direction && { direction }),
    ...(cause && { cause }),
    ...('severity' in detection && { severity: detection.severity })
  }
}

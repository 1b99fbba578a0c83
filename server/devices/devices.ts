import { randomUUID } from 'node:crypto'
import type { DeviceDetection, DeviceState, DeviceView, SendResult } from '../../core/api.ts'
import { differencesOf, toRule } from '../../core/formats/onvif/rules.ts'
import type { Detection } from '../../core/formats/plan.ts'
import type { Database } from '../database.ts'
import { readDetections } from '../detections/rows.ts'
import { busy } from '../errors.ts'
import { insertEvents, latestEvents } from './events.ts'
import { DeviceLink, Trouble, type TroubleKind } from './link.ts'
import { Listener } from './listener.ts'
import { insertDevice, keepReading, keepTrouble, listDevices, moveDevice, readDevice, removeDevice, setAccount, type DeviceRow } from './rows.ts'
import type { Seal } from './seal.ts'

/** A clock that is off by more makes times of events wrong by more than anybody would notice. */
const CLOCK_SECONDS = 2
const POLL_MS = 30_000

const stateOf: Record<TroubleKind, DeviceState> = { offline: 'offline', slow: 'offline', 'wrong-password': 'wrong-password', 'no-account': 'no-account', broken: 'broken', refused: 'broken' }

/** The devices of the site: read on a timer and on demand, compared with the plan, sent to on one deliberate command. */
export class Devices {
  private readonly database: Database
  private readonly seal: Seal
  private readonly log: (error: unknown) => void
  private readonly reading = new Map<string, Promise<void>>()
  private readonly sending = new Set<string>()
  private readonly listeners = new Map<string, { address: string; username: string; listener: Listener }>()
  private closed = false
  private timer: NodeJS.Timeout | undefined

  constructor(database: Database, seal: Seal, log: (error: unknown) => void) {
    this.database = database
    this.seal = seal
    this.log = log
  }

  start(): void {
    const all = async (): Promise<void> => {
      for (const { id } of await listDevices(this.database)) this.read(id).catch(this.log)
    }
    this.timer = setInterval(() => void all().catch(this.log), POLL_MS)
    void all().catch(this.log)
  }

  async close(): Promise<void> {
    this.closed = true
    clearInterval(this.timer)
    await Promise.all([...this.reading.values(), ...[...this.listeners.values()].map(({ listener }) => listener.close())])
  }

  async list(): Promise<DeviceView[]> {
    return Promise.all((await listDevices(this.database)).map((row) => this.view(row)))
  }

  async one(id: string): Promise<DeviceView> {
    return this.view(await readDevice(this.database, id))
  }

  /** Adds a device and reads it. @throws InputError for what is no address */
  async add(siteId: string, { name, address, camera, username, password }: { name: string; address: string; camera: string | null; username: string | null; password: string | null }, id: string = randomUUID()): Promise<DeviceView> {
    const { address: origin } = new DeviceLink(address, null)
    await insertDevice(this.database, siteId, { id, camera, name, address: origin, username, sealed: password === null ? null : this.seal.close(password) }, Date.now())
    await this.read(id)
    return this.one(id)
  }

  /** Says an account: the device's own, or the first one of a device fresh from the box. */
  async account(id: string, username: string, password: string, first: boolean): Promise<DeviceView> {
    const row = await readDevice(this.database, id)
    if (first) await new DeviceLink(row.address, null).createAccount({ username, password })
    await setAccount(this.database, id, username, this.seal.close(password))
    await this.read(id)
    return this.one(id)
  }

  async move(id: string, address: string): Promise<void> {
    await moveDevice(this.database, id, address)
  }

  async remove(id: string): Promise<void> {
    await readDevice(this.database, id)
    await this.reading.get(id)
    await this.listeners.get(id)?.listener.close()
    this.listeners.delete(id)
    await removeDevice(this.database, id)
  }

  /** Reads a device; its trouble is kept, not thrown. Somebody who asks while it is being read waits for that. */
  read(id: string): Promise<void> {
    const running = this.reading.get(id)
    if (running) return running
    const work = this.readNow(id).finally(() => this.reading.delete(id))
    this.reading.set(id, work)
    return work
  }

  private async readNow(id: string): Promise<void> {
    const row = await readDevice(this.database, id)
    try {
      const link = this.link(row)
      const clockAhead = await link.clockAhead()
      const information = await link.information()
      if (row.username === null && !(await link.hasAccount())) return await keepTrouble(this.database, id, 'new', 'it has no account yet')
      const [abilities, held] = [await link.abilities(), await link.rules()]
      await keepReading(this.database, id, { information, clockAhead, abilities, held }, Math.abs(clockAhead) > CLOCK_SECONDS ? 'clock-off' : 'online', Date.now())
      await this.listenTo(row)
    } catch (error) {
      const trouble = error instanceof Trouble ? error : new Trouble('broken', (error as Error).message)
      await keepTrouble(this.database, id, stateOf[trouble.kind], trouble.message)
    }
  }

  /** Listens to a device that has been read, at the address and under the account that it has now. */
  private async listenTo(row: DeviceRow): Promise<void> {
    const known = this.listeners.get(row.id)
    if (this.closed || row.username === null || (known?.address === row.address && known.username === row.username)) return
    await known?.listener.close()
    const listener = new Listener(this.link(row), (events) => insertEvents(this.database, row.id, events, Date.now()))
    this.listeners.set(row.id, { address: row.address, username: row.username, listener })
  }

  private link(row: DeviceRow): DeviceLink {
    return new DeviceLink(row.address, row.username !== null && row.sealed !== null ? { username: row.username, password: this.seal.open(row.sealed) } : null)
  }

  /**
   * Sends the camera's detections to its device: those that differ are written, each wholly or not at all; those that
   * the plan does not have any more are deleted. Then the device is read back and compared.
   */
  async send(id: string): Promise<SendResult[]> {
    if (this.sending.has(id)) throw busy('this device is being sent to already')
    this.sending.add(id)
    try {
      await this.read(id)
      const row = await readDevice(this.database, id)
      if (row.state !== 'online' && row.state !== 'clock-off') throw busy(`${row.name} cannot be sent to: ${row.trouble ?? row.state}`)
      const link = this.link(row)
      const detections = await this.detectionsOf(row)
      const results: SendResult[] = []
      const wanted = new Set(detections.filter((d) => d.enabled).map((d) => d.id))
      const attempt = async (name: string, what: SendResult['what'], work: () => Promise<unknown>): Promise<void> => {
        try {
          await work()
          results.push({ detection: name, what, error: null })
        } catch (error) {
          if (!(error instanceof Trouble)) throw error
          results.push({ detection: name, what, error: error.message })
        }
      }
      // First what goes, so that there is room for what comes.
      for (const rule of row.held) if (!wanted.has(rule.name)) await attempt(rule.name, 'deleted', () => link.deleteRule(rule.name))
      for (const detection of detections) {
        const translated = detection.enabled ? toRule(detection, row.abilities) : null
        if (!translated) continue
        const held = row.held.find((rule) => rule.name === detection.id)
        if (held && !differencesOf(translated.rule, held).length) continue
        await attempt(detection.id, held ? 'changed' : 'created', () => (held ? link.modifyRule(translated.rule) : link.createRule(translated.rule)))
      }
      await this.read(id)
      return results
    } finally {
      this.sending.delete(id)
    }
  }

  private async detectionsOf({ camera }: DeviceRow): Promise<Detection[]> {
    return camera === null ? [] : (await readDetections(this.database, camera)).map((kept) => kept.detection)
  }

  private async view(row: DeviceRow): Promise<DeviceView> {
    const detections = await this.detectionsOf(row)
    const shown = detections.map((d): DeviceDetection => {
      const held = row.held.find((rule) => rule.name === d.id)
      const translated = toRule(d, row.abilities)
      const base = { id: d.id, name: d.name, kind: d.kind, losses: translated?.losses ?? [] }
      if (row.readAt === null) return { ...base, state: 'unread', differences: [], losses: [] }
      if (!d.enabled) return { ...base, state: held ? 'differs' : 'off', differences: held ? [{ setting: 'in use', plan: 'switched off', device: 'on the device' }] : [] }
      if (!translated) return { ...base, state: 'unsupported', differences: [] }
      if (!held) return { ...base, state: 'missing', differences: [] }
      const differences = differencesOf(translated.rule, held)
      return { ...base, state: differences.length ? 'differs' : 'same', differences }
    })
    const known = new Set(detections.map((d) => d.id))
    return {
      id: row.id,
      camera: row.camera,
      name: row.name,
      address: row.address,
      username: row.username,
      state: row.state,
      trouble: row.trouble,
      information: row.information,
      clockAhead: row.clockAhead,
      abilities: row.abilities,
      readAt: row.readAt,
      busy: this.reading.has(row.id) || this.sending.has(row.id),
      detections: shown,
      events: await latestEvents(this.database, row.id),
      strangers: row.held.filter((rule) => !known.has(rule.name)).map((rule) => rule.name)
    }
  }
}

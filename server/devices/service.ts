import { said } from '../../core/messages/said.ts'
import { randomUUID } from 'node:crypto'
import {
  isReachable,
  type DeviceEventView,
  type DeviceState,
  type DeviceView,
  type LiveFrame,
  type SendResult
} from '../../core/devices/views.ts'
import type { RuleAbility } from '../../core/formats/onvif/rule.ts'
import { detectionOf, takeOver } from '../../core/formats/onvif/takeOver.ts'
import { isToldSurroundings } from '../../core/devices/standing.ts'
import { InputError, saidOfError } from '../../core/errors.ts'
import type { Database } from '../database.ts'
import { readDetections, saveDetection } from '../detections/queries.ts'
import type { Detection } from '../../core/formats/plan.ts'
import { conflict, notFound } from '../errors.ts'
import { readSchedules, readSite } from '../sites/queries.ts'
import type {
  AbilitiesView,
  NightPicture,
  PasswordResult,
  UpkeepView
} from '../../core/devices/upkeep.ts'
import { abilitiesOf } from './abilities.ts'
import {
  changeChannel,
  channelOf,
  channelsOf,
  channelsShowing,
  keepChannels,
  keepHeld,
  keepSent,
  type ChannelReading,
  type ChannelRow,
  type Held
} from './channelQueries.ts'
import { LivePictures, type ShownChannel } from './pictures.ts'
import { EventSubscriptions } from './subscriptions.ts'
import { latestEvents } from './events.ts'
import { DeviceLink, type Access } from './link.ts'
import {
  insertDevice,
  keepCertificate,
  keepOutputs,
  keepReading,
  keepShownCertificate,
  keepTrouble,
  listDevices,
  moveDevices,
  noteTest,
  readDevice,
  removeDevice,
  setAccount,
  type DeviceRow
} from './queries.ts'
import type { Encryption } from './encryption.ts'
import { mapConcurrent } from '../mapConcurrent.ts'
import { sendChange, sendChannel } from './sending.ts'
import { OtherCertificate } from './certificates.ts'
import { DeviceError, isRefusal, type DeviceErrorKind } from './deviceError.ts'
import { toHold, wantedOutput } from '../../core/devices/outputs.ts'
import { isOutput, type OutputEndpoint } from '../../core/formats/actions.ts'
import { voiceOf } from '../actions/voices.ts'
import { camerasOf } from './camerasOf.ts'
import { readEverything, viewOf, waitingOf, type Everything } from './view.ts'

/** A clock that is off by more makes times of events wrong by more than anybody would notice. */
const CLOCK_SECONDS = 2
const POLL_MS = 30_000
/** One that was read within this, for whatever reason, is left out once. */
const FRESH_MS = 15_000
/** How many devices are read at a time by the timer, at most. */
const READ_AT_ONCE = 12
const TEST_SECONDS = 3

const stateOf: Record<DeviceErrorKind, DeviceState> = {
  offline: 'offline',
  slow: 'offline',
  'wrong-password': 'wrong-password',
  'no-account': 'no-account',
  broken: 'broken',
  refused: 'broken',
  certificate: 'certificate'
}

const linkOf = (
  { address, certificate }: Pick<DeviceRow, 'address' | 'certificate'>,
  account: { username: string; password: string } | null
): DeviceLink => new DeviceLink(address, account, undefined, certificate)

/** What a channel holds of what can be sent to it. */
const heldBy = async (
  link: DeviceLink,
  { token }: { token: string },
  { abilities }: { abilities: readonly RuleAbility[] }
): Promise<Held> => ({
  surroundings: await link.upkeep.surroundings(token),
  held: abilities.length ? await link.rules(token) : []
})

/** The analysis of pictures of cameras whose devices do not say what is in them. */
export interface OwnTargets {
  has(camera: string): boolean
  /** Null: the camera's pictures are not analysed. */
  targets(camera: string, signal: AbortSignal): AsyncGenerator<LiveFrame> | null
}
const NO_ANALYSIS: OwnTargets = { has: () => false, targets: () => null }

/**
 * The devices of all sites: read on a timer and on demand, compared with the plan, sent to on one
 * deliberate command.
 */
export class Devices {
  ownAnalysis: OwnTargets = NO_ANALYSIS
  /** What they say. */
  readonly subscriptions: EventSubscriptions
  /** What their cameras show. */
  readonly pictures: LivePictures
  private readonly database: Database
  private readonly encryption: Encryption
  private readonly log: (error: unknown) => void
  /** What is being read, each with the way to speak with the device; null: it could not be read. */
  private readonly reading = new Map<string, Promise<DeviceLink | null>>()
  /** When each was read last, or that was tried; ms since the start. */
  private readonly readLast = new Map<string, number>()
  private readonly sending = new Set<string>()
  /** The last sending that concerns a camera. */
  private readonly turns = new Map<string, Promise<unknown>>()
  private readonly listens: boolean
  private closed = false
  private round: Promise<void> = Promise.resolve()
  private timer: NodeJS.Timeout | undefined

  /** @param listens whether devices that are read are listened to; a command beside the application only reads */
  constructor(
    database: Database,
    encryption: Encryption,
    log: (error: unknown) => void,
    { listens = true } = {}
  ) {
    this.listens = listens
    this.database = database
    this.encryption = encryption
    this.log = log
    this.subscriptions = new EventSubscriptions(database, (row) => this.link(row), log)
    this.pictures = new LivePictures((row) => this.link(row))
  }

  start(): void {
    const again = async (): Promise<void> => {
      await this.readDue().catch(this.log)
      if (!this.closed) this.timer = setTimeout(() => void (this.round = again()), POLL_MS)
    }
    // Subscriptions resume at once; reading all devices takes a while.
    this.round = this.listenAgain().catch(this.log).then(again)
  }

  private async listenAgain(): Promise<void> {
    for (const row of await listDevices(this.database))
      if (row.readAt !== null) await this.subscriptions.listenTo(row)
  }

  async close(): Promise<void> {
    this.closed = true
    clearTimeout(this.timer)
    this.pictures.close()
    await Promise.all([this.round, ...this.reading.values(), this.subscriptions.close()])
  }

  /** Reads each device that nobody has just read: after a sending to many, not all of them once more. */
  private async readDue(): Promise<void> {
    const due = (await listDevices(this.database)).filter(
      ({ id }) => performance.now() - (this.readLast.get(id) ?? -Infinity) >= FRESH_MS
    )
    await mapConcurrent(READ_AT_ONCE, due, async ({ id }) => {
      if (!this.closed) await this.read(id)
    })
  }

  async list(site: string): Promise<DeviceView[]> {
    const [rows, everything] = await Promise.all([
      listDevices(this.database, site),
      readEverything(this.database, site)
    ])
    return rows.map((row) => this.view(row, everything))
  }

  async one(id: string): Promise<DeviceView> {
    const row = await readDevice(this.database, id)
    return this.view(row, await readEverything(this.database, row.site, id))
  }

  async events(id: string): Promise<DeviceEventView[]> {
    await readDevice(this.database, id)
    return latestEvents(this.database, id)
  }

  /** The channel that records a camera: of a recorder, where one shows it, or else of the camera itself; null: none. */
  async recorderOf(camera: string): Promise<{ row: DeviceRow; channel: ChannelRow } | null> {
    const showing = await channelsShowing(this.database, camera)
    const sizes = new Map(
      await Promise.all(
        showing.map(
          async ({ device }) => [device, (await channelsOf(this.database, device)).length] as const
        )
      )
    )
    for (const channel of showing.sort((a, b) => sizes.get(b.device)! - sizes.get(a.device)!)) {
      const row = await readDevice(this.database, channel.device)
      if (isReachable(row.state)) return { row, channel }
    }
    return null
  }

  /** Adds a device and reads it. @throws InputError for what is no address */
  async add(
    siteId: string,
    {
      name,
      address,
      camera,
      makeCameras = false,
      username,
      password
    }: {
      name: string
      address: string
      camera: string | null
      makeCameras?: boolean
      username: string | null
      password: string | null
    },
    id: string = randomUUID()
  ): Promise<DeviceView> {
    const { address: origin } = new DeviceLink(address, null)
    const twin = (await listDevices(this.database)).find((d) => d.address === origin)
    // What another site has is not named: whoever asks here may have no rights there.
    if (twin)
      throw new InputError(
        '$.address',
        twin.site === siteId
          ? said('devices.isThatOfWhich', twin.name)
          : said('devices.isAtAnotherSite')
      )
    await insertDevice(
      this.database,
      siteId,
      {
        id,
        camera,
        name,
        address: origin,
        makesCameras: makeCameras,
        username,
        sealed: password === null ? null : this.encryption.encrypt(password)
      },
      Date.now()
    )
    await this.read(id)
    return this.one(id)
  }

  /** Sets the account: one that the device has, or the first one of a new device. */
  async account(
    id: string,
    username: string,
    password: string,
    first: boolean
  ): Promise<DeviceView> {
    const row = await readDevice(this.database, id)
    if (first) await linkOf(row, null).createAccount({ username, password })
    await setAccount(this.database, id, username, this.encryption.encrypt(password))
    await this.readAfresh(id)
    return this.one(id)
  }

  /** Takes the certificate that a device shows now for its own. @param shown the one that somebody has looked at */
  async trust(id: string, shown: string): Promise<DeviceView> {
    const row = await readDevice(this.database, id)
    if (row.shownCertificate !== shown) throw conflict(said('devices.certificateIsAnother'))
    await keepCertificate(this.database, id, shown)
    await this.readAfresh(id)
    return this.one(id)
  }

  move(addresses: ReadonlyMap<string, string>): Promise<void> {
    return this.database.transaction((sql) => moveDevices(sql, addresses))
  }

  async remove(id: string): Promise<void> {
    await readDevice(this.database, id)
    await this.reading.get(id)
    this.subscriptions.forget(id)
    this.readLast.delete(id)
    await removeDevice(this.database, id)
  }

  /** Listens to the devices of a site no more; they are read again once the site is there again. */
  async leave(site: string): Promise<void> {
    for (const { id } of await listDevices(this.database, site)) this.subscriptions.forget(id)
  }

  /** Sets which camera a channel shows, or whether the plan is sent through it. */
  async changeChannel(
    id: string,
    token: string,
    change: { camera?: string | null; used?: boolean }
  ): Promise<DeviceView> {
    await changeChannel(this.database, id, token, change)
    return this.one(id)
  }

  /** Switches a channel to another family of analysis. @throws DeviceError */
  async setMode(id: string, token: string, type: string): Promise<DeviceView> {
    const [row, channel] = [
      await readDevice(this.database, id),
      await channelOf(this.database, id, token)
    ]
    if (!channel.modes.some((mode) => mode.type === type))
      throw notFound(said('things.mode', type.slice(0, 60)))
    try {
      // Asked again: somebody may have switched it since it was read.
      const running = (await this.link(row).modes(token)).find((mode) => mode.running)?.type ?? null
      if (running !== type) await this.link(row).setMode(token, running, type)
    } finally {
      await this.readAfresh(id)
    }
    return this.one(id)
  }

  /** Clock, network, night pictures and storage, as the device says now. @throws DeviceError */
  async upkeep(id: string): Promise<UpkeepView> {
    const row = await readDevice(this.database, id)
    const link = this.link(row)
    const clock = await link.upkeep.clock((await readSite(this.database, row.site)).timeZone)
    const channels: UpkeepView['channels'] = []
    for (const { token, name, source, microphone } of await link.channels())
      channels.push({
        token,
        name,
        nightPicture: await link.upkeep.nightPicture(source),
        microphone
      })
    return {
      clock,
      channels,
      network: await link.upkeep.network(),
      storage: await link.upkeep.storage()
    }
  }

  /** Sets a device to the time here, or to a time server. @throws DeviceError */
  async setClock(id: string, ntp: string | null): Promise<DeviceView> {
    const row = await readDevice(this.database, id)
    const { timeZone } = await readSite(this.database, row.site)
    await this.link(row).upkeep.setClock(Date.now(), timeZone, ntp)
    await this.readAfresh(id)
    return this.one(id)
  }

  /** @throws DeviceError; ApiError where the device does not have that picture any more */
  async setNightPicture(id: string, token: string, mode: NightPicture): Promise<void> {
    const link = this.link(await readDevice(this.database, id))
    const channel = (await link.channels()).find((c) => c.token === token)
    if (!channel) throw notFound(said('things.channel', token.slice(0, 64)))
    await link.upkeep.setNightPicture(channel.source, mode)
  }

  /** What works with a device, tried now. @throws DeviceError */
  async abilities(id: string): Promise<AbilitiesView> {
    const row = await readDevice(this.database, id)
    const channels = await channelsOf(this.database, id)
    const abilities = await abilitiesOf({
      link: this.link(row),
      timeZone: (await readSite(this.database, row.site)).timeZone,
      channels,
      picture: (channel) => this.pictures.snapshot({ row, channel }),
      listens: this.subscriptions.heardAt(id) !== null
    })
    return { at: Date.now(), abilities }
  }

  /** Gives the account of each device a new password, and sees whether it is let in with it. */
  async setPasswords(ids: readonly string[], password: string): Promise<PasswordResult[]> {
    const results: PasswordResult[] = []
    await mapConcurrent(READ_AT_ONCE, ids, async (id) => {
      const row = await readDevice(this.database, id)
      const base = { device: id, name: row.name }
      try {
        if (row.username === null)
          throw new DeviceError('no-account', said('devices.hasNoAccountYet'))
        const changed = linkOf(row, { username: row.username, password })
        const failed = await this.link(row)
          .upkeep.setPassword(row.username, password)
          .then(
            () => null,
            (error: unknown) => ({ error })
          )
        // A cut can hide that it has been changed; then the device is asked whether it takes the new one.
        if (failed && isRefusal(failed.error)) throw failed.error
        await changed.hasAccount().catch((error: unknown) => {
          throw failed ? failed.error : error
        })
        await setAccount(this.database, id, row.username, this.encryption.encrypt(password))
        results.push({ ...base, error: null })
      } catch (error) {
        results.push({ ...base, error: saidOfError(error) })
      }
      await this.readAfresh(id)
    })
    return results.sort((a, b) => a.name.localeCompare(b.name))
  }

  /** Makes an output act, and asks the device whether it does. @throws DeviceError */
  async testOutput(id: string, token: string): Promise<DeviceView> {
    const row = await readDevice(this.database, id)
    const output = row.outputs.find((o) => o.token === token)
    if (!output) throw notFound(said('things.output', token.slice(0, 64)))
    await this.link(row).activate(output.token, { Mode: 'pulse', Time: `PT${TEST_SECONDS}S` }, null)
    await noteTest(this.database, id, token, Date.now())
    await this.readAfresh(id)
    return this.one(id)
  }

  /** Takes into the plan what a device holds: over the detection that it is of, or as a new one. */
  async takeOver(id: string, token: string, ruleName: string): Promise<DeviceView> {
    await this.readAfresh(id)
    const channel = await channelOf(this.database, id, token)
    const held = channel.held.find(({ name }) => name === ruleName)
    if (!held || channel.camera === null) throw notFound(said('things.rule', ruleName.slice(0, 80)))
    const detections = await readDetections(this.database, channel.camera)
    const kept = detections.find(({ detection }) => detection.id === ruleName)
    const { camera } = channel
    const note = {
      by: (await this.one(id)).name,
      byId: null,
      label: said('edits.import', kept?.detection.name ?? ruleName)
    }
    const save = (detection: Detection, position: number, version: number): Promise<unknown> =>
      this.database.transaction((sql) =>
        saveDetection(sql, camera, detection, position, version, note, Date.now())
      )
    if (kept)
      await save(
        { ...takeOver(kept.detection, held, channel.abilities), enabled: true },
        kept.position,
        kept.version
      )
    else {
      const detection = detectionOf(held, channel.abilities)
      if (!detection) throw conflict(said('devices.isOfAKind', ruleName))
      await save(detection, detections.length, 0)
    }
    return this.one(id)
  }

  /**
   * Reads a device again, after something was changed on it: a reading that is going on may have
   * seen it before that.
   */
  async readAfresh(id: string): Promise<DeviceLink | null> {
    await this.reading.get(id)
    return this.read(id)
  }

  /**
   * Reads a device; its trouble is kept, not thrown. Somebody who asks while it is being read waits for that.
   * @returns the way in which it was spoken with; null: it could not be read
   */
  read(id: string): Promise<DeviceLink | null> {
    const running = this.reading.get(id)
    if (running) return running
    const work = this.readNow(id).finally(() => {
      this.reading.delete(id)
      this.readLast.set(id, performance.now())
    })
    this.reading.set(id, work)
    return work
  }

  /**
   * Reads what a device holds by now of what has just been sent to it; what it is and can do has not changed by that,
   * and stands as it was read before.
   */
  private async readBack(id: string, link: DeviceLink): Promise<void> {
    // One that began before that would keep the old ones over these.
    await this.reading.get(id)
    await this.keepingTrouble(id, async () => {
      const channels = await channelsOf(this.database, id)
      const held: Held[] = []
      for (const channel of channels) held.push(await heldBy(link, channel, channel))
      const outputs = await link.outputs()
      await this.database.transaction(async (sql) => {
        await keepOutputs(sql, id, outputs, Date.now())
        for (const [i, channel] of channels.entries()) await keepHeld(sql, channel, held[i]!)
      })
    })
  }

  /** Work with a device whose trouble is kept. @returns null: it had trouble */
  private async keepingTrouble<T>(id: string, work: () => Promise<T>): Promise<T | null> {
    try {
      return await work()
    } catch (error) {
      const trouble =
        error instanceof DeviceError ? error : new DeviceError('broken', saidOfError(error), error)
      if (trouble instanceof OtherCertificate)
        await keepShownCertificate(this.database, id, trouble.shown)
      await keepTrouble(this.database, id, stateOf[trouble.kind], trouble.said)
      return null
    }
  }

  private async readNow(id: string): Promise<DeviceLink | null> {
    const row = await readDevice(this.database, id)
    return this.keepingTrouble(id, async () => {
      const link = this.link(row)
      const clockAhead = await link.clockAhead()
      const { certificate } = link
      if (certificate !== null && (row.certificate === null || row.shownCertificate !== null))
        await keepCertificate(this.database, id, certificate)
      const information = await link.information()
      if (row.username === null && !(await link.hasAccount())) {
        await keepTrouble(this.database, id, 'new', said('devices.hasNoAccountYet'))
        return null
      }
      const channels: ChannelReading[] = []
      for (const { hasAnalytics, ...channel } of await link.channels()) {
        const analysed = hasAnalytics
          ? { ...(await link.abilities(channel.token)), modes: await link.modes(channel.token) }
          : { abilities: [], mostRules: null, modes: [] }
        channels.push({ ...channel, ...analysed, ...(await heldBy(link, channel, analysed)) })
      }
      const [inputs, outputs] = [await link.inputs(), await link.outputs()]
      const storage = await link.upkeep.storage()
      await this.database.transaction(async (sql) => {
        await keepReading(
          sql,
          id,
          { information, clockAhead, inputs, outputs, storage },
          Math.abs(clockAhead ?? 0) > CLOCK_SECONDS ? 'clock-off' : 'online',
          Date.now()
        )
        await keepChannels(sql, id, channels, camerasOf(sql, row, channels))
      })
      if (this.listens)
        await this.subscriptions.listenTo({ ...row, certificate: certificate ?? row.certificate })
      return link
    })
  }

  /** A way to speak with a device. */
  link(row: Parameters<Devices['access']>[0]): DeviceLink {
    const access = this.access(row)
    return linkOf(access, access.account)
  }

  /** What it takes to speak with a device. @throws DeviceError when its password cannot be read any more */
  access({
    address,
    certificate,
    username,
    sealed
  }: Pick<DeviceRow, 'address' | 'username' | 'sealed' | 'certificate'>): Access {
    return {
      address,
      certificate,
      account:
        username !== null && sealed !== null
          ? { username, password: this.passwordOf(sealed) }
          : null
    }
  }

  /** Whether somebody says what a channel's camera sees: its device, or the analysis here. */
  saysTargets({ channel }: ShownChannel): boolean {
    return channel.hasMetadata || (channel.camera !== null && this.ownAnalysis.has(channel.camera))
  }

  /** What a channel's camera sees, until told to end. @throws DeviceError also where nobody says that */
  async *targets({ row, channel }: ShownChannel, signal: AbortSignal): AsyncGenerator<LiveFrame> {
    if (channel.hasMetadata) return yield* this.link(row).targets(channel.profile, signal)
    const own = channel.camera === null ? null : this.ownAnalysis.targets(channel.camera, signal)
    if (!own) throw new DeviceError('refused', said('devices.noTargets'))
    yield* own
  }

  private passwordOf(sealed: Buffer): string {
    try {
      return this.encryption.decrypt(sealed)
    } catch (error) {
      throw new DeviceError('no-account', said('devices.itsPasswordWasSealedWith'), error)
    }
  }

  /** The channel that shows a camera now, of a device that can be spoken with; null: none. */
  async channelShowing(camera: string): Promise<{ row: DeviceRow; channel: ChannelRow } | null> {
    for (const channel of await channelsShowing(this.database, camera)) {
      const row = await readDevice(this.database, channel.device)
      if (isReachable(row.state)) return { row, channel }
    }
    return null
  }

  /** What a camera shows now; null: no device that can be reached shows it. @throws DeviceError */
  async pictureNow(camera: string): Promise<Buffer | null> {
    const shown = await this.channelShowing(camera)
    return shown && this.pictures.snapshot(shown)
  }

  /** The cameras of a site that a device shows which can be spoken with. */
  async camerasShown(
    site: string,
    channels: readonly Pick<ChannelRow, 'camera' | 'device'>[]
  ): Promise<ReadonlySet<string>> {
    const rows = await listDevices(this.database, site)
    const reachable = new Set(rows.filter((r) => isReachable(r.state)).map((r) => r.id))
    return new Set(
      channels.flatMap((c) => (c.camera !== null && reachable.has(c.device) ? c.camera : []))
    )
  }

  /**
   * Sends the plan to a device, through those of its channels that are used, and reads it back.
   *
   * @throws ApiError when it cannot be spoken with
   */
  async send(id: string): Promise<SendResult[]> {
    if (this.sending.has(id)) throw conflict(said('devices.thisDeviceIsBeingSent'))
    this.sending.add(id)
    try {
      const cameras = (await channelsOf(this.database, id)).flatMap(
        ({ used, camera, abilities }) => (used && abilities.length ? (camera ?? []) : [])
      )
      return await this.inTurn(cameras, () => this.sendNow(id))
    } finally {
      this.sending.delete(id)
    }
  }

  /** Two routes to the same rules are sent through one after the other: each has to see what the first has written. */
  private async inTurn<T>(cameras: readonly string[], work: () => Promise<T>): Promise<T> {
    const before = cameras.map((camera) => this.turns.get(camera))
    const mine = Promise.allSettled(before.map((turn) => turn ?? Promise.resolve())).then(work)
    for (const camera of cameras) this.turns.set(camera, mine)
    try {
      return await mine
    } finally {
      for (const camera of cameras) if (this.turns.get(camera) === mine) this.turns.delete(camera)
    }
  }

  private async sendNow(id: string): Promise<SendResult[]> {
    const link = await this.readAfresh(id)
    const row = await readDevice(this.database, id)
    if (!link) throw conflict(said('devices.cannotBeSentTo', row.name, row.trouble ?? row.state))
    const results: SendResult[] = []
    const schedules = (await readSchedules(this.database, row.site)).map((kept) => kept.schedule)
    for (const channel of await channelsOf(this.database, id)) {
      if (!channel.used || channel.camera === null) continue
      const detections = (await readDetections(this.database, channel.camera)).map(
        (kept) => kept.detection
      )
      const outcome = await sendChannel(link, channel, detections, schedules)
      await keepSent(this.database, id, channel.token, outcome.sent, outcome.removedTypes)
      results.push(...outcome.results)
      if (isToldSurroundings(channel)) {
        const { token, surroundings } = channel
        const what = {
          channel: token,
          detection: 'surroundings',
          name: said('settings.surroundings')
        }
        results.push(
          await sendChange(what, () => link.upkeep.setSurroundings(token, surroundings.wanted))
        )
      }
    }
    await this.readBack(id, link)
    results.push(...(await this.sendOutputs(id, link)))
    return results
  }

  /** Sets up the outputs that the device should switch by itself, for the rules that it holds by now. */
  private async sendOutputs(id: string, link: DeviceLink): Promise<SendResult[]> {
    const row = await readDevice(this.database, id)
    if (!row.outputs.some(({ keeps }) => keeps)) return []
    const everything = await readEverything(this.database, row.site, id)
    const results: SendResult[] = []
    for (const output of row.outputs.filter((o) => waitingOf(row, o, everything).length)) {
      const wanted = wantedOutput(
        id,
        output.token,
        everything.endpoints,
        everything.channelsOf.get(id) ?? [],
        everything.actions,
        everything.schedules
      )
      const endpoint = everything.endpoints.find(
        (e): e is OutputEndpoint => isOutput(e) && e.device === id && e.output === output.token
      )
      const what = {
        channel: '',
        detection: output.token,
        name: endpoint?.name ?? output.name
      }
      results.push(
        await sendChange(what, async () => {
          const voice = endpoint && wanted ? await voiceOf(this.database, row.site, endpoint) : null
          await link.setOutput(output.token, toHold(wanted, output.held), voice)
        })
      )
    }
    if (results.length) await this.readBack(id, link)
    return results
  }

  private view(row: DeviceRow, everything: Everything): DeviceView {
    return viewOf(
      row,
      everything,
      this.reading.has(row.id) || this.sending.has(row.id),
      this.subscriptions.contactsOf(row.id)
    )
  }
}

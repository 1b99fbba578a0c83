import { randomUUID } from 'node:crypto'
import { setTimeout as pause } from 'node:timers/promises'
import { said } from '../../core/messages/said.ts'
import {
  isReachable,
  type DeviceEventView,
  type DeviceView,
  type LiveFrame
} from '../../core/devices/views.ts'
import { detectionOf, takeOver } from '../../core/formats/onvif/takeOver.ts'
import { InputError, saidOfError } from '../../core/errors.ts'
import type { Database } from '../database.ts'
import { readDetections, saveDetection } from '../detections/queries.ts'
import type { Detection } from '../../core/formats/plan.ts'
import { conflict, notFound } from '../errors.ts'
import { readSiteAlone } from '../sites/queries.ts'
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
  type ChannelRow
} from './channelQueries.ts'
import { LivePictures, type ShownChannel } from './pictures.ts'
import { EventSubscriptions } from './subscriptions.ts'
import { latestEvents } from './events.ts'
import { DeviceLink, type Access } from './link/link.ts'
import {
  insertDevice,
  keepCertificate,
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
import { DeviceError, isRefusal } from './link/deviceError.ts'
import { DeviceReader } from './reader.ts'
import { DeviceSender } from './sender.ts'
import { readEverything, viewOf, type Everything } from './view.ts'

const POLL_MS = 30_000
/** How many devices are read at a time by the timer, at most. */
const READ_AT_ONCE = 12
/** How soon after one of them the timer reads the next: nobody waits for it, and of many at once pages would be slow. */
const NEXT_AFTER_MS = 200
const TEST_SECONDS = 3

const linkOf = (
  { address, certificate }: Pick<DeviceRow, 'address' | 'certificate'>,
  account: { username: string; password: string } | null
): DeviceLink => new DeviceLink(address, account, undefined, certificate)

/** The analysis of pictures of cameras whose devices do not say what is in them. */
export interface OwnTargets {
  has(camera: string): boolean
  /** Null: the camera's pictures are not analysed. */
  targets(camera: string, signal: AbortSignal): AsyncGenerator<LiveFrame> | null
}
const NO_ANALYSIS: OwnTargets = { has: () => false, targets: () => null }

/** The devices of all sites: read on a timer and on demand, compared with the plan, and looked after. */
export class Devices {
  ownAnalysis: OwnTargets = NO_ANALYSIS
  /** What they hold. */
  readonly reader: DeviceReader
  /** What is sent to them. */
  readonly sender: DeviceSender
  /** What they say. */
  readonly subscriptions: EventSubscriptions
  /** What their cameras show. */
  readonly pictures: LivePictures
  private readonly database: Database
  private readonly encryption: Encryption
  private readonly log: (error: unknown) => void
  private readonly closing = new AbortController()
  private round: Promise<void> = Promise.resolve()
  private timer: NodeJS.Timeout | undefined

  /** @param listens whether devices that are read are listened to; a command beside the application only reads */
  constructor(
    database: Database,
    encryption: Encryption,
    log: (error: unknown) => void,
    { listens = true } = {}
  ) {
    this.database = database
    this.encryption = encryption
    this.log = log
    this.subscriptions = new EventSubscriptions(database, (row) => this.link(row), log)
    this.pictures = new LivePictures((row) => this.link(row))
    this.reader = new DeviceReader(
      database,
      (row) => this.link(row),
      async (row) => {
        if (listens) await this.subscriptions.listenTo(row)
      }
    )
    this.sender = new DeviceSender(database, this.reader)
  }

  start(): void {
    const again = async (): Promise<void> => {
      await this.readDue().catch(this.log)
      if (!this.closing.signal.aborted)
        this.timer = setTimeout(() => void (this.round = again()), POLL_MS)
    }
    // Subscriptions resume at once; reading all devices takes a while.
    this.round = this.listenAgain().catch(this.log).then(again)
  }

  private async listenAgain(): Promise<void> {
    for (const row of await listDevices(this.database))
      if (row.readAt !== null) await this.subscriptions.listenTo(row)
  }

  async close(): Promise<void> {
    this.closing.abort()
    clearTimeout(this.timer)
    this.pictures.close()
    await Promise.all([this.round, this.reader.ended(), this.subscriptions.close()])
  }

  /** Reads each device that nobody has just read: after a sending to many, not all of them once more. */
  private async readDue(): Promise<void> {
    const due = (await listDevices(this.database)).filter(({ id }) => this.reader.isDue(id))
    const { signal } = this.closing
    let turn = Promise.resolve()
    await mapConcurrent(READ_AT_ONCE, due, async ({ id }) => {
      turn = turn.then(() => pause(NEXT_AFTER_MS, undefined, { signal }).catch(() => {}))
      await turn
      if (!signal.aborted) await this.reader.read(id)
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
    await this.reader.read(id)
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
    await this.reader.readAfresh(id)
    return this.one(id)
  }

  /** Takes the certificate that a device shows now for its own. @param shown the one that somebody has looked at */
  async trust(id: string, shown: string): Promise<DeviceView> {
    const row = await readDevice(this.database, id)
    if (row.shownCertificate !== shown) throw conflict(said('devices.certificateIsAnother'))
    await keepCertificate(this.database, id, shown)
    await this.reader.readAfresh(id)
    return this.one(id)
  }

  move(addresses: ReadonlyMap<string, string>): Promise<void> {
    return this.database.transaction((sql) => moveDevices(sql, addresses))
  }

  async remove(id: string): Promise<void> {
    await readDevice(this.database, id)
    await this.reader.forget(id)
    this.subscriptions.forget(id)
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
      const running =
        (await this.link(row).analysis.modes(token)).find((mode) => mode.running)?.type ?? null
      if (running !== type) await this.link(row).analysis.setMode(token, running, type)
    } finally {
      await this.reader.readAfresh(id)
    }
    return this.one(id)
  }

  /** Clock, network, night pictures and storage, as the device says now. @throws DeviceError */
  async upkeep(id: string): Promise<UpkeepView> {
    const row = await readDevice(this.database, id)
    const link = this.link(row)
    const clock = await link.upkeep.clock((await readSiteAlone(this.database, row.site)).timeZone)
    const channels: UpkeepView['channels'] = []
    for (const { token, name, source, microphone } of await link.media.channels())
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
    const { timeZone } = await readSiteAlone(this.database, row.site)
    await this.link(row).upkeep.setClock(Date.now(), timeZone, ntp)
    await this.reader.readAfresh(id)
    return this.one(id)
  }

  /** @throws DeviceError; ApiError where the device does not have that picture any more */
  async setNightPicture(id: string, token: string, mode: NightPicture): Promise<void> {
    const link = this.link(await readDevice(this.database, id))
    const channel = (await link.media.channels()).find((c) => c.token === token)
    if (!channel) throw notFound(said('things.channel', token.slice(0, 64)))
    await link.upkeep.setNightPicture(channel.source, mode)
  }

  /** What works with a device, tried now. @throws DeviceError */
  async abilities(id: string): Promise<AbilitiesView> {
    const row = await readDevice(this.database, id)
    const channels = await channelsOf(this.database, id)
    const abilities = await abilitiesOf({
      link: this.link(row),
      timeZone: (await readSiteAlone(this.database, row.site)).timeZone,
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
      await this.reader.readAfresh(id)
    })
    return results.sort((a, b) => a.name.localeCompare(b.name))
  }

  /** Makes an output act, and asks the device whether it does. @throws DeviceError */
  async testOutput(id: string, token: string): Promise<DeviceView> {
    const row = await readDevice(this.database, id)
    const output = row.outputs.find((o) => o.token === token)
    if (!output) throw notFound(said('things.output', token.slice(0, 64)))
    await this.link(row).io.activate(
      output.token,
      { Mode: 'pulse', Time: `PT${TEST_SECONDS}S` },
      null
    )
    await noteTest(this.database, id, token, Date.now())
    await this.reader.readAfresh(id)
    return this.one(id)
  }

  /** Takes into the plan what a device holds: over the detection that it is of, or as a new one. */
  async takeOver(id: string, token: string, ruleName: string): Promise<DeviceView> {
    await this.reader.readAfresh(id)
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
    if (channel.hasMetadata) return yield* this.link(row).media.targets(channel.profile, signal)
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

  /**
   * What a camera shows now; null: no device that can be reached shows it.
   * @param lingerMs a stream that had to be opened for it goes on for so long; left out: as for whoever looks at it
   * @throws DeviceError
   */
  async pictureNow(camera: string, lingerMs?: number): Promise<Buffer | null> {
    const shown = await this.channelShowing(camera)
    return shown && this.pictures.snapshot(shown, lingerMs)
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

  private view(row: DeviceRow, everything: Everything): DeviceView {
    return viewOf(
      row,
      everything,
      this.reader.isReading(row.id) || this.sender.isSending(row.id),
      this.subscriptions.contactsOf(row.id)
    )
  }
}

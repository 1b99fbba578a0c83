import type { DeviceState } from '../../core/devices/views.ts'
import { saidOfError } from '../../core/errors.ts'
import type { RuleAbility } from '../../core/formats/onvif/rule.ts'
import { said } from '../../core/messages/said.ts'
import type { Database } from '../database.ts'
import { camerasOf } from './camerasOf.ts'
import { OtherCertificate } from './link/certificates.ts'
import {
  channelsOf,
  keepChannels,
  keepHeld,
  type ChannelReading,
  type Held
} from './channelQueries.ts'
import { DeviceError, type DeviceErrorKind } from './link/deviceError.ts'
import type { DeviceLink } from './link/link.ts'
import {
  keepCertificate,
  keepOutputs,
  keepReading,
  keepShownCertificate,
  keepTrouble,
  readDevice,
  type DeviceRow
} from './queries.ts'

/** A clock that is off by more makes times of events wrong by more than anybody would notice. */
const CLOCK_SECONDS = 2
/** One that was read within this, for whatever reason, is left out once. */
const FRESH_MS = 15_000
/** What a device is and can do stands for so long once it was read: nobody renews its software in less. */
const STANDS_MS = 90_000

const stateOf: Record<DeviceErrorKind, DeviceState> = {
  offline: 'offline',
  slow: 'offline',
  'wrong-password': 'wrong-password',
  'no-account': 'no-account',
  broken: 'broken',
  refused: 'broken',
  certificate: 'certificate'
}

/** What a channel holds of what can be sent to it. */
const heldBy = async (
  link: DeviceLink,
  { token }: { token: string },
  { abilities }: { abilities: readonly RuleAbility[] }
): Promise<Held> => ({
  surroundings: await link.upkeep.surroundings(token),
  held: abilities.length ? await link.analysis.rules(token) : []
})

/** Reads devices, each once at a time, and keeps what was read, or why it could not be. */
export class DeviceReader {
  private readonly database: Database
  private readonly linkTo: (row: DeviceRow) => DeviceLink
  private readonly wasRead: (row: DeviceRow) => Promise<void>
  /** What is being read, each with the way to speak with the device; null: it could not be read. */
  private readonly reading = new Map<string, Promise<DeviceLink | null>>()
  /** When each was read last, unless it has had trouble since; ms since the start. */
  private readonly readLast = new Map<string, number>()

  /** @param wasRead called with each device that could be read */
  constructor(
    database: Database,
    linkTo: (row: DeviceRow) => DeviceLink,
    wasRead: (row: DeviceRow) => Promise<void>
  ) {
    this.database = database
    this.linkTo = linkTo
    this.wasRead = wasRead
  }

  isReading(id: string): boolean {
    return this.reading.has(id)
  }

  /** Whether it has not been read within so long, or has had trouble since; ms. */
  isDue(id: string, within = FRESH_MS): boolean {
    return performance.now() - (this.readLast.get(id) ?? -Infinity) >= within
  }

  /** Resolves when nothing is being read any more. */
  async ended(): Promise<void> {
    await Promise.all(this.reading.values())
  }

  /** Resolves once a device that is to be removed is not being read any more. */
  async forget(id: string): Promise<void> {
    await this.reading.get(id)
    this.readLast.delete(id)
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
   * Reads what a device holds just before something is sent to it, and all else of it where that was not read of late.
   * @returns the way in which it was spoken with; null: it could not be read
   */
  async readToSend(id: string): Promise<DeviceLink | null> {
    await this.reading.get(id)
    if (this.isDue(id, STANDS_MS)) return this.read(id)
    const link = this.linkTo(await readDevice(this.database, id))
    return this.keepingTrouble(id, async () => {
      // Without its time a device refuses whatever is signed.
      await link.clockAhead()
      await this.readHeld(id, link)
      return link
    })
  }

  /**
   * Reads a device; its trouble is kept, not thrown. Somebody who asks while it is being read waits for that.
   * @returns the way in which it was spoken with; null: it could not be read
   */
  read(id: string): Promise<DeviceLink | null> {
    const running = this.reading.get(id)
    if (running) return running
    const work = this.readNow(id).finally(() => this.reading.delete(id))
    this.reading.set(id, work)
    return work
  }

  /**
   * Reads what a device holds by now of what has just been sent to it; what it is and can do has not changed by that,
   * and stands as it was read before.
   */
  async readBack(id: string, link: DeviceLink): Promise<void> {
    // One that began before that would keep the old ones over these.
    await this.reading.get(id)
    await this.keepingTrouble(id, () => this.readHeld(id, link))
  }

  private async readHeld(id: string, link: DeviceLink): Promise<void> {
    const channels = await channelsOf(this.database, id)
    const held: Held[] = []
    for (const channel of channels) held.push(await heldBy(link, channel, channel))
    const outputs = await link.io.outputs()
    await this.database.transaction(async (sql) => {
      await keepOutputs(sql, id, outputs, Date.now())
      for (const [i, channel] of channels.entries()) await keepHeld(sql, channel, held[i]!)
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
      this.readLast.delete(id)
      return null
    }
  }

  private async readNow(id: string): Promise<DeviceLink | null> {
    const row = await readDevice(this.database, id)
    return this.keepingTrouble(id, async () => {
      const link = this.linkTo(row)
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
      for (const { hasAnalytics, ...channel } of await link.media.channels()) {
        const analysed = hasAnalytics
          ? {
              ...(await link.analysis.abilities(channel.token)),
              modes: await link.analysis.modes(channel.token)
            }
          : { abilities: [], mostRules: null, modes: [] }
        channels.push({ ...channel, ...analysed, ...(await heldBy(link, channel, analysed)) })
      }
      const [inputs, outputs] = [await link.io.inputs(), await link.io.outputs()]
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
      await this.wasRead({ ...row, certificate: certificate ?? row.certificate })
      this.readLast.set(id, performance.now())
      return link
    })
  }
}

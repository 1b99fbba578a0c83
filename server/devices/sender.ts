import { toHold, wantedOutput } from '../../core/devices/outputs.ts'
import { isToldSurroundings } from '../../core/devices/standing.ts'
import type { SendResult } from '../../core/devices/views.ts'
import { isOutput, type OutputEndpoint } from '../../core/formats/actions.ts'
import { said } from '../../core/messages/said.ts'
import { voiceOf } from '../actions/voices.ts'
import type { Database } from '../database.ts'
import { readDetections } from '../detections/queries.ts'
import { conflict } from '../errors.ts'
import { readSchedules } from '../sites/queries.ts'
import { channelsOf, keepSent } from './channelQueries.ts'
import type { DeviceLink } from './link/link.ts'
import { readDevice } from './queries.ts'
import type { DeviceReader } from './reader.ts'
import { sendChange, sendChannel } from './sending.ts'
import { readEverything, waitingOf } from './view.ts'

/** Sends the plan to devices, on one deliberate command each. */
export class DeviceSender {
  private readonly database: Database
  private readonly reader: DeviceReader
  private readonly sending = new Set<string>()
  /** The last sending that concerns a camera. */
  private readonly turns = new Map<string, Promise<unknown>>()

  constructor(database: Database, reader: DeviceReader) {
    this.database = database
    this.reader = reader
  }

  isSending(id: string): boolean {
    return this.sending.has(id)
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
    const link = await this.reader.readToSend(id)
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
    await this.reader.readBack(id, link)
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
          await link.io.setOutput(output.token, toHold(wanted, output.held), voice)
        })
      )
    }
    if (results.length) await this.reader.readBack(id, link)
    return results
  }
}

import { said, type Said } from '../../core/messages/said.ts'
import { Failure, saidOfError } from '../../core/errors.ts'
import { createWriteStream } from 'node:fs'
import { mkdir, rename, rm } from 'node:fs/promises'
import { join } from 'node:path'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { EvidenceView } from '../../core/api.ts'
import type { Database } from '../database.ts'
import type { Devices } from '../devices/service.ts'
import type { DeviceLink } from '../devices/link/link.ts'
import { readDevice } from '../devices/queries.ts'
import { partsOf } from '../devices/link/streams.ts'
import { RECORDING, keepResult, readResult } from './queries.ts'

/** A device that gave nothing is asked again after this. */
const AGAIN_MS = 10_000
/** Longer than this no recording takes to be read. */
const WITHIN_MS = 5 * 60_000
const MAX_BYTES = 512 * 2 ** 20

/**
 * What devices have recorded themselves. It is read from the device when somebody first looks, once it has ended, and
 * kept with the delivery from then on: the device will write over it some day.
 */
export class DeviceRecordings {
  private readonly database: Database
  private readonly devices: Devices
  private readonly folder: string
  /** Deliveries whose recordings are being read, or wait for their turn. */
  private readonly reading = new Map<number, Promise<void>>()
  /** The last of those that are read from a device: one at a time, as a device has more to do. */
  private readonly turns = new Map<string, Promise<void>>()
  private readonly failed = new Map<number, { why: Said | string; at: number }>()
  private readonly stops = new Set<AbortController>()
  private closed = false

  /** @param folder of what deliveries left */
  constructor(database: Database, devices: Devices, folder: string) {
    this.database = database
    this.devices = devices
    this.folder = folder
  }

  /** What is kept of a delivery; begins to read what its device has recorded. */
  async keptOf(id: number): Promise<EvidenceView> {
    const result = await readResult(this.database, id)
    if (result?.files) return { files: result.files, recording: null }
    if (!result?.recording) return { files: [], recording: null }
    if (this.reading.has(id)) return { files: [], recording: { state: 'reading' } }
    const failed = this.failed.get(id)
    if (failed && Date.now() - failed.at < AGAIN_MS)
      return { files: [], recording: { state: 'failed', why: failed.why } }
    return { files: [], recording: await this.begin(id, result.recording) }
  }

  /** The file of what a device has recorded, read from it where nobody has yet; null: it has not ended, or cannot be read. */
  async read(id: number): Promise<string | null> {
    let kept = await this.keptOf(id)
    if (kept.recording?.state === 'reading') {
      await this.reading.get(id)
      kept = await this.keptOf(id)
    }
    return kept.files.length ? join(this.folder, String(id), RECORDING.name) : null
  }

  private async begin(
    id: number,
    recording: { device: string; token: string }
  ): Promise<EvidenceView['recording']> {
    try {
      const link = this.devices.link(await readDevice(this.database, recording.device))
      const found = await link.recordings.recording(recording.token)
      if (typeof found === 'number') return { state: 'running', secondsLeft: found }
      // Somebody else may have looked meanwhile.
      if (!this.reading.has(id) && !this.closed) {
        const turn = (this.turns.get(recording.device) ?? Promise.resolve())
          .then(() => this.take(id, recording, link, found))
          .catch((error: unknown) => void this.fail(id, error))
          .finally(() => this.reading.delete(id))
        this.reading.set(id, turn)
        this.turns.set(recording.device, turn)
      }
      return { state: 'reading' }
    } catch (error) {
      return { state: 'failed', why: this.fail(id, error) }
    }
  }

  private fail(id: number, error: unknown): Said | string {
    const why = saidOfError(error)
    this.failed.set(id, { why, at: Date.now() })
    return why
  }

  private async take(
    id: number,
    recording: { device: string; token: string },
    link: DeviceLink,
    uri: string
  ): Promise<void> {
    if (this.closed) throw new Failure(said('deliveries.serverClosing'))
    const stop = new AbortController()
    this.stops.add(stop)
    const late = setTimeout(
      () => stop.abort(new Failure(said('deliveries.recordingSlow', WITHIN_MS / 60_000))),
      WITHIN_MS
    )
    try {
      await this.write(id, await link.recordings.film(uri, stop.signal), stop.signal)
    } finally {
      clearTimeout(late)
      this.stops.delete(stop)
    }
    await keepResult(this.database, id, { recording, files: [RECORDING] })
  }

  private async write(id: number, answer: Response, signal: AbortSignal): Promise<void> {
    const home = join(this.folder, String(id))
    const part = join(home, 'recording.part')
    await mkdir(home, { recursive: true })
    let bytes = 0
    async function* limited(): AsyncGenerator<Uint8Array> {
      for await (const piece of partsOf(answer, signal)) {
        if ((bytes += piece.length) > MAX_BYTES)
          throw new Failure(said('deliveries.recordingLarge', MAX_BYTES / 2 ** 20))
        yield piece
      }
      signal.throwIfAborted()
    }
    try {
      await pipeline(Readable.from(limited()), createWriteStream(part))
      if (!bytes) throw new Failure(said('deliveries.recordingEmpty'))
      await rename(part, join(home, RECORDING.name))
    } catch (error) {
      await rm(part, { force: true })
      throw error
    }
  }

  async close(): Promise<void> {
    this.closed = true
    for (const stop of this.stops) stop.abort(new Failure(said('deliveries.serverClosing')))
    await Promise.all(this.reading.values())
  }
}

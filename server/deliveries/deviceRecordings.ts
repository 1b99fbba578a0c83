import { createWriteStream } from 'node:fs'
import { mkdir, rename, rm } from 'node:fs/promises'
import { join } from 'node:path'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { KeptView } from '../../core/api.ts'
import type { Database } from '../database.ts'
import type { Devices } from '../devices/devices.ts'
import { readDevice } from '../devices/rows.ts'
import { partsOf } from '../devices/streams.ts'
import { keepResult, readResult } from './rows.ts'

/** A device that gave nothing is asked again after this. */
const AGAIN_MS = 10_000
/** Longer than this no recording takes to be read. */
const WITHIN_MS = 5 * 60_000
const MOST_BYTES = 512 * 2 ** 20

/**
 * What devices have recorded themselves. It is read from the device when somebody first looks, once it has ended, and
 * kept with the delivery from then on: the device will write over it some day.
 */
export class DeviceRecordings {
  private readonly database: Database
  private readonly devices: Devices
  private readonly folder: string
  private readonly reading = new Map<number, { stop: AbortController; done: Promise<void> }>()
  private readonly failed = new Map<number, { words: string; at: number }>()

  /** @param folder of what deliveries left */
  constructor(database: Database, devices: Devices, folder: string) {
    this.database = database
    this.devices = devices
    this.folder = folder
  }

  /** What is kept of a delivery; begins to read what its device has recorded. */
  async keptOf(id: number): Promise<KeptView> {
    const result = await readResult(this.database, id)
    if (result?.files) return { files: result.files, recording: null }
    if (!result?.recording) return { files: [], recording: null }
    if (this.reading.has(id)) return { files: [], recording: { state: 'reading' } }
    const failed = this.failed.get(id)
    if (failed && Date.now() - failed.at < AGAIN_MS) return { files: [], recording: { state: 'failed', words: failed.words } }
    return { files: [], recording: await this.begin(id, result.recording) }
  }

  private async begin(id: number, recording: { device: string; token: string }): Promise<KeptView['recording']> {
    // Noted before anything is waited for: two that look at the same moment begin it once.
    const stop = new AbortController()
    const late = setTimeout(() => stop.abort(new Error(`it took longer than ${WITHIN_MS / 60_000} minutes to read it`)), WITHIN_MS)
    let done = (): void => {}
    this.reading.set(id, { stop, done: new Promise((resolve) => (done = resolve)) })
    const end = (): void => {
      clearTimeout(late)
      this.reading.delete(id)
      done()
    }
    const fail = (error: Error): KeptView['recording'] => {
      this.failed.set(id, { words: error.message, at: Date.now() })
      end()
      return { state: 'failed', words: error.message }
    }
    try {
      const link = this.devices.link(await readDevice(this.database, recording.device))
      const found = await link.recording(recording.token, stop.signal)
      if ('secondsLeft' in found) {
        end()
        return { state: 'running', secondsLeft: found.secondsLeft }
      }
      this.take(id, recording, found, stop.signal).then(end, fail)
      return { state: 'reading' }
    } catch (error) {
      return fail(error as Error)
    }
  }

  private async take(id: number, recording: { device: string; token: string }, answer: Response, signal: AbortSignal): Promise<void> {
    const home = join(this.folder, String(id))
    const part = join(home, 'recording.part')
    await mkdir(home, { recursive: true })
    let bytes = 0
    async function* limited(): AsyncGenerator<Uint8Array> {
      for await (const piece of partsOf(answer, signal)) {
        if ((bytes += piece.length) > MOST_BYTES) throw new Error(`the recording is larger than ${MOST_BYTES / 2 ** 20} MB`)
        yield piece
      }
      signal.throwIfAborted()
    }
    try {
      await pipeline(Readable.from(limited()), createWriteStream(part))
      if (!bytes) throw new Error('the device gave an empty recording')
      await rename(part, join(home, 'recording.mp4'))
    } catch (error) {
      await rm(part, { force: true })
      throw error
    }
    await keepResult(this.database, id, { recording, files: [{ name: 'recording.mp4', type: 'video/mp4' }] })
  }

  async close(): Promise<void> {
    const all = [...this.reading.values()]
    for (const { stop } of all) stop.abort(new Error('the server is closing'))
    await Promise.all(all.map(({ done }) => done))
  }
}

import { Worker } from 'node:worker_threads'
import { listChannels } from '../devices/channelQueries.ts'
import { DeviceError } from '../devices/deviceError.ts'
import type { Devices } from '../devices/service.ts'
import type { Database } from '../database.ts'
import type { TargetRow } from '../../core/targets/tracks.ts'
import type { FromFollower, ToFollower } from './follower.ts'

const AGAIN_MS = 5000
/** Cameras that were added, or shown by another device, are found within this. */
const LOOK_MS = 10_000

/**
 * What cameras have reported in the last minute and a half: a trigger's evidence begins before it. They are followed in
 * a thread of their own (follower.ts): of 200 cameras, reading what they say is work enough for one.
 */
export class TargetMemory {
  private readonly database: Database
  private readonly devices: Devices
  private readonly log: (error: unknown) => void
  private readonly againMs: number
  private readonly following = new Set<string>()
  private readonly again = new Set<NodeJS.Timeout>()
  private readonly asked = new Map<number, (rows: TargetRow[]) => void>()
  private questions = 0
  private thread: Worker | null = null
  private closed = false
  private timer: NodeJS.Timeout | undefined
  private looking: Promise<void> = Promise.resolve()

  /** @param againMs after which a camera that is not heard any more is asked again */
  constructor(
    database: Database,
    devices: Devices,
    log: (error: unknown) => void,
    againMs = AGAIN_MS
  ) {
    this.againMs = againMs
    this.database = database
    this.devices = devices
    this.log = log
  }

  start(): void {
    const look = (): void => void (this.looking = this.look().catch(this.log))
    look()
    this.timer = setInterval(look, LOOK_MS)
  }

  async close(): Promise<void> {
    this.closed = true
    clearInterval(this.timer)
    for (const timer of this.again) clearTimeout(timer)
    await this.looking
    await this.thread?.terminate()
  }

  /** Rows of a camera between two instants; frame 1 is at the first. Instants are by the clock here, ms of UTC. */
  between(camera: string, from: number, to: number): Promise<TargetRow[]> {
    const { thread } = this
    if (!thread) return Promise.resolve([])
    return new Promise((resolve) => {
      const id = this.questions++
      this.asked.set(id, resolve)
      thread.postMessage({ type: 'between', id, camera, from, to } satisfies ToFollower)
    })
  }

  private async look(): Promise<void> {
    const cameras = new Set(
      (await listChannels(this.database)).flatMap(
        (c) => (c.readAt !== null && c.hasMetadata && c.camera) || []
      )
    )
    for (const camera of cameras) {
      if (this.closed) return
      if (!this.following.has(camera)) await this.follow(camera)
    }
  }

  /** Until the camera is shown by nothing any more; one that does not answer is asked again. */
  private async follow(camera: string): Promise<void> {
    const found = await this.devices.channelShowing(camera)
    if (this.closed || !found?.channel.hasMetadata) return
    this.following.add(camera)
    const { profile } = found.channel
    try {
      const source = { ...this.devices.access(found.row), profile }
      const order: ToFollower = { type: 'follow', camera, source }
      this.running().postMessage(order)
    } catch (error) {
      this.following.delete(camera)
      // Devices shows that its password cannot be read any more.
      if (!(error instanceof DeviceError)) throw error
    }
  }

  /** The thread; it begins with the first camera. */
  private running(): Worker {
    if (this.thread) return this.thread
    const thread = new Worker(new URL('./followThread.mjs', import.meta.url), { execArgv: [] })
    thread.on('message', (message: FromFollower) => {
      if (message.type === 'rows') this.answer(message.id, message.rows)
      else this.followAgain(message.camera)
    })
    thread.on('error', this.log)
    thread.on('exit', () => {
      this.thread = null
      for (const id of [...this.asked.keys()]) this.answer(id, [])
      // Found again at the next look.
      this.following.clear()
    })
    return (this.thread = thread)
  }

  private answer(id: number, rows: TargetRow[]): void {
    this.asked.get(id)?.(rows)
    this.asked.delete(id)
  }

  private followAgain(camera: string): void {
    if (this.closed) return
    const timer = setTimeout(() => {
      this.again.delete(timer)
      this.following.delete(camera)
      if (!this.closed) this.looking = this.looking.then(() => this.follow(camera)).catch(this.log)
    }, this.againMs)
    this.again.add(timer)
  }
}

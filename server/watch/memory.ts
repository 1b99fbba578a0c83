import { Worker } from 'node:worker_threads'
import { listChannels } from '../devices/channelQueries.ts'
import { DeviceError, isRefusal } from '../devices/link/deviceError.ts'
import type { Devices } from '../devices/service.ts'
import type { Database } from '../database.ts'
import type { TargetRow } from '../../core/targets/tracks.ts'
import type { FromFollower, ToFollower } from './follower.ts'

const AGAIN_MS = 5000
/** Cameras that were added, or shown by another device, are found within this. */
const LOOK_MS = 10_000

/** What of it is for whoever keeps it for longer. */
export interface Keeper {
  /** Where the hours are written. */
  readonly folder: string
  /** Cameras of which nothing is written. */
  without(): Promise<string[]>
  /** Nothing more is written to that hour's log. */
  hourOver(camera: string, hour: number): void
}

/**
 * What cameras have reported in the last minute and a half: a trigger's evidence begins before it. They are followed in
 * a thread of their own (follower.ts), which writes down what they say as well: of 200 cameras that is work enough for
 * one.
 */
export class TargetMemory {
  private readonly database: Database
  private readonly devices: Devices
  private readonly keeper: Keeper
  private readonly log: (error: unknown) => void
  private readonly againMs: number
  private readonly following = new Set<string>()
  private readonly again = new Set<NodeJS.Timeout>()
  private readonly asked = new Map<number, (rows: TargetRow[]) => void>()
  private questions = 0
  private thread: Worker | null = null
  private closed = false
  private onClosed: () => void = () => {}
  private timer: NodeJS.Timeout | undefined
  private looking: Promise<void> = Promise.resolve()

  /** @param againMs after which a camera that is not heard any more is asked again */
  constructor(
    database: Database,
    devices: Devices,
    keeper: Keeper,
    log: (error: unknown) => void,
    againMs = AGAIN_MS
  ) {
    this.againMs = againMs
    this.database = database
    this.devices = devices
    this.keeper = keeper
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
    const { thread } = this
    if (!thread) return
    // What was taken last is written before it ends.
    await new Promise<void>((resolve) => {
      this.onClosed = resolve
      thread.postMessage({ type: 'close' } satisfies ToFollower)
    })
    await thread.terminate()
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

  /** The cameras of which nothing is written have changed. Resolves once nothing is written of them any more. */
  async leaveOut(): Promise<void> {
    const cameras = await this.keeper.without()
    const { thread } = this
    if (!thread) return
    await new Promise<void>((resolve) => {
      const id = this.questions++
      this.asked.set(id, () => resolve())
      thread.postMessage({ type: 'without', id, cameras } satisfies ToFollower)
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
    const thread = new Worker(new URL('./followThread.mjs', import.meta.url), {
      execArgv: [],
      workerData: { folder: this.keeper.folder }
    })
    thread.on('message', (message: FromFollower) => {
      switch (message.type) {
        case 'rows':
          return this.answer(message.id, message.rows)
        case 'leftOut':
          return this.answer(message.id, [])
        case 'ended':
          return this.followAgain(message.camera)
        case 'hourOver':
          return this.keeper.hourOver(message.camera, message.hour)
        case 'notWritten':
          return this.log(new Error(message.why))
        case 'picture':
          return void this.pictureOf(message.id, message.camera)
        case 'closed':
          return this.onClosed()
      }
    })
    thread.on('error', this.log)
    thread.on('exit', () => {
      this.thread = null
      this.onClosed()
      for (const id of [...this.asked.keys()]) this.answer(id, [])
      // Found again at the next look.
      this.following.clear()
    })
    this.thread = thread
    this.leaveOut().catch(this.log)
    return thread
  }

  /** The next picture of a camera's stream, for the thread. */
  private async pictureOf(id: number, camera: string): Promise<void> {
    const answer: ToFollower = { type: 'picture', id, jpeg: null, isRefused: false }
    try {
      // Nobody looks at it: the stream ends with its picture.
      answer.jpeg = await this.devices.pictureNow(camera, 0)
    } catch (error) {
      // Devices says what is wrong with it.
      answer.isRefused = isRefusal(error)
    }
    this.thread?.postMessage(answer)
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

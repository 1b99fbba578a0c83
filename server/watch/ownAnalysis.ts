import { EventEmitter, on } from 'node:events'
import { availableParallelism } from 'node:os'
import { Worker } from 'node:worker_threads'
import { saidOfError } from '../../core/errors.ts'
import type { LiveFrame } from '../../core/devices/views.ts'
import type { AnalysisView } from '../../core/lookBack/settings.ts'
import type { TargetRow } from '../../core/targets/tracks.ts'
import { readSettings } from '../actions/queries.ts'
import type { Database } from '../database.ts'
import type { ShownChannel } from '../devices/pictures.ts'
import type { Devices, OwnTargets } from '../devices/service.ts'
import { siteIds } from '../sites/queries.ts'
import type { Keeper } from './memory.ts'
import { RecentFrames } from './recentFrames.ts'
import type { FromStreamThread, ToStreamThread } from './streamThread.ts'

/** Cameras that were added, or can be reached again, are found within this. */
const LOOK_MS = 10_000
/** One that failed is tried again after this … */
const AGAIN_MS = 30_000
/** … and one that gives single pictures alone after this. */
const NO_STREAM_MS = 3_600_000
/** No more pictures a second are analysed, ms between two; they do not come evenly. */
const APART_MS = 90
/** Pictures that wait to be analysed; more are left out. */
const WAITING = 8
/** Over so long the rate is told. */
const RATE_MS = 10_000
/** A camera takes about half a core, reading its stream and looking at it; one core is left to everything else. */
const CORES_EACH = 0.5

export const mostAnalyses = (cores = availableParallelism()): number =>
  Math.max(1, Math.floor((cores - 1) / CORES_EACH))
/** Cameras that share a thread. */
const PER_THREAD = 4

interface Running {
  /** Null: no picture has come yet. */
  thread: Worker | null
  ended: AbortController
  done: Promise<void>
  frames: RecentFrames
  /** Says each `frame`, and the `end`. */
  told: EventEmitter
  waiting: number
}

async function* framesOf(told: EventEmitter, signal: AbortSignal): AsyncGenerator<LiveFrame> {
  try {
    for await (const [frame] of on(told, 'frame', { signal, close: ['end'] }))
      yield frame as LiveFrame
  } catch (error) {
    if (!signal.aborted) throw error
  }
}

interface Stopped {
  state: 'noStream' | 'failed'
  why: AnalysisView['why']
  /** Tried again then. */
  until: number
}

type Hindered = 'waiting' | 'reports' | 'away'

/**
 * Analyses the pictures of cameras whose devices do not report what is in them, in threads of its own, as many as this
 * machine can do; what it finds is kept as if they had reported it.
 */
export class OwnAnalysis implements OwnTargets {
  private readonly database: Database
  private readonly devices: Devices
  private readonly keeper: Pick<Keeper, 'folder' | 'hourOver'>
  private readonly log: (error: unknown) => void
  private readonly most: number
  private readonly running = new Map<string, Running>()
  /** Told when a thread has written the last of a camera. */
  private readonly ending = new Map<string, () => void>()
  private readonly stopped = new Map<string, Stopped>()
  /** What hinders cameras that are wanted and do not run. */
  private hindered: ReadonlyMap<string, Hindered> = new Map()
  private readonly threads = new Map<Worker, Set<string>>()
  private readonly closing = new Set<Promise<void>>()
  private timer: NodeJS.Timeout | undefined
  private looking: Promise<void> = Promise.resolve()
  private closed = false

  /** @param most cameras at once */
  constructor(
    database: Database,
    devices: Devices,
    keeper: Pick<Keeper, 'folder' | 'hourOver'>,
    log: (error: unknown) => void,
    most = mostAnalyses()
  ) {
    this.database = database
    this.devices = devices
    this.keeper = keeper
    this.log = log
    this.most = most
  }

  start(): void {
    void this.look()
    this.timer = setInterval(() => void this.look(), LOOK_MS)
  }

  async close(): Promise<void> {
    this.closed = true
    clearInterval(this.timer)
    await this.looking
    const ending = [...this.running.values()].map(({ done }) => done)
    for (const camera of [...this.running.keys()]) this.end(camera)
    await Promise.all(ending)
    for (const thread of this.threads.keys()) this.closeThread(thread)
    await Promise.all(this.closing)
  }

  /** Looks which cameras are to be analysed; also told when that has changed. */
  look(): Promise<void> {
    return (this.looking = this.looking.then(() => this.lookNow()).catch(this.log))
  }

  /** How many can be analysed at once, and how those of a site that are wanted go. */
  view(wanted: readonly string[]): { most: number; analyses: AnalysisView[] } {
    return { most: this.most, analyses: wanted.map((camera) => this.viewOf(camera)) }
  }

  has(camera: string): boolean {
    return this.running.has(camera)
  }

  /** What is seen in a camera's pictures, as it comes; null: they are not analysed. */
  targets(camera: string, signal: AbortSignal): AsyncGenerator<LiveFrame> | null {
    const running = this.running.get(camera)
    return running ? framesOf(running.told, signal) : null
  }

  /** Rows of a camera between two instants of the last minute and a half; frame 1 is at the first. */
  between(camera: string, from: number, to: number): TargetRow[] {
    return this.running.get(camera)?.frames.between(from, to) ?? []
  }

  private viewOf(camera: string): AnalysisView {
    const running = this.running.get(camera)
    if (running) {
      const count = running.frames.countSince(Date.now() - RATE_MS)
      return {
        camera,
        state: count ? 'running' : 'starting',
        rate: count ? count / (RATE_MS / 1000) : null,
        why: null
      }
    }
    const stopped = this.stopped.get(camera)
    return {
      camera,
      state: stopped?.state ?? this.hindered.get(camera) ?? 'starting',
      rate: null,
      why: stopped?.why ?? null
    }
  }

  private async lookNow(): Promise<void> {
    if (this.closed) return
    const wanted: string[] = []
    for (const site of await siteIds(this.database)) {
      const { analysed, without } = (await readSettings(this.database, site)).lookBack.lookBack
      wanted.push(...analysed.filter((camera) => !without.includes(camera)))
    }
    const hindered = new Map<string, Hindered>()
    const shown = new Map<string, ShownChannel>()
    for (const camera of wanted) {
      const found = await this.devices.channelShowing(camera)
      if (!found) hindered.set(camera, 'away')
      else if (found.channel.hasMetadata) hindered.set(camera, 'reports')
      else shown.set(camera, found)
    }
    for (const [camera, { done }] of [...this.running])
      if (!shown.has(camera)) {
        this.end(camera)
        // What is left out may be deleted after this: nothing is written any more.
        await done
      }
    for (const camera of this.stopped.keys())
      if (!wanted.includes(camera)) this.stopped.delete(camera)
    for (const [camera, channel] of shown) {
      if (this.closed) return
      if (this.running.has(camera) || (this.stopped.get(camera)?.until ?? 0) > Date.now()) continue
      if (this.running.size >= this.most) hindered.set(camera, 'waiting')
      else this.run(camera, channel)
    }
    this.hindered = hindered
  }

  private run(camera: string, channel: ShownChannel): void {
    this.stopped.delete(camera)
    const running: Running = {
      thread: null,
      ended: new AbortController(),
      done: Promise.resolve(),
      frames: new RecentFrames(),
      // As many may look as like.
      told: new EventEmitter().setMaxListeners(0),
      waiting: 0
    }
    this.running.set(camera, running)
    running.done = this.read(camera, channel, running)
      .catch((error: unknown) => this.stop(camera, running, 'failed', saidOfError(error), AGAIN_MS))
      .then(() => {
        running.told.emit('end')
        return this.endIn(running.thread, camera)
      })
      .finally(() => {
        if (this.running.get(camera) === running) this.running.delete(camera)
        const { thread } = running
        const others = thread && this.threads.get(thread)
        if (!others) return
        others.delete(camera)
        // It holds hundreds of megabytes.
        if (others.size === 0) this.closeThread(thread)
      })
  }

  /** Resolves once what was found last is written. */
  private endIn(thread: Worker | null, camera: string): Promise<void> {
    return new Promise((resolve) => {
      if (!thread || !this.threads.has(thread)) return resolve()
      this.ending.set(camera, resolve)
      this.send(thread, { type: 'end', camera, at: Date.now() })
    })
  }

  private async read(camera: string, channel: ShownChannel, running: Running): Promise<void> {
    const { ended } = running
    const stream = await this.devices.pictures.stream(channel, ended.signal)
    if (!stream) return this.stop(camera, running, 'noStream', null, NO_STREAM_MS)
    let last = -Infinity
    for await (const picture of stream) {
      const at = Date.now()
      // What the machine cannot do is left out, and seen in the rate.
      if (at - last < APART_MS || running.waiting >= WAITING) continue
      last = at
      running.waiting++
      const jpeg = new Uint8Array(picture)
      running.thread ??= this.threadFor(camera)
      this.send(running.thread, { type: 'picture', camera, at, jpeg }, [jpeg.buffer])
    }
  }

  private end(camera: string): void {
    this.running.get(camera)?.ended.abort()
    this.running.delete(camera)
  }

  private stop(
    camera: string,
    running: Running,
    state: Stopped['state'],
    why: Stopped['why'],
    againMs: number
  ): void {
    if (this.running.get(camera) !== running) return
    this.stopped.set(camera, { state, why, until: Date.now() + againMs })
    this.end(camera)
  }

  private take(message: FromStreamThread): void {
    switch (message.type) {
      case 'done':
        return this.done(message)
      case 'hourOver':
        return this.keeper.hourOver(message.camera, message.hour)
      case 'failed':
        return this.log(new Error(message.why))
      case 'ended':
        return this.ended(message.camera)
      case 'closed':
        return
    }
  }

  private ended(camera: string): void {
    this.ending.get(camera)?.()
    this.ending.delete(camera)
  }

  private done({ camera, frame }: Extract<FromStreamThread, { type: 'done' }>): void {
    const running = this.running.get(camera)
    if (!running) return
    running.waiting--
    if (!frame) return
    running.frames.take(frame)
    running.told.emit('frame', frame)
  }

  /** The thread with the fewest cameras, or another one. */
  private threadFor(camera: string): Worker {
    const [thread, cameras] =
      [...this.threads]
        .filter(([, of]) => of.size < PER_THREAD)
        .sort((a, b) => a[1].size - b[1].size)[0] ?? this.startThread()
    cameras.add(camera)
    return thread
  }

  private startThread(): [Worker, Set<string>] {
    const thread = new Worker(new URL('./streamThread.mjs', import.meta.url), {
      execArgv: [],
      workerData: { folder: this.keeper.folder }
    })
    const cameras = new Set<string>()
    this.threads.set(thread, cameras)
    thread.on('message', (message: FromStreamThread) => this.take(message))
    thread.on('error', this.log)
    thread.on('exit', () => {
      this.threads.delete(thread)
      // Found again at the next look.
      for (const camera of cameras) {
        this.end(camera)
        this.ended(camera)
      }
    })
    return [thread, cameras]
  }

  private send(thread: Worker, message: ToStreamThread, transfer: ArrayBuffer[] = []): void {
    if (this.threads.has(thread)) thread.postMessage(message, transfer)
  }

  /** No camera is given to it any more; what was found last is written before it ends. */
  private closeThread(thread: Worker): void {
    this.threads.delete(thread)
    const closed = new Promise<void>((resolve) => {
      thread.on('exit', () => resolve())
      thread.on('message', ({ type }: FromStreamThread) => type === 'closed' && resolve())
      thread.postMessage({ type: 'close' } satisfies ToStreamThread)
    })
      .then(() => thread.terminate())
      .then(() => void this.closing.delete(closed))
    this.closing.add(closed)
  }
}

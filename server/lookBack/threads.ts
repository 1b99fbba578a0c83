import { Worker } from 'node:worker_threads'
import { Failure } from '../../core/errors.ts'
import { said } from '../../core/messages/said.ts'
import type { FromJobThread, ToJobThread } from './jobThread.ts'
import type { AnswerTo, Job } from './jobs.ts'

interface Waiting {
  id: number
  job: Job
  resolve: (answer: AnswerTo<Job>) => void
  reject: (error: Error) => void
  progress: (share: number) => void
}

/** A thread ends when nothing was asked of it for so long: it may hold the rows of days. */
const IDLE_MS = 60_000

/** Threads that answer from what cameras have reported, each one job at a time; begun when they are needed. */
export class JobThreads {
  private readonly folder: string
  private readonly most: number
  private readonly waiting: Waiting[] = []
  private readonly busy = new Map<Worker, Waiting | null>()
  private idle: NodeJS.Timeout | undefined
  private nextId = 1
  private closed = false

  /** @param most threads at a time */
  constructor(folder: string, most: number) {
    this.folder = folder
    this.most = most
  }

  /**
   * @param signal ends the job, and its thread with it
   * @throws Failure that says why not
   */
  ask<J extends Job>(
    job: J,
    progress: (share: number) => void = () => {},
    signal?: AbortSignal
  ): Promise<AnswerTo<J>> {
    return new Promise((resolve, reject) => {
      if (this.closed || signal?.aborted) return reject(new Failure(said('lookBack.stopped')))
      const waiting: Waiting = {
        id: this.nextId++,
        job,
        resolve: resolve as Waiting['resolve'],
        reject,
        progress
      }
      signal?.addEventListener('abort', () => void this.stop(waiting), { once: true })
      this.waiting.push(waiting)
      this.next()
    })
  }

  get isClosed(): boolean {
    return this.closed
  }

  async close(): Promise<void> {
    this.closed = true
    clearTimeout(this.idle)
    for (const { reject } of this.waiting.splice(0)) reject(new Failure(said('lookBack.stopped')))
    await Promise.all([...this.busy.keys()].map((thread) => thread.terminate()))
  }

  private async stop(waiting: Waiting): Promise<void> {
    const at = this.waiting.indexOf(waiting)
    if (at >= 0) {
      this.waiting.splice(at, 1)
      return waiting.reject(new Failure(said('lookBack.stopped')))
    }
    for (const [thread, job] of this.busy) if (job === waiting) await thread.terminate()
  }

  private next(): void {
    clearTimeout(this.idle)
    while (this.waiting.length) {
      const free =
        [...this.busy].find(([, job]) => job === null)?.[0] ??
        (this.busy.size < this.most ? this.start() : null)
      if (!free) return
      const waiting = this.waiting.shift()!
      this.busy.set(free, waiting)
      free.postMessage({ id: waiting.id, job: waiting.job } satisfies ToJobThread)
    }
    if ([...this.busy.values()].every((job) => job === null)) {
      this.idle = setTimeout(() => {
        for (const thread of this.busy.keys()) void thread.terminate()
      }, IDLE_MS)
      this.idle.unref()
    }
  }

  private start(): Worker {
    const thread = new Worker(new URL('./jobThread.mjs', import.meta.url), {
      execArgv: [],
      workerData: { folder: this.folder }
    })
    thread.unref()
    this.busy.set(thread, null)
    thread.on('message', (message: FromJobThread) => {
      const of = this.busy.get(thread)
      if (!of || of.id !== message.id) return
      if ('progress' in message) return of.progress(message.progress)
      this.busy.set(thread, null)
      if ('done' in message) of.resolve(message.done)
      else of.reject(new Failure(message.why))
      this.next()
    })
    thread.on('error', (error) => {
      this.busy.get(thread)?.reject(error)
      this.busy.delete(thread)
      this.next()
    })
    thread.on('exit', () => {
      this.busy.get(thread)?.reject(new Failure(said('lookBack.stopped')))
      this.busy.delete(thread)
      if (!this.closed) this.next()
    })
    return thread
  }
}

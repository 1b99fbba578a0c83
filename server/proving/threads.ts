import { availableParallelism } from 'node:os'
import { Worker } from 'node:worker_threads'
import type { Answer, Job } from './worker.ts'

interface Waiting {
  id: number
  job: Job
  resolve(answer: Answer): void
  reject(error: Error): void
}

/** Threads end when nothing has been asked of them for so long. */
const IDLE_MS = 60_000
const MOST = 4

/** Threads that walk and judge, started when they are needed. Jobs are taken in order, one at a time each. */
export class Threads {
  private readonly folder: string
  private readonly waiting: Waiting[] = []
  private readonly busy = new Map<Worker, Waiting | null>()
  private readonly most = Math.max(1, Math.min(MOST, availableParallelism()))
  private idle: ReturnType<typeof setTimeout> | undefined
  private nextId = 1
  private closed = false

  /** @param folder where what painted pictures gave is kept */
  constructor(folder: string) {
    this.folder = folder
  }

  ask<J extends Job>(job: J): Promise<Answer<J>> {
    return new Promise((resolve, reject) => {
      if (this.closed) return reject(new Error('the server is closing'))
      this.waiting.push({ id: this.nextId++, job, resolve: resolve as (answer: Answer) => void, reject })
      this.next()
    })
  }

  private next(): void {
    clearTimeout(this.idle)
    while (this.waiting.length) {
      const free = [...this.busy].find(([, job]) => job === null)?.[0] ?? (this.busy.size < this.most ? this.start() : null)
      if (!free) return
      const job = this.waiting.shift()!
      this.busy.set(free, job)
      free.postMessage({ id: job.id, job: job.job })
    }
    if ([...this.busy.values()].every((job) => job === null)) {
      this.idle = setTimeout(() => void this.end(), IDLE_MS)
      this.idle.unref()
    }
  }

  private start(): Worker {
    const worker = new Worker(new URL('./thread.mjs', import.meta.url), { workerData: { folder: this.folder }, execArgv: [] })
    worker.unref()
    this.busy.set(worker, null)
    const failed = (error: Error): void => {
      this.busy.get(worker)?.reject(error)
      this.busy.delete(worker)
      void worker.terminate()
      if (!this.closed) this.next()
    }
    worker.on('message', ({ answer, error }: { answer?: Answer; error?: string }) => {
      const job = this.busy.get(worker)
      this.busy.set(worker, null)
      if (error !== undefined) job?.reject(new Error(error))
      else job?.resolve(answer!)
      this.next()
    })
    worker.on('error', failed)
    worker.on('exit', (code) => this.busy.has(worker) && failed(new Error(`a proving thread ended with code ${code}`)))
    return worker
  }

  private async end(): Promise<void> {
    const workers = [...this.busy.keys()]
    this.busy.clear()
    await Promise.all(workers.map((worker) => worker.terminate()))
  }

  async close(): Promise<void> {
    this.closed = true
    clearTimeout(this.idle)
    for (const { reject } of this.waiting.splice(0)) reject(new Error('the server is closing'))
    for (const job of this.busy.values()) job?.reject(new Error('the server is closing'))
    await this.end()
  }
}

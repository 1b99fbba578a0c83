import { fork, type ChildProcess } from 'node:child_process'
import { availableParallelism } from 'node:os'
import { fileURLToPath } from 'node:url'
import { KEEPS_MEMORY } from '../../simulation/keepsMemory.ts'
import { forgetWalks } from './walkFiles.ts'
import type { Answer, Job } from './prover.ts'

interface Waiting {
  id: number
  job: Job
  resolve(answer: Answer): void
  reject: (error: Error) => void
}

/** Processes end when nothing has been asked of them for so long. */
const IDLE_MS = 60_000
const MOST = 4

/** Processes that walk and judge, started when they are needed. Jobs are taken in order, one at a time each. */
export class Provers {
  private readonly folder: string
  private readonly waiting: Waiting[] = []
  private readonly busy = new Map<ChildProcess, Waiting | null>()
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
      this.waiting.push({
        id: this.nextId++,
        job,
        resolve: resolve as (answer: Answer) => void,
        reject
      })
      this.next()
    })
  }

  /** Removes what painted pictures gave that nobody has asked for in so many days. */
  forget(days: number): Promise<void> {
    return forgetWalks(this.folder, Date.now() - days * 24 * 60 * 60_000)
  }

  private next(): void {
    clearTimeout(this.idle)
    while (this.waiting.length) {
      const free =
        [...this.busy].find(([, job]) => job === null)?.[0] ??
        (this.busy.size < this.most ? this.start() : null)
      if (!free) return
      const job = this.waiting.shift()!
      this.busy.set(free, job)
      // What cannot be sent is said by its end.
      free.send({ id: job.id, job: job.job }, () => {})
    }
    if ([...this.busy.values()].every((job) => job === null)) {
      this.idle = setTimeout(() => void this.end(), IDLE_MS)
      this.idle.unref()
    }
  }

  private start(): ChildProcess {
    const prover = fork(fileURLToPath(new URL('./prover.mjs', import.meta.url)), [this.folder], {
      serialization: 'advanced',
      execArgv: [],
      stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
      env: { ...process.env, ...KEEPS_MEMORY }
    })
    prover.unref()
    prover.channel?.unref()
    this.busy.set(prover, null)
    const failed = (error: Error): void => {
      const job = this.busy.get(prover)
      if (!this.busy.delete(prover)) return
      prover.kill('SIGKILL')
      job?.reject(error)
      if (!this.closed) this.next()
    }
    prover.on('message', ({ answer, error }: { answer?: Answer; error?: string }) => {
      const job = this.busy.get(prover)
      if (!job) return
      this.busy.set(prover, null)
      if (error !== undefined) job.reject(new Error(error))
      else job.resolve(answer!)
      this.next()
    })
    prover.on('error', failed)
    prover.on('exit', (code, signal) =>
      failed(new Error(`a proving process ended with ${signal ?? `code ${code}`}`))
    )
    return prover
  }

  private async end(): Promise<void> {
    const provers = [...this.busy.keys()]
    this.busy.clear()
    await Promise.all(
      provers.map((prover) => {
        const ended = new Promise<void>((resolve) => prover.once('exit', () => resolve()))
        if (prover.exitCode !== null || prover.signalCode !== null) return Promise.resolve()
        prover.ref()
        prover.kill('SIGKILL')
        return ended
      })
    )
  }

  async close(): Promise<void> {
    this.closed = true
    clearTimeout(this.idle)
    for (const { reject } of this.waiting.splice(0)) reject(new Error('the server is closing'))
    for (const job of this.busy.values()) job?.reject(new Error('the server is closing'))
    await this.end()
  }
}

import { rm } from 'node:fs/promises'
import { availableParallelism } from 'node:os'
import { join } from 'node:path'
import { lengthOf } from '../../core/lookBack/rows.ts'
import { readSettings } from '../actions/queries.ts'
import type { Database } from '../database.ts'
import { listCameraIds, siteIds } from '../sites/queries.ts'
import type { Keeper } from '../watch/memory.ts'
import { openHours, removeOld, type KeepLimits } from './closing.ts'
import { hoursOf } from './hours.ts'
import type { SweepView } from '../../core/marks/views.ts'
import type { AnswerTo, Job } from './jobs.ts'
import { JobThreads } from './threads.ts'

const GIGABYTE = 1e9
/** What is too old goes within this. */
const LOOK_MS = 10 * 60_000
/** What is still to be written of an hour that is over is on the disk after this. */
const WRITTEN_MS = 60_000
/** Each part of a sweep reads the days anew, so that more than a few are not quicker. */
const SWEEP_PARTS = Math.max(1, Math.min(4, availableParallelism()))

/** Keeps what cameras report for as long as their sites want it, and answers from it, in threads of their own. */
export class LookBack implements Keeper {
  readonly folder: string
  private readonly database: Database
  private readonly log: (error: unknown) => void
  private readonly now: () => number
  /** Closed hours are written by one, whatever is asked meanwhile. */
  private readonly closing: JobThreads
  private readonly asking: JobThreads
  private timer: NodeJS.Timeout | undefined
  private working: Promise<void> = Promise.resolve()

  constructor(
    database: Database,
    folder: string,
    log: (error: unknown) => void,
    now: () => number = Date.now
  ) {
    this.database = database
    this.folder = folder
    this.log = log
    this.now = now
    this.closing = new JobThreads(folder, 1)
    this.asking = new JobThreads(folder, Math.max(2, Math.min(4, availableParallelism())))
  }

  start(): void {
    this.later(() => this.look())
    this.timer = setInterval(() => this.later(() => this.look()), LOOK_MS)
  }

  async close(): Promise<void> {
    clearInterval(this.timer)
    await Promise.all([this.closing.close(), this.asking.close()])
    await this.working
  }

  hourOver(camera: string, hour: number): void {
    // One that was stopped is closed at the next start.
    this.closing.ask({ type: 'close', camera, hour }).catch((error: unknown) => {
      if (!this.closing.isClosed) this.log(error)
    })
  }

  async without(): Promise<string[]> {
    const without: string[] = []
    for (const site of await siteIds(this.database))
      without.push(...(await readSettings(this.database, site)).lookBack.lookBack.without)
    return without
  }

  ask<J extends Job>(
    job: J,
    progress?: (share: number) => void,
    signal?: AbortSignal
  ): Promise<AnswerTo<J>> {
    return this.asking.ask(job, progress, signal)
  }

  /** Sweeps a setting, on as many threads as there are. */
  async sweep(
    job: Omit<Extract<Job, { type: 'sweep' }>, 'type' | 'part'>,
    signal: AbortSignal
  ): Promise<SweepView> {
    const parts = await Promise.all(
      Array.from({ length: SWEEP_PARTS }, (_, part) =>
        this.asking.ask({ type: 'sweep', ...job, part: [part, SWEEP_PARTS] }, undefined, signal)
      )
    )
    return {
      heardMs: lengthOf(parts[0]!.heard),
      swept: parts.flatMap(({ swept }) => swept).sort((a, b) => a.value - b.value)
    }
  }

  /** How much there is of a site, and since when. */
  async sizeOf(site: string): Promise<{ bytes: number; since: number | null }> {
    let [bytes, since] = [0, Infinity]
    for (const camera of await listCameraIds(this.database, site))
      for (const file of await hoursOf(this.folder, camera)) {
        bytes += file.bytes
        since = Math.min(since, file.hour)
      }
    return { bytes, since: Number.isFinite(since) ? since : null }
  }

  /** Everything of cameras that are left out from now on goes. */
  async forget(cameras: readonly string[]): Promise<void> {
    for (const camera of cameras)
      await rm(join(this.folder, camera), { recursive: true, force: true })
  }

  /**
   * Closes hours that were left open, as of cameras that went away in the middle of one, and takes away what is too old
   * or too much.
   *
   * @returns how many files have gone
   */
  async look(): Promise<number> {
    for (const { camera, hour } of await openHours(this.folder, this.now() - WRITTEN_MS))
      this.hourOver(camera, hour)
    const days = new Map<string, number>()
    const shares: KeepLimits['shares'][number][] = []
    for (const site of await siteIds(this.database)) {
      const { lookBack } = (await readSettings(this.database, site)).lookBack
      const cameras = await listCameraIds(this.database, site)
      for (const camera of cameras)
        if (!lookBack.without.includes(camera)) days.set(camera, lookBack.days)
      shares.push({ cameras, bytes: lookBack.gigabytes * GIGABYTE })
    }
    return removeOld(this.folder, { days, shares }, this.now())
  }

  private later(work: () => Promise<unknown>): void {
    this.working = this.working.then(work).then(() => {}, this.log)
  }
}

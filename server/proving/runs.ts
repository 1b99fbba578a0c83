import { saidOfError } from '../../core/errors.ts'
import { NO_ACTIONS } from '../../core/formats/noActions.ts'
import { said } from '../../core/messages/said.ts'
import { NOTHING_SEEN, type Verdict } from '../../core/proving/judge.ts'
import type { NamedCheck, ProofRunView, Turn } from '../../core/proving/views.ts'
import type { Clips } from '../clips/service.ts'
import type { Database } from '../database.ts'
import { conflict, notFound } from '../errors.ts'
import type { Author } from '../history/queries.ts'
import { clipSource } from './clipSource.ts'
import type { Provers } from './provers.ts'
import {
  editsBetween,
  insertResult,
  insertRun,
  readChecks,
  readRun,
  resultsBefore,
  resultsOfRun,
  setRunState,
  stopRunsLeftRunning,
  type StoredCheck,
  type StoredRun
} from './queries.ts'
import { readScenery, settingsOf, type Place, type Scenery } from './scenery.ts'

interface Running {
  stop: boolean
  ended: Promise<void>
}

const AT_A_TIME = 4
/** Edits that are named where a result has turned. */
const MAX_SINCE = 5
/** What painted pictures gave is kept for so long after it was asked for last. */
const KEPT_DAYS = 60

/** Checks on the same walk together, one after the other: the first one paints its pictures, for all of them. */
function byWalk(checks: readonly StoredCheck[]): StoredCheck[][] {
  const groups = new Map<string, StoredCheck[]>()
  for (const one of checks) {
    const { by } = one.check
    const key =
      by.how === 'walk'
        ? `${one.camera} ${JSON.stringify(by.walk)}`
        : `${one.camera} ${one.check.id}`
    groups.set(key, [...(groups.get(key) ?? []), one])
  }
  return [...groups.values()]
}

/** Runs of checks: one at a time, each of whose results is kept as soon as it is there. */
export class ProofRuns {
  private readonly database: Database
  private readonly clips: Clips
  private readonly provers: Provers
  private readonly log: (error: unknown) => void
  private readonly running = new Map<number, Running>()
  /** A run is being started: its row is not there yet. */
  private starting = false

  constructor(database: Database, clips: Clips, provers: Provers, log: (error: unknown) => void) {
    this.database = database
    this.clips = clips
    this.provers = provers
    this.log = log
  }

  /** Stops in the database what the last start has left running. */
  stopLeft(): Promise<void> {
    return stopRunsLeftRunning(this.database, Date.now())
  }

  /** Tells all runs to stop; what is being judged is to be broken off by whoever judges. */
  stopAll(): void {
    for (const run of this.running.values()) run.stop = true
  }

  /** Starts to run checks: those named, or all that need nobody on site. */
  start(
    siteId: string,
    named: readonly NamedCheck[] | undefined,
    by: Author
  ): Promise<ProofRunView> {
    return this.alone(() => this.startNow(siteId, named, by))
  }

  /** One run at a time: also two that are asked for at the same moment. */
  private async alone<T>(begin: () => Promise<T>): Promise<T> {
    if (this.running.size || this.starting) throw conflict(said('proving.checksAreBeingRunAlready'))
    this.starting = true
    try {
      return await begin()
    } finally {
      this.starting = false
    }
  }

  private async startNow(
    siteId: string,
    named: readonly NamedCheck[] | undefined,
    by: Author
  ): Promise<ProofRunView> {
    const checks = await readChecks(this.database, siteId)
    const wanted = checks.filter((c) =>
      named
        ? named.some((n) => n.camera === c.camera && n.check === c.check.id)
        : c.check.by.how !== 'person'
    )
    if (!wanted.length)
      throw notFound(named ? said('things.checkOfThese') : said('things.runnableCheck'))
    const person = wanted.find((c) => c.check.by.how === 'person')
    if (person) throw conflict(said('proving.needsAPersonOn', person.check.name))
    const asked = wanted.map(({ camera, check }) => ({ camera, check: check.id }))
    const id = await insertRun(this.database, siteId, asked, by, Date.now())
    this.go(siteId, id, wanted)
    return this.view(id)
  }

  /** Goes on with what a stopped run has left. */
  resume(id: number): Promise<ProofRunView> {
    return this.alone(() => this.goOnNow(id))
  }

  private async goOnNow(id: number): Promise<ProofRunView> {
    const run = await readRun(this.database, id)
    if (run.state !== 'stopped') throw conflict(said('proving.thisRunHasNotBeen'))
    const done = new Set(
      (await resultsOfRun(this.database, id)).map((r) => `${r.camera} ${r.check}`)
    )
    const left = (await readChecks(this.database, run.site)).filter(
      (c) =>
        run.asked.some((a) => a.camera === c.camera && a.check === c.check.id) &&
        !done.has(`${c.camera} ${c.check.id}`)
    )
    await setRunState(this.database, id, 'running', null)
    this.go(run.site, id, left)
    return this.view(id)
  }

  async stop(id: number): Promise<ProofRunView> {
    const run = this.running.get(id)
    if (!run) throw conflict(said('input.thisRunHasEndedAlready'))
    run.stop = true
    await run.ended
    return this.view(id)
  }

  async view(id: number): Promise<ProofRunView> {
    const run = await readRun(this.database, id)
    return this.viewOf(run, await readChecks(this.database, run.site))
  }

  private go(siteId: string, id: number, checks: StoredCheck[]): void {
    const running: Running = { stop: false, ended: Promise.resolve() }
    this.running.set(id, running)
    const work = async (): Promise<void> => {
      const scenery = await readScenery(this.database, siteId)
      const left = byWalk(checks)
      const together = async (group: StoredCheck[]): Promise<void> => {
        for (const next of group) {
          if (running.stop) return
          const place = scenery.places.get(next.camera)!
          const settings = settingsOf(next.check, place, scenery.endpoints)
          const verdict = await this.judge(next, place, scenery).catch(
            (error: unknown): Verdict | null => {
              if (running.stop) return null
              this.log(error)
              const sentence = said('verdicts.notRun', saidOfError(error))
              return { ...NOTHING_SEEN, outcome: 'failed', sentence }
            }
          )
          if (verdict)
            await insertResult(
              this.database,
              id,
              next.camera,
              next.check,
              settings,
              verdict,
              Date.now()
            )
        }
      }
      const one = async (): Promise<void> => {
        for (let next = left.shift(); next; next = left.shift()) await together(next)
      }
      await Promise.all(Array.from({ length: AT_A_TIME }, one))
      await this.provers.forget(KEPT_DAYS).catch(this.log)
      await setRunState(this.database, id, running.stop ? 'stopped' : 'finished', Date.now())
    }
    running.ended = work()
      .catch(async (error: unknown) => {
        this.log(error)
        await setRunState(this.database, id, 'stopped', Date.now()).catch(this.log)
      })
      .finally(() => this.running.delete(id))
  }

  private async judge(
    { check, camera }: StoredCheck,
    place: Place,
    { context }: Scenery
  ): Promise<Verdict> {
    // Hours do not go to another process; they are worked out there from the schedules.
    const { endpoints, people, mail, outputs } = context.actions
    const site = { endpoints, people, mail, outputs }
    const clip =
      check.by.how === 'clip'
        ? await clipSource(this.database, this.clips, camera, check.by.clip)
        : null
    return this.provers.ask({
      what: 'judge',
      check,
      ground: place.ground,
      clip,
      plan: place.plan,
      actions: place.actions.get(check.detection) ?? NO_ACTIONS,
      site
    })
  }

  /** Runs that are going on, or the one of a number, to their ends. */
  async ended(id?: number): Promise<void> {
    await Promise.all(
      [...this.running].flatMap(([run, { ended }]) => (id === undefined || run === id ? ended : []))
    )
  }

  async viewOf(run: StoredRun, checks: readonly StoredCheck[]): Promise<ProofRunView> {
    const [results, before] = await Promise.all([
      resultsOfRun(this.database, run.id),
      resultsBefore(this.database, run.id)
    ])
    const names = new Map(checks.map(({ camera, check }) => [`${camera} ${check.id}`, check.name]))
    const better: Turn[] = []
    const worse: Turn[] = []
    const beforeOf = new Map(before.map((b) => [`${b.camera} ${b.check}`, b]))
    const turned = results.flatMap((r) => {
      const then = beforeOf.get(`${r.camera} ${r.check}`)
      return then && then.passed !== r.passed ? [{ r, then }] : []
    })
    const edits = turned.length
      ? await editsBetween(
          this.database,
          run.site,
          Math.min(...turned.map(({ then }) => then.at)),
          Math.max(...turned.map(({ r }) => r.at))
        )
      : []
    for (const { r, then } of turned) {
      const since = edits
        .filter(
          (e) => (e.camera === r.camera || e.camera === null) && e.at > then.at && e.at <= r.at
        )
        .slice(0, MAX_SINCE)
        .map(({ label, by, at }) => ({ label, by, at }))
      ;(r.passed ? better : worse).push({
        camera: r.camera,
        check: r.check,
        name: names.get(`${r.camera} ${r.check}`) ?? r.check,
        since
      })
    }
    const passed = results.filter((r) => r.passed).length
    return {
      id: run.id,
      state: run.state,
      asked: run.asked.length,
      done: results.length,
      passed,
      failed: results.length - passed,
      startedAt: run.startedAt,
      endedAt: run.endedAt,
      by: run.by,
      better,
      worse
    }
  }
}

import { Failure, saidOfError } from '../../core/errors.ts'
import { said } from '../../core/messages/said.ts'
import { createHash } from 'node:crypto'
import type { Actions, Endpoint } from '../../core/formats/actions.ts'
import { CheckSchema, type Check } from '../../core/formats/check.ts'
import type { Walk } from '../../core/formats/walk.ts'
import { NO_ACTIONS } from '../../core/formats/noActions.ts'
import { type Detection, type Plan } from '../../core/formats/plan.ts'
import type { Verdict } from '../../core/proving/judge.ts'
import { outlastsTuning } from '../../core/proving/keepsChecks.ts'
import { totals } from '../../core/proving/judge.ts'
import type { Proposals } from '../../core/proving/propose.ts'
import {
  coverageOf,
  isSameCheck,
  proofOf,
  settingsText,
  type Proof
} from '../../core/proving/standing.ts'
import type {
  SavedCheck,
  NamedCheck,
  ProofRunView,
  ProvingView,
  Turn
} from '../../core/proving/views.ts'
import { grouped } from '../../core/grouped.ts'
import { measureScene } from '../../core/scene/marks.ts'
import { readContext, type ActionsContext } from '../alarms/context.ts'
import type { Clips } from '../clips/service.ts'
import { findClip } from '../clips/queries.ts'
import type { Database } from '../database.ts'
import { readAllDetections } from '../detections/queries.ts'
import { conflict, notFound } from '../errors.ts'
import type { Author } from '../history/queries.ts'
import { readCameras, siteOfCamera, type SiteAlone } from '../sites/queries.ts'
import {
  editsBetween,
  insertResult,
  insertRun,
  lastResults,
  lastRun,
  readChecks,
  readRefused,
  readResult,
  readRun,
  resultsBefore,
  resultsOfRun,
  saveCheck,
  setRunState,
  stopRunsLeftRunning,
  type StoredCheck,
  type StoredRun
} from './queries.ts'
import { groundOf, type Ground } from './stage.ts'
import type { Provers } from './provers.ts'
import type { ClipSource, PictureJob, Shown } from './prover.ts'
import { parseWith } from '../../core/schema/parse.ts'
import type { Surroundings } from '../../core/sites/surroundings.ts'

/** A camera with all that its checks depend on. */
interface Place {
  id: string
  ground: Ground | null
  surroundings: Surroundings
  plan: Plan
  actions: ReadonlyMap<string, Actions>
}

/** A check that passed on a walk, and where that is walked. */
export interface KeptWalk {
  check: Check
  walk: Walk
  ground: Ground
}

interface Scenery {
  site: SiteAlone
  context: ActionsContext
  endpoints: Endpoint[]
  places: Map<string, Place>
  detections: { camera: string; detection: Detection }[]
}

/** What is known of the proposals for one state of a detection's settings. */
type Proposed =
  | { state: 'asked'; done: Promise<void> }
  | { state: 'known'; found: Proposals }
  | { state: 'failed'; times: number; again: number }

/** What failed is asked for again after this, then after twice as long each time, and no more after so many times. */
const FAILED_AGAIN_MS = 30_000
const MAX_FAILED = 4
/** Proposals of earlier settings are kept for whoever goes back to them, so many at most. */
const MAX_PROPOSED = 4000

interface Running {
  stop: boolean
  ended: Promise<void>
}

const AT_A_TIME = 4
/** Edits that are named where a result has turned. */
const MAX_SINCE = 5
const NOTHING_PROPOSED: Proposals = { checks: [], gaps: [] }
const DAY = 24 * 60 * 60_000
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

/** The site's checks: proposed, kept, run, and how far they prove the detections. */
export class Proving {
  private readonly database: Database
  private readonly clips: Clips
  private readonly provers: Provers
  private readonly log: (error: unknown) => void
  private readonly running = new Map<number, Running>()
  private readonly proposed = new Map<string, Proposed>()
  /** A run is being started: its row is not there yet. */
  private starting = false

  constructor(database: Database, clips: Clips, provers: Provers, log: (error: unknown) => void) {
    this.database = database
    this.clips = clips
    this.provers = provers
    this.log = log
  }

  resume(): Promise<void> {
    return stopRunsLeftRunning(this.database, Date.now())
  }

  async close(): Promise<void> {
    for (const run of this.running.values()) run.stop = true
    await this.provers.close()
    await Promise.all([...this.running.values()].map((run) => run.ended))
  }

  /** All that checks depend on, as it is kept now. */
  private async scenery(siteId: string): Promise<Scenery> {
    const context = await readContext(this.database, siteId)
    const { site } = context
    const all = await readAllDetections(this.database, site.id)
    const detections = grouped(all, ({ camera }) => camera)
    const places = new Map<string, Place>()
    for (const { camera, scene, world, surroundings } of await readCameras(
      this.database,
      site.id
    )) {
      const { id } = camera
      const pose = scene.marks ? measureScene(scene.marks).pose : null
      const own = detections.get(id) ?? []
      places.set(id, {
        id,
        ground: groundOf(world, pose),
        surroundings,
        plan: {
          format: 'wardoptic-plan/1',
          timeZone: site.timeZone,
          ...(site.position && { position: site.position }),
          schedules: context.schedules,
          cameras: [
            {
              ...camera,
              ...(pose && { scene: pose }),
              ignore: scene.ignore,
              detections: own.map((d) => d.detection)
            }
          ]
        },
        actions: new Map(own.map((d) => [d.detection.id, d.actions.actions]))
      })
    }
    return {
      site,
      context,
      endpoints: [...context.actions.endpoints],
      places,
      detections: all.map(({ camera, detection }) => ({ camera, detection }))
    }
  }

  private settingsOf(check: Check, place: Place, endpoints: readonly Endpoint[]): string {
    const camera = place.plan.cameras[0]!
    const detection = camera.detections.find(({ id }) => id === check.detection)
    if (!detection) return ''
    return createHash('sha256')
      .update(
        settingsText(check, {
          detection,
          plan: place.plan,
          camera,
          actions: place.actions.get(detection.id) ?? NO_ACTIONS,
          endpoints
        })
      )
      .digest('hex')
  }

  /**
   * What is proposed for a detection.
   *
   * @param mayAsk whether it is asked for where it is not known, in a process of its own
   * @returns 'asked': it is being worked out; 'unknown': nobody has asked for it
   */
  private proposalsFor(
    place: Place,
    detection: Detection,
    { site, context, endpoints }: Scenery,
    mayAsk: boolean
  ): Proposals | 'asked' | 'unknown' {
    const from = Math.floor(Date.now() / DAY) * DAY
    const camera = place.plan.cameras[0]!
    const actions = place.actions.get(detection.id) ?? NO_ACTIONS
    const ask = {
      detection,
      ignore: camera.ignore,
      actions,
      endpoints,
      site: {
        timeZone: site.timeZone,
        position: site.position ?? undefined,
        schedules: context.schedules
      },
      from,
      surroundings: place.surroundings
    }
    const inputs = Object.fromEntries(site.inputs.map(({ id, name }) => [id, name]))
    const key = createHash('sha256')
      .update(JSON.stringify([ask, place.ground, inputs, camera.ignore]))
      .digest('hex')
    const known = this.proposed.get(key)
    if (known?.state === 'known') {
      // What was asked for last is forgotten last.
      this.proposed.delete(key)
      this.proposed.set(key, known)
      return known.found
    }
    if (known?.state === 'asked') return 'asked'
    if (known && (known.times >= MAX_FAILED || Date.now() < known.again)) return NOTHING_PROPOSED
    if (!mayAsk) return 'unknown'
    const times = known?.times ?? 0
    const done = this.provers.ask({ what: 'propose', ask, ground: place.ground, inputs }).then(
      (found) => this.remember(key, { state: 'known', found }),
      (error: unknown) => {
        this.remember(key, {
          state: 'failed',
          times: times + 1,
          again: Date.now() + FAILED_AGAIN_MS * 2 ** times
        })
        this.log(error)
      }
    )
    this.remember(key, { state: 'asked', done })
    return 'asked'
  }

  private remember(key: string, proposed: Proposed): void {
    this.proposed.delete(key)
    this.proposed.set(key, proposed)
    for (const [oldest, { state }] of this.proposed) {
      if (this.proposed.size <= MAX_PROPOSED) break
      if (state !== 'asked') this.proposed.delete(oldest)
    }
  }

  /** @param mayAsk whether proposals that are not known yet are asked for */
  async read(siteId: string, mayAsk = false): Promise<ProvingView> {
    const scenery = await this.scenery(siteId)
    const { site, places, endpoints } = scenery
    const [checks, refused, results, last] = await Promise.all([
      readChecks(this.database, site.id),
      readRefused(this.database, site.id),
      lastResults(this.database, site.id),
      lastRun(this.database, site.id)
    ])
    const resultOf = new Map(results.map((r) => [`${r.camera} ${r.check}`, r]))
    const kept = checks.map(({ camera, check, version, changedAt }): SavedCheck => {
      const r = resultOf.get(`${camera} ${check.id}`)
      return {
        camera,
        check,
        version,
        changedAt,
        last: r
          ? {
              run: r.run,
              passed: r.passed,
              current: r.settings === this.settingsOf(check, places.get(camera)!, endpoints),
              sentence: r.sentence,
              at: r.at
            }
          : null
      }
    })
    const byId = new Map(checks.map((c) => [`${c.camera} ${c.check.id}`, c]))
    const proposals: ProvingView['proposals'] = []
    const gaps: ProvingView['gaps'] = []
    const coverage: ProvingView['coverage'] = []
    let [proposing, unasked] = [0, 0]
    for (const { camera, detection } of scenery.detections) {
      if (!detection.enabled || detection.parked) continue
      const proposed = this.proposalsFor(places.get(camera)!, detection, scenery, mayAsk)
      if (proposed === 'asked') proposing++
      if (proposed === 'unknown') unasked++
      const found = typeof proposed === 'string' ? null : proposed
      for (const check of found?.checks ?? []) {
        const stored = byId.get(`${camera} ${check.id}`)
        if (
          refused.has(`${camera} ${check.id}`) ||
          (stored && isSameCheck(stored.check, check, site.timeZone))
        )
          continue
        proposals.push({ camera, check, replaces: stored?.version ?? null })
      }
      for (const gap of found?.gaps ?? []) gaps.push({ camera, detection: detection.id, ...gap })
      coverage.push({
        camera,
        detection: detection.id,
        gates: coverageOf(
          checks
            .filter((c) => c.camera === camera && c.check.detection === detection.id)
            .map((c) => c.check),
          found?.gaps ?? []
        )
      })
    }
    const current = kept.flatMap(({ camera, check, last: l }) =>
      l?.current ? [resultOf.get(`${camera} ${check.id}`)!] : []
    )
    return {
      checks: kept,
      proposals,
      proposing,
      unasked,
      gaps,
      coverage,
      totals: current.length ? totals(current) : null,
      run: last && (await this.viewOf(last, checks)),
      scenes: Object.fromEntries(
        [...places].flatMap(([id, { ground }]) => (ground ? [[id, ground]] : []))
      )
    }
  }

  /** How far each detection is proven, by camera and detection. */
  async proofs(
    siteId: string,
    detections: ReadonlyMap<string, readonly Detection[]>
  ): Promise<Map<string, Proof>> {
    const [checks, results] = await Promise.all([
      readChecks(this.database, siteId),
      lastResults(this.database, siteId)
    ])
    const keyOf = (camera: string, id: string): string => `${camera} ${id}`
    const checksOf = grouped(checks, ({ camera, check }) => keyOf(camera, check.detection))
    const resultOf = new Map(results.map((r) => [keyOf(r.camera, r.check), r]))
    // Only results can be out of date, by what has changed since.
    const scenery = results.length ? await this.scenery(siteId) : null
    const proof = (camera: string, detection: Detection): Proof => {
      const own = (checksOf.get(keyOf(camera, detection.id)) ?? []).map(({ check }) => check)
      const found = new Map(
        own.flatMap((check) => {
          const result = resultOf.get(keyOf(camera, check.id))
          const place = scenery?.places.get(camera)
          if (!result || !place) return []
          const current = result.settings === this.settingsOf(check, place, scenery!.endpoints)
          return [[check.id, { passed: result.passed, current }] as const]
        })
      )
      return proofOf(own, found)
    }
    return new Map(
      [...detections].flatMap(([camera, own]) =>
        own.map((detection) => [keyOf(camera, detection.id), proof(camera, detection)] as const)
      )
    )
  }

  /** The same once all proposals have been worked out. */
  async readProposed(siteId: string): Promise<ProvingView> {
    let view = await this.read(siteId, true)
    while (view.proposing > 0) {
      await Promise.all(
        [...this.proposed.values()].flatMap((p) => (p.state === 'asked' ? p.done : []))
      )
      view = await this.read(siteId, true)
    }
    return view
  }

  /** Keeps proposals: those named, or all. @returns how many */
  async take(siteId: string, named: readonly NamedCheck[] | undefined): Promise<number> {
    const view = await this.readProposed(siteId)
    const wanted = named
      ? view.proposals.filter((p) =>
          named.some((n) => n.camera === p.camera && n.check === p.check.id)
        )
      : view.proposals
    if (named && !wanted.length) throw notFound(said('things.proposal'))
    await this.database.transaction(async (sql) => {
      for (const { camera, check, replaces } of wanted)
        await saveCheck(sql, camera, check, replaces ?? 0, Date.now())
    })
    return wanted.length
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
  resumeRun(id: number): Promise<ProofRunView> {
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
      const scenery = await this.scenery(siteId)
      const left = byWalk(checks)
      const together = async (group: StoredCheck[]): Promise<void> => {
        for (const next of group) {
          if (running.stop) return
          const place = scenery.places.get(next.camera)!
          const settings = this.settingsOf(next.check, place, scenery.endpoints)
          const verdict = await this.judge(next, place, scenery).catch(
            (error: unknown): Verdict | null => {
              if (running.stop) return null
              this.log(error)
              return {
                outcome: 'failed',
                sentence: said('verdicts.notRun', saidOfError(error)),
                seen: [],
                frame: 1,
                time: 0,
                readings: [],
                effects: [],
                hits: 0,
                misses: 0,
                false: 0
              }
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
    const clip = check.by.how === 'clip' ? await this.clipSource(camera, check.by.clip) : null
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

  /** Checks of a detection that passed under its settings, and stay true when its limits are moved. */
  async keptWalks(camera: string, detection: string): Promise<KeptWalk[]> {
    const { site, places, endpoints } = await this.scenery(
      await siteOfCamera(this.database, camera)
    )
    const place = places.get(camera)
    const ground = place?.ground
    if (!place || !ground) return []
    const passed = new Map(
      (await lastResults(this.database, site.id)).flatMap((r) =>
        r.camera === camera && r.passed ? [[r.check, r.settings] as const] : []
      )
    )
    return (await readChecks(this.database, site.id)).flatMap(({ camera: of, check }) => {
      const { by } = check
      if (of !== camera || check.detection !== detection || by.how !== 'walk') return []
      const settings = passed.get(check.id)
      return settings === this.settingsOf(check, place, endpoints) && outlastsTuning(check)
        ? [{ check, walk: by.walk, ground }]
        : []
    })
  }

  /** Runs that are going on, or the one of a number, to their ends. */
  async ended(id?: number): Promise<void> {
    await Promise.all(
      [...this.running].flatMap(([run, { ended }]) => (id === undefined || run === id ? ended : []))
    )
  }

  /**
   * The moment of a check's trigger when it was last run, with the shape and the target over it, and the targets that it
   * was judged on; null: it was of neither a clip nor a walk.
   *
   * @param background what the camera shows, for a walk on bare ground
   */
  async evidenceOf(
    camera: string,
    checkId: string,
    background: Buffer | null
  ): Promise<Shown | null> {
    const { check, verdict } = await readResult(this.database, camera, checkId)
    const { places } = await this.scenery(await siteOfCamera(this.database, camera))
    const place = places.get(camera)
    const detection = place?.plan.cameras[0]?.detections.find(({ id }) => id === check.detection)
    if (!place || !detection) return null
    const clip = check.by.how === 'clip' ? check.by.clip : null
    const job: PictureJob = {
      what: 'picture',
      check,
      detection,
      ground: place.ground,
      clip:
        clip === null
          ? null
          : {
              ...(await this.clipSource(camera, clip)),
              view: this.clips.file(clip, 'view.mp4')
            },
      time: verdict.time,
      frame: verdict.frame,
      target: verdict.seen[0]?.target,
      background: background?.toString('base64') ?? null
    }
    return this.provers.ask(job)
  }

  /** What a live walk of a check is judged with. @throws ApiError when its detection is not there */
  async benchOf(
    camera: string,
    check: Check
  ): Promise<{ plan: Plan; actions: Actions; context: ActionsContext }> {
    const { places, context } = await this.scenery(await siteOfCamera(this.database, camera))
    const place = places.get(camera)
    if (!place?.plan.cameras[0]?.detections.some((d) => d.id === check.detection))
      throw notFound(said('things.detectionOn', check.detection, camera.slice(0, 64)))
    return { plan: place.plan, actions: place.actions.get(check.detection) ?? NO_ACTIONS, context }
  }

  /** Keeps what came of a live walk, as a run of its own. @returns whether the check is kept, as it was walked */
  async keepLive(
    camera: string,
    check: Check,
    verdict: Verdict,
    by: Author,
    beganAt: number
  ): Promise<boolean> {
    const { site, places, endpoints } = await this.scenery(
      await siteOfCamera(this.database, camera)
    )
    const kept = (await readChecks(this.database, site.id)).find(
      (c) => c.camera === camera && c.check.id === check.id
    )
    // What was proposed has its fields in another order than what has been read.
    if (
      !kept ||
      JSON.stringify(parseWith(CheckSchema, kept.check)) !==
        JSON.stringify(parseWith(CheckSchema, check))
    )
      return false
    await this.database.transaction(async (sql) => {
      const run = await insertRun(sql, site.id, [{ camera, check: check.id }], by, beganAt)
      await insertResult(
        sql,
        run,
        camera,
        kept.check,
        this.settingsOf(kept.check, places.get(camera)!, endpoints),
        verdict,
        Date.now()
      )
      await setRunState(sql, run, 'finished', Date.now())
    })
    return true
  }

  private async clipSource(camera: string, id: string): Promise<ClipSource> {
    const clip = await findClip(this.database, id)
    if (!clip || clip.camera !== camera) throw new Failure(said('verdicts.clipGone'))
    if (clip.state !== 'ready') throw new Failure(said('verdicts.clipNotAnalysed', clip.name))
    const file = (name: 'tracks.csv' | 'faces.csv' | 'measures.bin'): string =>
      this.clips.file(id, name)
    return {
      tracks: file('tracks.csv'),
      faces: file('faces.csv'),
      measures: clip.reported ? null : file('measures.bin'),
      fps: clip.fps,
      width: clip.width,
      height: clip.height,
      start: clip.start,
      inputs: clip.inputs
    }
  }

  private async viewOf(run: StoredRun, checks: readonly StoredCheck[]): Promise<ProofRunView> {
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

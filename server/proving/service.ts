import { CheckSchema, type Check } from '../../core/formats/check.ts'
import { NO_ACTIONS } from '../../core/formats/noActions.ts'
import type { Actions } from '../../core/formats/actions.ts'
import type { Detection, Plan } from '../../core/formats/plan.ts'
import type { Walk } from '../../core/formats/walk.ts'
import { grouped } from '../../core/grouped.ts'
import { said } from '../../core/messages/said.ts'
import { totals, type Verdict } from '../../core/proving/judge.ts'
import { outlastsTuning } from '../../core/proving/keepsChecks.ts'
import { coverageOf, isSameCheck, proofOf, type Proof } from '../../core/proving/standing.ts'
import type { NamedCheck, ProvingView, SavedCheck } from '../../core/proving/views.ts'
import { parseWith } from '../../core/schema/parse.ts'
import type { ActionsContext } from '../alarms/context.ts'
import type { Clips } from '../clips/service.ts'
import type { Database } from '../database.ts'
import { notFound } from '../errors.ts'
import type { Author } from '../history/queries.ts'
import { siteOfCamera } from '../sites/queries.ts'
import { clipSource } from './clipSource.ts'
import { KnownProposals } from './proposals.ts'
import type { PictureJob, Shown } from './prover.ts'
import type { Provers } from './provers.ts'
import {
  insertResult,
  insertRun,
  lastResults,
  lastRun,
  readChecks,
  readRefused,
  readResult,
  saveCheck,
  setRunState
} from './queries.ts'
import { ProofRuns } from './runs.ts'
import { readScenery, settingsOf, type Scenery } from './scenery.ts'
import type { Ground } from './stage.ts'

/** A check that passed on a walk, and where that is walked. */
export interface KeptWalk {
  check: Check
  walk: Walk
  ground: Ground
}

/** The site's checks: proposed, kept, run, and how far they prove the detections. */
export class Proving {
  private readonly database: Database
  private readonly clips: Clips
  private readonly provers: Provers
  /** Checks that are run, and what came of it. */
  readonly runs: ProofRuns
  private readonly proposals: KnownProposals

  constructor(database: Database, clips: Clips, provers: Provers, log: (error: unknown) => void) {
    this.database = database
    this.clips = clips
    this.provers = provers
    this.runs = new ProofRuns(database, clips, provers, log)
    this.proposals = new KnownProposals(provers, log)
  }

  async close(): Promise<void> {
    this.runs.stopAll()
    await this.provers.close()
    await this.runs.ended()
  }

  /** @param mayAsk whether proposals that are not known yet are asked for */
  async read(siteId: string, mayAsk = false): Promise<ProvingView> {
    const scenery = await readScenery(this.database, siteId)
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
              current: r.settings === settingsOf(check, places.get(camera)!, endpoints),
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
      const proposed = this.proposals.of(places.get(camera)!, detection, scenery, mayAsk)
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
      run: last && (await this.runs.viewOf(last, checks)),
      scenes: Object.fromEntries(
        [...places].flatMap(([id, { ground }]) => (ground ? [[id, ground]] : []))
      )
    }
  }

  /**
   * How far each detection is proven, by camera and detection.
   *
   * @param reading the detections by camera, which need not have been read yet
   */
  async proofs(
    siteId: string,
    reading: Promise<ReadonlyMap<string, readonly Detection[]>>
  ): Promise<Map<string, Proof>> {
    const [detections, checks, results] = await Promise.all([
      reading,
      readChecks(this.database, siteId),
      lastResults(this.database, siteId)
    ])
    const keyOf = (camera: string, id: string): string => `${camera} ${id}`
    const checksOf = grouped(checks, ({ camera, check }) => keyOf(camera, check.detection))
    const resultOf = new Map(results.map((r) => [keyOf(r.camera, r.check), r]))
    // Only results can be out of date, by what has changed since.
    const scenery = results.length ? await readScenery(this.database, siteId) : null
    const proof = (camera: string, detection: Detection): Proof => {
      const own = (checksOf.get(keyOf(camera, detection.id)) ?? []).map(({ check }) => check)
      const found = new Map(
        own.flatMap((check) => {
          const result = resultOf.get(keyOf(camera, check.id))
          const place = scenery?.places.get(camera)
          if (!result || !place) return []
          const current = result.settings === settingsOf(check, place, scenery!.endpoints)
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
      await this.proposals.asked()
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

  /** Checks of a detection that passed under its settings, and stay true when its limits are moved. */
  async keptWalks(camera: string, detection: string): Promise<KeptWalk[]> {
    const { site, places, endpoints } = await this.sceneryOf(camera)
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
      return settings === settingsOf(check, place, endpoints) && outlastsTuning(check)
        ? [{ check, walk: by.walk, ground }]
        : []
    })
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
    const { places } = await this.sceneryOf(camera)
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
              ...(await clipSource(this.database, this.clips, camera, clip)),
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
    const { places, context } = await this.sceneryOf(camera)
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
    const { site, places, endpoints } = await this.sceneryOf(camera)
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
        settingsOf(kept.check, places.get(camera)!, endpoints),
        verdict,
        Date.now()
      )
      await setRunState(sql, run, 'finished', Date.now())
    })
    return true
  }

  private async sceneryOf(camera: string): Promise<Scenery> {
    return readScenery(this.database, await siteOfCamera(this.database, camera))
  }
}

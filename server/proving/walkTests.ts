import { saidOfError } from '../../core/errors.ts'
import { said } from '../../core/messages/said.ts'
import type { Scenes } from './scenes.ts'
import type { Author } from '../history/queries.ts'
import { setTimeout as wait } from 'node:timers/promises'
import type { ArmInputs } from '../../core/arming/armInputs.ts'
import type { DeliveryView } from '../../core/api.ts'
import { explainAll, type Ladder, type Setting, type Trigger } from '../../core/detections/index.ts'
import type { Actions } from '../../core/formats/actions.ts'
import type { Check } from '../../core/formats/check.ts'
import { isFrameKind, type Plan } from '../../core/formats/plan.ts'
import {
  likelyCause,
  liveEffects,
  seenEffects,
  type LiveEffect,
  type WalkTestView
} from '../../core/proving/live.ts'
import { judge } from '../../core/proving/judge.ts'
import type { Finding } from '../../core/readiness/index.ts'
import { emptyMeasures, USUAL_GRID } from '../../core/measures/measures.ts'
import type { LiveFrame } from '../../core/devices/views.ts'
import { HeardClock } from '../../core/targets/heardClock.ts'
import { ReportedRows } from '../../core/targets/reportedRows.ts'
import { tracksFromRows, type Tracks } from '../../core/targets/tracks.ts'
import { armInputsOf } from '../../simulation/evidence.ts'
import { inputsNow, type ActionsContext } from '../alarms/context.ts'
import { readAlarm } from '../alarms/queries.ts'
import type { Database } from '../database.ts'
import type { ShownChannel } from '../devices/pictures.ts'
import type { Devices } from '../devices/service.ts'
import { conflict, notFound } from '../errors.ts'
import { readLiveTrigger } from './queries.ts'
import type { Proving } from './service.ts'

/** Targets are taken at this rate, whatever the camera's own is. */
const FPS = 10
const LOOK_MS = 200
const AGAIN_MS = 1000
/** What follows is waited for so long after the walk: cameras have 15 s to say that they switched something. */
const SETTLE_MS = 18_000
/** A trigger at the end of a walk arrives a little later. */
const GRACE_MS = 1500

/** A camera reports targets, and nothing of its pictures. */
const UNMEASURED = emptyMeasures(USUAL_GRID, 640, 360, FPS, 0)

interface Test {
  view: WalkTestView
  by: Author
  /** That shows the camera. */
  device: string
  /** By how much hours are read later than the clock, ms. */
  later: number
  /** What the camera has reported: when by its own clock and by the one here, and what. */
  reported: { said: number; seenAt: number; targets: LiveFrame['targets'] }[]
  /** Of the device that shows the camera, as its targets tell. */
  clock: HeardClock
  bench: { plan: Plan; actions: Actions; context: ActionsContext }
  inputs: ArmInputs
  first: { heardAt: number; id: number; alarm: number } | null
  ended: AbortController
  /** Judge it now, without waiting for the rest. */
  enough: boolean
  done: Promise<void>
}

/**
 * Walk tests: a check is walked in front of its live camera, by a simulated scene or by somebody on site. The camera's
 * own triggers count; the gates are those of what it reports, by the reference engine.
 */
export class WalkTests {
  private readonly database: Database
  private readonly devices: Devices
  private readonly proving: Proving
  private readonly findings: (camera: string) => Promise<readonly Finding[]>
  private readonly scenes: Scenes | null
  private readonly log: (error: unknown) => void
  private readonly tests = new Map<string, Test>()
  private count = 0

  /**
   * @param findings of readiness, worst first
   * @param scenes in which simulated people can walk; null: there are none
   */
  constructor(
    database: Database,
    devices: Devices,
    proving: Proving,
    findings: (camera: string) => Promise<readonly Finding[]>,
    scenes: Scenes | null,
    log: (error: unknown) => void
  ) {
    this.database = database
    this.devices = devices
    this.proving = proving
    this.findings = findings
    this.scenes = scenes
    this.log = log
  }

  /** The walk that went on in front of a camera at an instant: by how much hours are read later, ms. */
  walkAt(camera: string, instant: number): { later: number } | null {
    const test = this.tests.get(camera)
    return test &&
      test.view.beganAt !== null &&
      instant >= test.view.beganAt &&
      instant <= endOf(test.view) &&
      this.isRunning(camera)
      ? { later: test.later }
      : null
  }

  /**
   * When a device said something, by the clock here: a walk that follows its targets knows its clock better than to a
   * second. Of other devices it is when it was heard.
   */
  momentOf(device: string, saidAt: number, heardAt: number): number {
    const test = [...this.tests.values()].find(
      (t) => t.device === device && this.isRunning(t.view.camera)
    )
    return test && Number.isFinite(saidAt) ? test.clock.at(saidAt, heardAt) : heardAt
  }

  async close(): Promise<void> {
    for (const { ended } of this.tests.values()) ended.abort()
    await Promise.all([...this.tests.values()].map((t) => t.done))
  }

  /** The newest test of a camera; null: there was none since the server started. */
  view(camera: string): WalkTestView | null {
    return this.tests.get(camera)?.view ?? null
  }

  /**
   * Begins a test.
   * @throws ApiError when one goes on there, nothing shows the camera, or the check cannot be
   * walked live
   */
  async start(camera: string, check: Check, by: Author): Promise<WalkTestView> {
    if (this.isRunning(camera)) throw conflict(said('proving.aWalkTestGoesOn'))
    if (check.by.how === 'clip') throw conflict(said('proving.thisCheckLooksAtA'))
    if (check.by.how === 'walk' && !this.scenes)
      throw conflict(said('proving.thereIsNoSimulatedScene'))
    const bench = await this.proving.benchOf(camera, check)
    const showing = await this.devices.channelShowing(camera)
    if (!showing) throw conflict(said('devices.noDeviceShowsThisCamera'))
    const seconds = check.by.how === 'walk' ? check.by.walk.seconds : check.by.seconds
    const view: WalkTestView = {
      id: ++this.count,
      camera,
      check,
      how: check.by.how === 'walk' ? 'scene' : 'person',
      state: 'preparing',
      beganAt: null,
      seconds,
      ladder: null,
      targets: 0,
      triggers: [],
      others: [],
      effects: [],
      verdict: null,
      kept: false,
      error: null
    }
    const test: Test = {
      view,
      by,
      device: showing.row.id,
      later: 0,
      reported: [],
      clock: new HeardClock(),
      bench,
      inputs: {},
      first: null,
      ended: new AbortController(),
      enough: false,
      done: Promise.resolve()
    }
    if (this.isRunning(camera)) throw conflict(said('proving.aWalkTestGoesOn'))
    this.tests.set(camera, test)
    test.done = this.walk(test, showing)
      .catch((error: unknown) => {
        if (test.ended.signal.aborted) return
        this.log(error)
        Object.assign(view, { state: 'failed', error: saidOfError(error) })
      })
      .finally(() => test.ended.abort())
    return view
  }

  /** Ends a test without a result. */
  async stop(camera: string): Promise<WalkTestView> {
    const test = this.running(camera)
    test.view.state = 'stopped'
    test.ended.abort()
    if (test.view.how === 'scene') await this.scenes?.end(camera).catch(this.log)
    await test.done
    return test.view
  }

  /** The walk is over before its time: judge what has come. */
  async finish(camera: string): Promise<WalkTestView> {
    const test = this.running(camera)
    test.enough = true
    await test.done
    return test.view
  }

  private isRunning(camera: string): boolean {
    const state = this.tests.get(camera)?.view.state
    return state === 'preparing' || state === 'walking' || state === 'settling'
  }

  private running(camera: string): Test {
    const test = this.tests.get(camera)
    if (!test) throw notFound(said('things.walkTest', camera.slice(0, 64)))
    if (!this.isRunning(camera)) throw conflict(said('proving.thisWalkTestHasEnded'))
    return test
  }

  /**
   * A trigger has been taken, of whatever camera. Times of a walk are by the clock here; what the device says is put on
   * it by the clock of its targets (`momentOf`).
   */
  async taken({
    alarm,
    trigger,
    at: heardAt = Date.now()
  }: {
    alarm: number
    trigger?: number
    at?: number
  }): Promise<void> {
    if (trigger === undefined || ![...this.tests.keys()].some((camera) => this.isRunning(camera)))
      return
    const row = await readLiveTrigger(this.database, trigger)
    // A trigger before its start or after its end belongs to somebody else.
    if (!row || !this.walkAt(row.camera, heardAt)) return
    const test = this.tests.get(row.camera)!
    const time = (heardAt - test.view.beganAt!) / 1000
    if (row.detection !== test.view.check.detection)
      return void test.view.others.push({ detection: row.detection, name: row.name, time })
    const fired: Trigger = {
      detection: row.detection,
      kind: row.kind,
      time,
      frame: Math.floor(time * FPS) + 1,
      ...(row.target !== null && { target: row.target }),
      ...(row.direction && { direction: row.direction }),
      ...(row.cause && { cause: row.cause })
    }
    test.view.triggers.push({ ...fired, id: trigger, alarm })
    test.first ??= { heardAt, id: trigger, alarm }
  }

  private async walk(
    test: Test,
    { row, channel }: NonNullable<Awaited<ReturnType<Devices['channelShowing']>>>
  ): Promise<void> {
    const { view, ended } = test
    const { check, camera } = view
    const following = this.follow(test, { row, channel })
    let beganAt = Date.now()
    if (check.by.how === 'walk') {
      const inputs = test.bench.context.site.inputs.flatMap(({ id, device, token }) =>
        device && token && check.by.how === 'walk' && check.by.walk.inputs[id]
          ? [{ device, token, changes: check.by.walk.inputs[id] }]
          : []
      )
      const begin = await this.scenes!.walk(camera, {
        walk: check.by.walk,
        clock: check.at,
        inputs
      })
      ended.signal.throwIfAborted()
      beganAt = begin
      test.later = check.at - beganAt
    }
    test.inputs = this.inputsOf(test)
    Object.assign(view, { state: 'walking', beganAt })
    const walked = (): boolean => Date.now() >= beganAt + view.seconds * 1000 + GRACE_MS
    while (!walked() && !this.isOver(test)) await this.look(test)
    view.state = 'settling'
    const until = Date.now() + SETTLE_MS
    do await this.look(test)
    while (
      !test.enough &&
      test.first &&
      view.effects.some((e) => e.state === 'waiting') &&
      Date.now() < until
    )
    await this.look(test, true)
    ended.abort()
    await following
    await this.conclude(test)
  }

  /**
   * Somebody on site has done it: it triggered, and all of it came. With more to wait for, the
   * whole time is waited.
   */
  private isOver({ view, enough, first }: Test): boolean {
    const { expect } = view.check
    return (
      enough ||
      (view.how === 'person' &&
        expect.what === 'trigger' &&
        expect.times === undefined &&
        first !== null &&
        view.effects.every((e) => e.state !== 'waiting'))
    )
  }

  /** What arm inputs are during the walk: as its plan says, or as they are on site. */
  private inputsOf({ view, bench }: Test): ArmInputs {
    const { by, at } = view.check
    const now = inputsNow(bench.context.site, this.devices)
    return by.how === 'walk' ? { ...now, ...armInputsOf({ script: by.walk }, at) } : now
  }

  /** Keeps the targets that the camera reports. */
  private async follow({ view, reported, ended, clock }: Test, shown: ShownChannel): Promise<void> {
    const seen = new Set<number>()
    while (!ended.signal.aborted) {
      try {
        for await (const { at, targets } of this.devices.targets(shown, ended.signal)) {
          const seenAt = clock.at(at, Date.now())
          view.error = null
          if (view.beganAt === null) continue
          const since = seenAt - view.beganAt
          if (since < 0 || seenAt > endOf(view)) continue
          reported.push({ said: at, seenAt, targets })
          for (const { id } of targets) seen.add(id)
          view.targets = seen.size
        }
      } catch (error) {
        if (!ended.signal.aborted)
          view.error = said('causesOfSilence.targetsUnreadable', saidOfError(error))
      }
      await wait(AGAIN_MS, undefined, { signal: ended.signal }).catch(() => {})
    }
  }

  private settingOf({ view, bench, inputs, later }: Test): Setting {
    const camera = bench.plan.cameras[0]!
    const detections = camera.detections.filter((d) => d.id === view.check.detection)
    return {
      plan: bench.plan,
      camera: { ...camera, detections },
      fps: FPS,
      start: view.beganAt! + later,
      inputs
    }
  }

  private tracksOf({ view, reported, clock }: Test): Tracks {
    const rows = new ReportedRows(FPS)
    for (const { said, seenAt, targets } of reported) {
      const since = clock.again(said, seenAt) - view.beganAt!
      if (since >= 0) rows.take(since, targets)
    }
    return tracksFromRows(rows.rows, FPS)
  }

  private async look(test: Test, over = false): Promise<void> {
    await new Promise((resolve) => setTimeout(resolve, LOOK_MS))
    test.ended.signal.throwIfAborted()
    const { view, bench } = test
    view.ladder = nearestOf(
      test.reported.length
        ? explainAll(this.settingOf(test), this.tracksOf(test), view.check.detection)
        : []
    )
    view.effects = await this.effects(test, bench, over)
  }

  private async effects(
    { view, first, later }: Test,
    { actions, context }: Test['bench'],
    over: boolean
  ): Promise<LiveEffect[]> {
    let deliveries: DeliveryView[] = []
    if (first)
      deliveries = (await readAlarm(this.database, first.alarm)).deliveries.filter(
        (d) => d.trigger === first.id
      )
    const instant = (first?.heardAt ?? Date.now()) + later
    return liveEffects(
      view.check,
      actions,
      context.actions,
      { instant, severity: actions.severity },
      first && { heardAt: first.heardAt, deliveries },
      over
    )
  }

  private async conclude(test: Test): Promise<void> {
    const { view, bench } = test
    const { check, camera } = view
    const setting = this.settingOf(test)
    const detection = setting.camera.detections[0]!
    const findings = await this.findings(view.camera)
    const own = findings.filter(
      (f) =>
        (f.step === 'sent' || f.step === 'armed') &&
        (f.camera === camera || f.camera === null) &&
        (f.device === test.device || f.device === null) &&
        (f.detection === check.detection || f.detection === null)
    )
    // Findings of this detection first, then of its camera, then of the site.
    const about = [
      ...own.filter((f) => f.detection !== null),
      ...own.filter((f) => f.detection === null)
    ].map((f) => f.sentence)
    const cause =
      view.triggers.length || check.expect.what === 'silence'
        ? null
        : isFrameKind(detection)
          ? (about[0] ?? said('causesOfSilence.reportsNothing'))
          : likelyCause(view.ladder, about)
    view.verdict = judge(
      check,
      { tracks: this.tracksOf(test), measures: UNMEASURED },
      {
        setting,
        follows: { actions: bench.actions, site: bench.context.actions },
        reported: { triggers: view.triggers, effects: seenEffects(view.effects), cause }
      }
    )
    view.kept = await this.proving.keepLive(camera, check, view.verdict, test.by, view.beganAt!)
    view.state = 'done'
  }
}

/** Until when something belongs to it: a scene is somebody else's again at once, a person may be a little late. */
const endOf = ({ how, beganAt, seconds }: WalkTestView): number =>
  beganAt! + seconds * 1000 + (how === 'person' ? GRACE_MS : 0)

/** The target that triggered, or else the one that came nearest. */
function nearestOf(ladders: readonly Ladder[]): Ladder | null {
  const stopped = (l: Ladder): number => l.readings.filter((r) => !r.passed).length
  return (
    [...ladders].sort(
      (a, b) => Number(b.fired) - Number(a.fired) || stopped(a) - stopped(b) || b.time - a.time
    )[0] ?? null
  )
}

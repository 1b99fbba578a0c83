import type { ArmInputs } from '../arming/armInputs.ts'
import type { Camera, Detection, Plan } from '../formats/plan.ts'
import { runOf } from '../kinds/runs.ts'
import type { Measures } from '../measures/measures.ts'
import { faceKey } from '../targets/faces.ts'
import { RECORD_GAP_SECONDS, frameTime, type Tracks } from '../targets/tracks.ts'
import type { FrameRun } from './frames.ts'
import type { GateReading, KindRun, Moment, Sighting, TargetRecord, Trigger } from './types.ts'
import { Gates } from './gates.ts'

/** What the evaluation needs to know besides the targets. */
export interface Setting {
  plan: Pick<Plan, 'schedules' | 'timeZone' | 'position'>
  camera: Pick<Camera, 'ignore' | 'scene' | 'detections'>
  fps: number
  /** The instant of the clip's first frame, milliseconds of UTC. */
  start: number
  /** What is known of arm inputs; one that is not known has never been set. */
  inputs?: ArmInputs
  /** Whether the device's motion detection is on (it is unless said otherwise); without it no motion is seen. */
  motionOn?: boolean
}

/** A row of one target as one detection saw it. Good only while `see` runs; what is to be kept must be copied. */
export interface Observation {
  sighting: Readonly<Sighting>
  /** How near the kind's own condition is, 0 to 1. */
  nearness: number
  fired: boolean
  /** What every gate measures at this row. */
  read: () => GateReading[]
}

/** Asks for observations of one detection, of one target or of all. Costs nothing when it is not given. */
export interface Probe {
  detection: string
  target?: number
  /** All triggers of the detection, when only some targets' rows are given: the re-trigger delay runs from any of them. */
  known?: readonly Trigger[]
  see(observation: Observation): void
}

/** Asks for what a detection of whole frames saw, frame by frame. */
export interface FrameProbe {
  detection: string
  seeFrame(frame: number, run: FrameRun, gates: Gates, fired: boolean): void
}

interface Running {
  detection: Detection
  gates: Gates
  run: KindRun | FrameRun
}

const isPerFrame = (run: KindRun | FrameRun): run is FrameRun => 'perFrame' in run
const NO_TRACKS = { length: 0 } as const

/** How often, in seconds of the clip, records of targets that have ended are thrown away. */
const SWEEP_SECONDS = 30

/**
 * The reference engine: rows go in as they come, in order of frame and id, triggers come out, in order of time,
 * of detection as in the plan, of target. The whole-clip form is `evaluate`.
 */
export class Evaluator {
  private readonly setting: Setting
  private readonly running: Running[]
  private readonly records = new Map<number, TargetRecord>()
  private readonly probe: Probe | undefined
  private readonly frameProbe: FrameProbe | undefined
  /** Whether frames without any target matter as well. */
  private readonly everyFrame: boolean
  /** One for each target of a frame, refilled frame by frame: rows come by the million. */
  private readonly sightings: Sighting[] = []
  private readonly moment: Moment
  private nextSweep = SWEEP_SECONDS
  private noted = 0
  private lastFrame = 0
  /** The last frame with rows before the present one. */
  private lastWithRows = 0

  constructor(setting: Setting, probe?: Probe, frameProbe?: FrameProbe) {
    this.setting = setting
    this.probe = probe
    this.frameProbe = frameProbe
    this.running = setting.camera.detections
      .filter((detection) => detection.enabled && !detection.parked)
      .map((detection) => {
        const gates = new Gates(detection, setting.camera, setting.plan, setting.inputs)
        return { detection, gates, run: runOf(detection, gates) }
      })
    this.everyFrame = this.running.some(({ run }) => isPerFrame(run))
    this.moment = {
      frame: 0,
      time: 0,
      instant: 0,
      emptyBefore: null,
      sightings: this.sightings,
      count: 0,
      measures: null,
      index: 0,
      inputs: setting.inputs ?? {},
      motionOn: setting.motionOn ?? true
    }
  }

  /**
   * Takes the rows `from` to `to` (exclusive) of the tracks. A frame's rows must come in one call. With `measures`,
   * frames that have no row are taken as well, up to the last one measured.
   *
   * @throws RangeError when frames go backwards, or when the measures' grid is not that of a detection
   */
  push(tracks: Tracks, from = 0, to = tracks.length, measures: Measures | null = null): Trigger[] {
    const triggers: Trigger[] = []
    const upTo = this.everyFrame ? (measures?.length ?? 0) : 0
    this.moment.measures = measures
    let i = from
    while (i < to) {
      let end = i + 1
      const frame = tracks.frame[i]!
      while (end < to && tracks.frame[end] === frame) end++
      if (frame <= this.lastFrame)
        throw new RangeError(`frame ${frame} came after frame ${this.lastFrame}`)
      if (this.everyFrame)
        while (this.lastFrame + 1 < frame)
          this.frame(NO_TRACKS as Tracks, 0, 0, this.lastFrame + 1, triggers)
      this.frame(tracks, i, end, frame, triggers)
      i = end
    }
    while (this.lastFrame < upTo)
      this.frame(NO_TRACKS as Tracks, 0, 0, this.lastFrame + 1, triggers)
    return triggers
  }

  private frame(
    tracks: Tracks,
    from: number,
    to: number,
    frame: number,
    triggers: Trigger[]
  ): void {
    this.lastFrame = frame
    const { running, sightings, moment } = this
    const time = frameTime(frame, this.setting.fps)
    const count = to - from
    moment.frame = frame
    moment.time = time
    moment.instant = this.setting.start + time * 1000
    moment.count = count
    moment.index = frame - 1
    moment.emptyBefore =
      this.lastWithRows < frame - 1 ? frameTime(frame - 1, this.setting.fps) : null
    const measured = moment.measures
    if (measured && frame > measured.length) moment.measures = null
    for (let k = 0; k < count; k++)
      this.refill((sightings[k] ??= emptySighting()), tracks, from + k, time)
    for (let d = 0; d < running.length; d++) {
      const { detection, gates, run } = running[d]!
      if (isPerFrame(run)) {
        const fired = run.look(moment)
        if (this.frameProbe?.detection === detection.id)
          this.frameProbe.seeFrame(frame, run, gates, fired !== undefined)
        if (!fired) continue
        gates.noteTrigger(time)
        triggers.push({
          detection: detection.id,
          kind: detection.kind,
          ...fired,
          frame,
          time,
          ...('severity' in detection && { severity: detection.severity })
        })
        continue
      }
      for (let k = 0; k < count; k++) {
        const s = sightings[k]!
        if (this.probe?.known) this.noteKnown(gates, s)
        const fired = run.look(s.record.states[d], s)
        // Before the trigger is noted: the ladder shows the re-trigger delay as it stood.
        if (!run.together) this.show(running[d]!, run, d, s, fired !== undefined)
        if (fired === undefined) continue
        gates.noteTrigger(time)
        const trigger: Trigger = {
          detection: detection.id,
          kind: detection.kind,
          target: s.target,
          frame,
          time
        }
        if (fired) trigger.direction = fired
        triggers.push(trigger)
      }
      if (!run.together || count === 0) continue
      const named = run.endFrame!(moment)
      for (let k = 0; k < count; k++)
        this.show(
          running[d]!,
          run,
          d,
          sightings[k]!,
          named?.includes(sightings[k]!.target) ?? false
        )
      if (!named) continue
      gates.noteTrigger(time)
      triggers.push({
        detection: detection.id,
        kind: detection.kind,
        target: named[0],
        targets: named,
        frame,
        time
      })
    }
    for (let k = 0; k < count; k++) remember(sightings[k]!)
    if (count > 0) this.lastWithRows = frame
    moment.measures = measured
    if (time >= this.nextSweep) {
      this.nextSweep = time + SWEEP_SECONDS
      for (const [id, record] of this.records)
        if (time - record.lastTime > RECORD_GAP_SECONDS + 1e-9) this.records.delete(id)
    }
  }

  /** Notes the known triggers of targets that are not given here, up to the row that is looked at next. */
  private noteKnown(gates: Gates, s: Sighting): void {
    const known = this.probe!.known!
    for (; this.noted < known.length; this.noted++) {
      const { time, target } = known[this.noted]!
      if (time > s.time || (time === s.time && target! >= s.target)) return
      gates.noteTrigger(time)
    }
  }

  /** Lets the probe see a row, if it asks for this detection and target. */
  private show(
    { detection, gates }: Running,
    run: KindRun,
    index: number,
    s: Sighting,
    fired: boolean
  ): void {
    const { probe } = this
    if (probe?.detection !== detection.id || (probe.target ?? s.target) !== s.target) return
    const state = s.record.states[index]
    probe.see({
      sighting: s,
      nearness: run.nearness(state),
      fired,
      read: () => [...gates.read(s), ...run.readings(state)]
    })
  }

  private refill(s: Sighting, tracks: Tracks, i: number, time: number): void {
    const target = tracks.id[i]!
    const cls = tracks.cls[i]!
    let record = this.records.get(target)
    if (!record || time - record.lastTime > RECORD_GAP_SECONDS + 1e-9) {
      record = {
        lastTime: time,
        cls,
        classSince: time,
        seenBefore: false,
        px: 0,
        py: 0,
        pw: 0,
        ph: 0,
        states: this.running.map(({ run }) => (isPerFrame(run) ? null : run.begin()))
      }
      this.records.set(target, record)
    } else if (record.cls !== cls) {
      record.cls = cls
      record.classSince = time
    }
    s.target = target
    s.frame = tracks.frame[i]!
    s.time = time
    s.x = tracks.x[i]!
    s.y = tracks.y[i]!
    s.w = tracks.w[i]!
    s.h = tracks.h[i]!
    s.cls = cls
    s.likelihood = tracks.confidence[i]!
    s.instant = this.setting.start + time * 1000
    s.face = tracks.faces?.get(faceKey(s.frame, target)) ?? null
    s.record = record
    s.zone = null
  }
}

const emptySighting = (): Sighting => ({
  target: 0,
  frame: 0,
  time: 0,
  x: 0,
  y: 0,
  w: 0,
  h: 0,
  cls: 0,
  likelihood: 1,
  instant: 0,
  face: null,
  record: null as unknown as TargetRecord,
  zone: null,
  zoneShare: 0
})

function remember(s: Sighting): void {
  const { record } = s
  record.lastTime = s.time
  record.seenBefore = true
  record.px = s.x
  record.py = s.y
  record.pw = s.w
  record.ph = s.h
}

/** All triggers of a camera's detections over a whole clip. */
export const evaluate = (
  setting: Setting,
  tracks: Tracks,
  measures: Measures | null = null
): Trigger[] => new Evaluator(setting).push(tracks, 0, tracks.length, measures)

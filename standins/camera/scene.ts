import { createCanvas } from '@napi-rs/canvas'
import { Evaluator, type Trigger } from '../../core/detections/index.ts'
import type { LiveFrame } from '../../core/devices/views.ts'
import { isFrameKind, type Detection, type Schedule } from '../../core/formats/plan.ts'
import { readHours } from '../../core/formats/onvif/hours.ts'
import type { Rule } from '../../core/formats/onvif/rules.ts'
import type { RuleAbility } from '../../core/formats/onvif/abilities.ts'
import { detectionOf } from '../../core/formats/onvif/takeOver.ts'
import type { Measures } from '../../core/measures/measures.ts'
import { CLASSES, type TargetClass } from '../../core/targets/classes.ts'
import { firstRowOfFrame, tracksFromRows, type Tracks } from '../../core/targets/tracks.ts'
import { trueTracks } from '../../simulation/evidence.ts'
import { contextOf } from '../../simulation/paint/canvas.ts'
import { Painter } from '../../simulation/paint/painter.ts'
import { makeNodeCanvas } from '../../simulation/nodeCanvas.ts'
import { QUALITIES, reportedTargets } from '../../simulation/reported.ts'
import type { Play } from '../../simulation/script.ts'

/** The site's wall clock, which the demo's devices show. */
export const TIME_ZONE = 'Europe/London'

/** What a play gives to see, made once for all the devices that look at it. */
class Sights {
  readonly tracks: Tracks
  private faces: Tracks | null = null
  private readonly play: Play
  private brush: Painter | null = null
  private static readonly known = new WeakMap<Play, Sights>()

  static of(play: Play): Sights {
    let sights = Sights.known.get(play)
    if (!sights) Sights.known.set(play, (sights = new Sights(play)))
    return sights
  }

  private constructor(play: Play) {
    this.play = play
    this.tracks = tracksFromRows(reportedTargets(play, QUALITIES.good), play.scene.fps)
  }

  /** With faces: as a camera that is made to see faces has them. */
  get tracksWithFaces(): Tracks {
    return (this.faces ??= trueTracks(this.play))
  }

  get painter(): Painter {
    return (this.brush ??= new Painter(this.play, makeNodeCanvas))
  }
}

/**
 * What a camera sees of its scene, over and over again: the script's targets as a good camera reports them, its own
 * rules evaluated on them by the reference engine, and a picture of any moment. Rules that look at whole pictures are
 * evaluated on the measures of the painted pictures, once these are there.
 */
export class LiveScene {
  readonly play: Play
  private readonly sights: Sights
  private readonly measuresOf: ((play: Play) => Promise<Measures>) | undefined
  private measures: Measures | null = null
  private asked = false
  private evaluator: Evaluator | null = null
  private detections: Detection[] = []
  private schedules: Schedule[] = []
  private motionOn = false
  private row = 0
  private round = -1

  /** @param measuresOf measures the play's pictures; asked for only when a rule needs them */
  constructor(play: Play, measuresOf?: (play: Play) => Promise<Measures>) {
    this.play = play
    this.sights = Sights.of(play)
    this.measuresOf = measuresOf
  }

  /** @param rules those that run now */
  setRules(rules: readonly Rule[], abilities: readonly RuleAbility[]): void {
    this.schedules = []
    this.detections = rules.flatMap((rule) => {
      const detection = detectionOf(rule, abilities)
      if (!detection || rule.simple.Hours === undefined) return detection ?? []
      this.schedules.push({ id: detection.id, name: detection.name, week: readHours(rule.simple.Hours), exceptions: [] })
      return { ...detection, schedule: detection.id }
    })
    this.motionOn = this.detections.some(({ kind, parked }) => kind === 'motion' && !parked)
    this.evaluator = null
    if (!this.asked && this.measuresOf && this.detections.some(isFrameKind)) {
      this.asked = true
      this.measuresOf(this.play).then(
        (measures) => void (this.measures = measures),
        (error: Error) => error.name !== 'AbortError' && void process.stderr.write(`the pictures of ${this.play.scene.id} could not be measured: ${error.message}\n`)
      )
    }
  }

  /** Takes what has happened up to now. @param seconds since the device was started @param began the device's instant of its start */
  step(seconds: number, began = 0): Trigger[] {
    const { fps } = this.play.scene
    const { round, frame } = this.momentOf(seconds)
    if (round !== this.round || !this.evaluator) {
      if (round !== this.round) this.row = 0
      this.round = round
      this.evaluator = new Evaluator({ plan: { schedules: this.schedules, timeZone: TIME_ZONE }, camera: { ignore: [], detections: this.detections }, fps, start: began + round * this.play.script.seconds * 1000, motionOn: this.motionOn })
    }
    const { tracks } = this
    const until = firstRowOfFrame(tracks, frame + 1)
    const measures = this.measures && { ...this.measures, length: Math.min(frame, this.measures.length) }
    const triggers = until > this.row || measures ? this.evaluator.push(tracks, this.row, until, measures) : []
    this.row = Math.max(this.row, until)
    return triggers
  }

  /** The class of a trigger's target at its moment. */
  classOf({ target, frame }: Trigger): TargetClass | null {
    const { tracks } = this
    for (let i = firstRowOfFrame(tracks, frame); i < firstRowOfFrame(tracks, frame + 1); i++) if (tracks.id[i] === target) return CLASSES[tracks.cls[i]]
    return null
  }

  /** The targets of a moment. */
  targets(seconds: number): LiveFrame['targets'] {
    const { frame } = this.momentOf(seconds)
    const { tracks } = this
    const list: LiveFrame['targets'] = []
    for (let i = firstRowOfFrame(tracks, frame); i < firstRowOfFrame(tracks, frame + 1); i++) list.push({ id: tracks.id[i], class: CLASSES[tracks.cls[i]], x: tracks.x[i], y: tracks.y[i], w: tracks.w[i], h: tracks.h[i] })
    return list
  }

  /** Whether a contact of the script is set at a moment. */
  contact(id: string, seconds: number): boolean {
    const at = seconds % this.play.script.seconds
    return this.play.script.inputs[id]?.filter((change) => change.at <= at).at(-1)?.set ?? false
  }

  /** The picture of a moment, as JPEG. */
  snapshot(seconds: number): Buffer {
    const { width, height } = this.play.scene
    const { painter } = this.sights
    painter.paint(seconds % this.play.script.seconds)
    const canvas = createCanvas(width, height)
    const g = canvas.getContext('2d')
    const picture = contextOf(painter.canvas).getImageData(0, 0, width, height)
    const copy = g.createImageData(width, height)
    copy.data.set(picture.data)
    g.putImageData(copy, 0, 0)
    return canvas.toBuffer('image/jpeg', 85)
  }

  private get tracks(): Tracks {
    return this.detections.some(({ kind }) => kind === 'face') ? this.sights.tracksWithFaces : this.sights.tracks
  }

  private momentOf(seconds: number): { round: number; frame: number } {
    const { script, scene } = this.play
    const round = Math.floor(seconds / script.seconds)
    return { round, frame: Math.floor((seconds - round * script.seconds) * scene.fps) + 1 }
  }
}

import { errorWords } from '../../core/messages/errorWords.ts'
import { simulators as msg } from '../../core/messages/en/codes/simulators.ts'
import { shownTo } from '../../core/kinds/shownTo.ts'
import type { Canvas as NodeCanvas } from '@napi-rs/canvas'
import { Evaluator, type Trigger } from '../../core/detections/index.ts'
import type { LiveFrame } from '../../core/devices/views.ts'
import { isFrameKind, type Detection, type Schedule } from '../../core/formats/plan.ts'
import { readHours } from '../../core/formats/onvif/hours.ts'
import type { RuleAbility, Rule } from '../../core/formats/onvif/rule.ts'
import { detectionOf } from '../../core/formats/onvif/takeOver.ts'
import type { Measures } from '../../core/measures/measures.ts'
import type { Measurer } from '../measuring.ts'
import { CLASSES, type TargetClass } from '../../core/targets/classes.ts'
import { firstRowOfFrame, tracksFromRows, type Tracks } from '../../core/targets/tracks.ts'
import { trueTracks } from '../../simulation/evidence.ts'
import { Painter } from '../../simulation/paint/painter.ts'
import { makeNodeCanvas } from '../../simulation/nodeCanvas.ts'
import { QUALITIES, reportedTargets } from '../../simulation/reported.ts'
import type { Play, Script } from '../../simulation/script.ts'
import { defocus, defocusRadius } from '../../simulation/sensor.ts'
import { pictureAt } from '../../simulation/faults/faults.ts'

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

/** A play that a camera looks at: its own script over and over again, or a walk once. */
interface Showing {
  play: Play
  sights: Sights
  measures: Measures | null
  /** The camera's second at which it began. */
  from: number
  /** By how much hours are to be read later than the device's clock says, ms: a walk at another time of the day. */
  later: number
}

/**
 * What a camera sees of its scene, over and over again: the script's targets as a good camera reports them, its own
 * rules evaluated on them by the reference engine, and a picture of any moment. Rules that look at whole pictures are
 * evaluated on the measures of the painted pictures, once these are there. A walk takes the script's place while it
 * lasts.
 */
export class LiveScene {
  private readonly usual: Showing
  private readonly measuresOf: Measurer | undefined
  private walking: Showing | null = null
  private asked = false
  private evaluator: Evaluator | null = null
  private detections: Detection[] = []
  private schedules: Schedule[] = []
  private motionOn = false
  private row = 0
  private evaluated: { play: Play; round: number } | null = null

  /** @param measuresOf measures the play's pictures; asked for only when a rule needs them */
  constructor(play: Play, measuresOf?: Measurer) {
    this.usual = { play, sights: Sights.of(play), measures: null, from: 0, later: 0 }
    this.measuresOf = measuresOf
  }

  get play(): Play {
    return this.usual.play
  }

  /** @param rules those that run now */
  setRules(rules: readonly Rule[], abilities: readonly RuleAbility[]): void {
    this.schedules = []
    this.detections = rules.flatMap((rule) => {
      const detection = detectionOf(rule, abilities)
      if (!detection || rule.simple.Hours === undefined) return detection ?? []
      this.schedules.push({
        id: detection.id,
        name: detection.name,
        week: readHours(rule.simple.Hours),
        exceptions: []
      })
      return { ...detection, schedule: detection.id }
    })
    this.motionOn = this.detections.some(({ kind, parked }) => kind === 'motion' && !parked)
    this.evaluator = null
    if (this.asked || !this.looksAtPictures) return
    this.asked = true
    this.measuresOf!(this.play).then(
      (measures) => void (this.usual.measures = measures),
      (error: Error) =>
        error.name !== 'AbortError' &&
        void process.stderr.write(msg.thePicturesOfCouldNot(this.play.scene.id, errorWords(error)))
    )
  }

  /**
   * Makes a walk ready: paints and measures its pictures if a rule looks at these. It begins with what is returned.
   *
   * @param later by how much hours are to be read later than the device's clock says, ms
   * @returns begins it at a second of the camera
   */
  async prepareWalk(script: Script, later: number): Promise<(seconds: number) => void> {
    const play: Play = { scene: this.play.scene, script }
    const measures = this.looksAtPictures ? await this.measuresOf!(play, true) : null
    const sights = Sights.of(play)
    return (from) => void (this.walking = { play, sights, measures, from, later })
  }

  /** Ends a walk before its time. */
  endWalk(): void {
    this.walking = null
  }

  /** By how much hours are to be read later than the device's clock says, ms. */
  later(seconds: number): number {
    return this.showing(seconds).later
  }

  /**
   * Takes what has happened up to now.
   * @param seconds since the device was started
   * @param began the device's instant of its start
   */
  step(seconds: number, began = 0): Trigger[] {
    const now = this.showing(seconds)
    const { fps } = now.play.scene
    const { round, frame } = momentOf(now, seconds)
    if (this.evaluated?.play !== now.play || round !== this.evaluated.round || !this.evaluator) {
      if (this.evaluated?.play !== now.play || round !== this.evaluated.round) this.row = 0
      this.evaluated = { play: now.play, round }
      const start = began + (now.from + round * now.play.script.seconds) * 1000 + now.later
      this.evaluator = new Evaluator({
        plan: { schedules: this.schedules, timeZone: TIME_ZONE },
        camera: { ignore: [], detections: this.detections },
        fps,
        start,
        motionOn: this.motionOn
      })
    }
    const tracks = this.tracksOf(now)
    const until = firstRowOfFrame(tracks, frame + 1)
    const measures = now.measures && {
      ...now.measures,
      length: Math.min(frame, now.measures.length)
    }
    const triggers =
      until > this.row || measures ? this.evaluator.push(tracks, this.row, until, measures) : []
    this.row = Math.max(this.row, until)
    return triggers
  }

  /** The class of a trigger's target at its moment, of the triggers of the last step. */
  classOf({ target, frame }: Trigger, seconds: number): TargetClass | null {
    const tracks = this.tracksOf(this.showing(seconds))
    for (let i = firstRowOfFrame(tracks, frame); i < firstRowOfFrame(tracks, frame + 1); i++)
      if (tracks.id[i] === target) return CLASSES[tracks.cls[i]!]!
    return null
  }

  /** The targets of a moment. */
  targets(seconds: number): LiveFrame['targets'] {
    const now = this.showing(seconds)
    const { frame } = momentOf(now, seconds)
    const tracks = this.tracksOf(now)
    const list: LiveFrame['targets'] = []
    for (let i = firstRowOfFrame(tracks, frame); i < firstRowOfFrame(tracks, frame + 1); i++)
      list.push({
        id: tracks.id[i]!,
        class: CLASSES[tracks.cls[i]!]!,
        x: tracks.x[i]!,
        y: tracks.y[i]!,
        w: tracks.w[i]!,
        h: tracks.h[i]!
      })
    return list
  }

  /** Whether a contact of the script is set at a moment. */
  contact(id: string, seconds: number): boolean {
    const at = seconds % this.play.script.seconds
    return this.play.script.inputs[id]?.filter((change) => change.at <= at).at(-1)?.set ?? false
  }

  /**
   * The picture of a moment, as JPEG; null while none comes from the sensor. Without the sensor's
   * noise, which a JPEG would only grow by.
   */
  snapshot(seconds: number): Buffer | null {
    const now = this.showing(seconds)
    const { script, scene } = now.play
    const time = (seconds - now.from) % script.seconds
    if (pictureAt(script, 'none', time) !== null) return null
    const frozen = pictureAt(script, 'frozen', time)
    const { painter } = now.sights
    painter.paint(time - (frozen ?? 0))
    const canvas = painter.canvas as NodeCanvas
    const blurred = pictureAt(script, 'blurred', time)
    if (blurred !== null) {
      const g = canvas.getContext('2d')
      const picture = g.getImageData(0, 0, scene.width, scene.height)
      defocus(picture.data, scene.width, scene.height, defocusRadius(blurred, scene.height))
      g.putImageData(picture, 0, 0)
    }
    return canvas.toBuffer('image/jpeg', 85)
  }

  private get looksAtPictures(): boolean {
    return this.measuresOf !== undefined && this.detections.some(isFrameKind)
  }

  /** What is shown at a second; pictures of a walk that is over are still asked for. */
  private showing(seconds: number): Showing {
    const { walking } = this
    return walking &&
      seconds >= walking.from &&
      seconds < walking.from + walking.play.script.seconds
      ? walking
      : this.usual
  }

  private tracksOf({ sights }: Showing): Tracks {
    return this.detections.some(({ kind }) => shownTo(kind) === 'faces')
      ? sights.tracksWithFaces
      : sights.tracks
  }
}

function momentOf(
  { play: { script, scene }, from }: Showing,
  seconds: number
): { round: number; frame: number } {
  const since = seconds - from
  const round = Math.floor(since / script.seconds)
  return { round, frame: Math.floor((since - round * script.seconds) * scene.fps) + 1 }
}

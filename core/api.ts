import * as v from 'valibot'
import { DetectionSchema, ScheduleSchema, ZoneSchema, type Camera, type Detection, type Schedule, type SitePosition } from './formats/plan.ts'
import type { Point } from './geometry/shapes.ts'
import { SceneMarksSchema, type SceneMarks } from './scene/marks.ts'
import type { ArmInputs } from './arming/armInputs.ts'
import type { Trigger } from './detections/index.ts'

/** What the server and the browser say to each other. Instants are milliseconds of UTC. */

export interface SiteView {
  id: string
  name: string
  timeZone: string
  position: SitePosition | null
  /** Contacts of the site's devices, for arming and for the kind Contact input. */
  inputs: SiteInput[]
  cameras: CameraSummary[]
}

export interface SiteInput {
  id: string
  name: string
}

export interface CameraSummary {
  id: string
  name: string
  detections: number
  /** A ready clip, whose first picture can stand for the camera. */
  clip: string | null
}

/** Something people edit, with the version that a save must name. */
export interface Versioned {
  version: number
  changedAt: number
}

export interface KeptDetection extends Versioned {
  detection: Detection
  position: number
  email: KeptEmail
}

/** The link from a detection to an e-mail; `to` null: not linked. */
export interface KeptEmail extends Versioned {
  to: string | null
}

export interface KeptSchedule extends Versioned {
  schedule: Schedule
}

/** What a camera looks at: where nothing counts, and what it was measured from (null: not measured). */
export interface KeptScene extends Versioned {
  ignore: Point[][]
  marks: SceneMarks | null
}

export interface BenchView {
  site: Omit<SiteView, 'cameras'>
  camera: Pick<Camera, 'id' | 'name'>
  scene: KeptScene
  detections: KeptDetection[]
  schedules: KeptSchedule[]
  /** The camera's simulated scene and its scripts, from which a clip can be made; null where the camera is a real one. */
  world: { scene: unknown; scripts: unknown[] } | null
  clips: ClipView[]
}

export type ClipState = 'analysing' | 'ready' | 'stopped' | 'refused'

export interface ClipView {
  id: string
  camera: string
  name: string
  state: ClipState
  start: number
  /** Frames per second of the targets. */
  fps: number
  width: number
  height: number
  frames: number
  targets: number
  rows: number
  bytes: number
  /** Painted from a script; its true targets are known. */
  made: boolean
  /** What contacts did while it ran. */
  inputs: ArmInputs
  /** Seconds at which the tamper reference is learned anew. */
  learnAnewAt: number[]
  /** Of the analysis, 0 to 1, and what it is doing; null when it is not running. */
  progress: { share: number | null; step: string } | null
  /** Why it was refused. */
  error: string | null
}

export interface RunView {
  id: string
  clip: string
  state: 'running' | 'finished' | 'stopped' | 'failed'
  /** Seconds of the clip that have been evaluated, and its length. */
  at: number
  seconds: number
  triggers: RunTrigger[]
}

export interface RunTrigger extends Trigger {
  id: number
  name: string
  instant: number
  deliveries: DeliveryView[]
}

export interface DeliveryView {
  id: number
  kind: 'email'
  recipient: string
  state: 'pending' | 'sent' | 'failed'
  attempts: number
  error: string | null
}

export interface MailSummary {
  id: string
  from: string
  to: string
  subject: string
  receivedAt: number
  pictures: number
}

export interface MailView extends MailSummary {
  text: string
  attachments: { name: string; type: string; bytes: number }[]
}

/** The body of every error answer. */
export interface ErrorView {
  code: 'bad-input' | 'not-found' | 'conflict' | 'too-large' | 'busy' | 'internal'
  message: string
  /** Of a conflict: what is kept now. */
  current?: unknown
}

/** An answer that is not what was asked for: made by the server, understood by the browser. */
export class ApiError extends Error {
  /** The HTTP status; 0: the server could not be reached. */
  readonly status: number
  readonly view: ErrorView

  constructor(status: number, view: ErrorView) {
    super(view.message)
    this.status = status
    this.view = view
  }
}

const version = v.pipe(v.number('must be a number'), v.integer('must be a whole number'), v.minValue(0, 'must be 0 or more'))

export const SaveDetectionSchema = v.strictObject({
  version,
  position: v.pipe(v.number('must be a number'), v.integer('must be a whole number'), v.minValue(0, 'must be 0 or more'), v.maxValue(10000, 'must be at most 10000')),
  detection: DetectionSchema
})
export const SaveSceneSchema = v.strictObject({
  version,
  ignore: v.pipe(v.array(ZoneSchema, 'must be a list of areas'), v.maxLength(50, 'has more than 50 areas')),
  marks: v.nullable(SceneMarksSchema)
})
export type SaveScene = v.InferOutput<typeof SaveSceneSchema>
export const SaveScheduleSchema = v.strictObject({ version, schedule: ScheduleSchema })

const addressRight = 'must be an e-mail address such as duty@example.org'
export const SaveEmailSchema = v.strictObject({
  version,
  to: v.nullable(v.pipe(v.string(addressRight), v.trim(), v.maxLength(254, 'is longer than 254 characters'), v.email(addressRight)))
})
export const StartRunSchema = v.strictObject({
  speed: v.picklist([1, 10, 1000], 'must be 1 (as if live), 10 or 1000 (as fast as it goes)')
})

const shortText = (right: string, most: number) => v.pipe(v.string(right), v.trim(), v.minLength(1, 'must not be empty'), v.maxLength(most, `is longer than ${most} characters`))
/** Seconds at which a clip's tamper reference is to be learned anew. */
export const LearnAnewSchema = v.strictObject({ at: v.pipe(v.array(v.pipe(v.number('must be seconds'), v.finite('must be seconds'), v.minValue(0, 'must be 0 or more')), 'must be a list of seconds'), v.maxLength(50, 'has more than 50 moments')) })

/** A clip to be made from a script; the script itself is checked by the simulation. */
const clipName = shortText('must be a text', 120)
const instant = v.pipe(v.number('must be an instant in milliseconds'), v.integer('must be a whole number'), v.minValue(0, 'must be after 1970'), v.maxValue(4102444800000, 'must be before 2100'))
export const MakeClipSchema = v.strictObject({ name: clipName, start: v.optional(instant), script: v.unknown() })

/** A clip's name and start as people may give them. */
export const ClipChangeSchema = v.strictObject({ name: v.optional(clipName), start: v.optional(instant) })

import type { MarkKind } from './marks/marks.ts'
import { coded, type Said } from './messages/said.ts'
import * as v from 'valibot'
import {
  DetectionSchema,
  ScheduleSchema,
  TAMPER_CAUSES,
  type Camera,
  type Detection,
  type Schedule,
  type SitePosition
} from './formats/plan.ts'
import type { Point } from './geometry/shapes.ts'
import { SceneMarksSchema, type SceneMarks } from './scene/marks.ts'
import {
  ActionsSchema,
  EndpointSchema,
  MailSchema,
  PeopleSchema,
  type Actions,
  type Endpoint,
  type EndpointKind,
  type Mail,
  type People,
  type Priority,
  type OutputKind
} from './formats/actions.ts'
import type { ArmInputs } from './arming/armInputs.ts'
import type { Trigger } from './detections/index.ts'
import { CameraSettingsSchema, SiteSettingsSchema } from './sites/settings.ts'
import type { Surroundings } from './sites/surroundings.ts'
import { ZoneSchema, bool, filled, id, noLongerThan, number, oneOf } from './schema/parts.ts'
import type { DetectionNote, Severity } from './kinds/parts.ts'

/** What the server and the browser say to each other. Instants are milliseconds of UTC. */

export interface SiteView {
  id: string
  name: string
  timeZone: string
  position: SitePosition | null
  /** Contacts of the site's devices, for arming and for the kind Contact input. */
  inputs: SiteInput[]
  /** Of cameras that have none of their own. */
  surroundings: Surroundings
  /** Whether its name and place have been set. */
  isSetUp: boolean
  version: number
  changedAt: number
  cameras: CameraSummary[]
  /** Cameras that were deleted, with the version under which each can be brought back. */
  deletedCameras: { id: string; version: number }[]
}

export interface SiteInput {
  id: string
  name: string
  /** The device and its contact that it is; left out: no device has it. */
  device?: string
  token?: string
}

export interface CameraSummary {
  id: string
  name: string
  order: number
  /** Null: as the site. */
  surroundings: Surroundings | null
  version: number
  changedAt: number
  detections: number
  clips: number
  /** A ready clip, whose first picture can stand for the camera. */
  clip: string | null
}

/** Something people edit, with the version that a save must name. */
export interface Versioned {
  version: number
  changedAt: number
}

export interface SavedDetection extends Versioned {
  detection: Detection
  position: number
  actions: SavedActions
}

/** The actions of a detection; version 0: never saved. */
export interface SavedActions extends Versioned {
  actions: Actions
}

/** An action that triggers can run. */
export interface SavedEndpoint extends Versioned {
  endpoint: Endpoint
  /** When it was last tested; null: never. */
  testedAt: number | null
  /** Why the last test failed. */
  testError: Said | string | null
}

export interface SavedSchedule extends Versioned {
  schedule: Schedule
}

/** What a camera looks at: where nothing counts, and what it was measured from (null: not measured). */
export interface SavedScene extends Versioned {
  ignore: Point[][]
  marks: SceneMarks | null
}

export interface BenchView {
  site: Omit<SiteView, 'cameras' | 'deletedCameras'>
  camera: Pick<Camera, 'id' | 'name'>
  /** Of the camera; its own, or the site's. */
  surroundings: Surroundings
  scene: SavedScene
  detections: SavedDetection[]
  /** The actions of deleted detections: undo brings both back, also after a reload. */
  dormant: { id: string; actions: SavedActions }[]
  schedules: SavedSchedule[]
  endpoints: SavedEndpoint[]
  /**
   * The camera's simulated scene and its scripts, from which a clip can be made; null where the
   * camera is a real one.
   */
  world: { scene: unknown; scripts: unknown[] } | null
  /** Whether a device that can be reached shows it. */
  live: boolean
  clips: ClipView[]
}

/** A clip that is being recorded from the live picture, or what came of it. */
export interface RecordingView {
  state: 'recording' | 'done' | 'failed'
  /** How long it is to be. */
  seconds: number
  /** When its first picture came; null: none yet. */
  beganAt: number | null
  /** Seconds that have come. */
  recorded: number
  pictures: number
  /** The clip that it has become. */
  clip: string | null
  error: Said | string | null
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
  /** Of what the camera reported, over a picture of later: nothing of it can be judged by the picture. */
  reported: boolean
  /** What contacts did while it ran. */
  inputs: ArmInputs
  /** Seconds at which the tamper reference is learned again. */
  learnAnewAt: number[]
  /** Of the analysis, 0 to 1, and what it is doing; null when it is not running. */
  progress: { share: number | null; step: Said } | null
  /** Why it was refused. */
  error: Said | string | null
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

/** What a replay of a camera's clip would really do, by its present settings. */
export interface RealActionsView {
  real: { id: string; name: string; kind: Endpoint['kind'] }[]
}

export interface RunTrigger extends Trigger {
  id: number
  name: string
  instant: number
  deliveries: DeliveryView[]
}

export type DeliveryState = 'pending' | 'sent' | 'failed' | 'held'

/** One action of a trigger. */
export interface DeliveryView {
  id: number
  /** Null: of what acknowledging does. */
  trigger: number | null
  kind: EndpointKind
  /** Of the endpoint, as it was called then. */
  name: string
  /** Addresses, a station, an output: where it goes. */
  recipient: string
  /** Held: not made, `error` says why. */
  state: DeliveryState
  by: 'server' | 'camera'
  /** Of an output: what is switched. */
  does: 'on' | 'off'
  attempts: number
  error: Said | string | null
  createdAt: number
  sentAt: number | null
  /** While pending: when it is tried next. */
  nextAt: number | null
}

/** What is kept of a delivery. */
export interface EvidenceView {
  files: { name: string; type: string }[]
  /** What a device records itself, while it is not among the files; null: nothing, or it is. */
  recording:
    | { state: 'running'; secondsLeft: number }
    | { state: 'reading' }
    | { state: 'failed'; why: Said | string }
    | null
}

export interface AttemptView {
  at: number
  ok: boolean
  outcome: Said | string
}

export interface AlarmView {
  id: number
  camera: string
  cameraName: string
  detection: string
  name: string
  /** Why its detection is set as it is now. */
  note: DetectionNote | null
  severity: Severity
  priority: Priority
  state: 'waiting' | 'acknowledged' | 'closed'
  acknowledge: Actions['acknowledge']
  for: string[]
  /** Names of those it is for. */
  forNames: string[]
  /** Whom it is assigned to. */
  assignee: string | null
  firstAt: number
  lastAt: number
  triggers: number
  acknowledgedAt: number | null
  acknowledgedBy: string | null
  comment: string | null
  /** The run of a clip that it is of; null: it is real. */
  run: string | null
  /** What was said of all its triggers; null: nothing, or not the same of all. */
  mark: MarkKind | null
  /** Of all its triggers, the newest first. */
  deliveries: DeliveryView[]
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

const version = v.pipe(
  v.number(coded('input.mustBeANumber')),
  v.integer(coded('input.mustBeAWholeNumber')),
  v.minValue(0, coded('input.mustBe0OrMore'))
)

export const SaveDetectionSchema = v.strictObject({
  version,
  position: v.pipe(
    v.number(coded('input.mustBeANumber')),
    v.integer(coded('input.mustBeAWholeNumber')),
    v.minValue(0, coded('input.mustBe0OrMore')),
    v.maxValue(10000, coded('input.mustBeAtMost10000'))
  ),
  detection: DetectionSchema
})
export const SaveSceneSchema = v.strictObject({
  version,
  ignore: v.pipe(
    v.array(ZoneSchema, coded('input.mustBeAListOf22')),
    v.maxLength(50, coded('api.hasMoreThan50Areas'))
  ),
  marks: v.nullable(SceneMarksSchema)
})
export type SaveScene = v.InferOutput<typeof SaveSceneSchema>
export const MIN_RECORDED = 5
export const MAX_RECORDED = 600
export const RecordSchema = v.strictObject({
  name: filled(120),
  seconds: number(MIN_RECORDED, MAX_RECORDED, ' s')
})
export const SaveSiteSchema = v.strictObject({ version, settings: SiteSettingsSchema })
export const SaveCameraSchema = v.strictObject({ version, settings: CameraSettingsSchema })
export const SaveScheduleSchema = v.strictObject({ version, schedule: ScheduleSchema })

export const SaveActionsSchema = v.strictObject({ version, actions: ActionsSchema })
export const SaveEndpointSchema = v.strictObject({ version, endpoint: EndpointSchema })
export const SaveMailSchema = v.strictObject({
  version,
  mail: v.nullable(MailSchema),
  /** Left out: the password stays. */ password: v.optional(
    v.nullable(v.pipe(v.string(coded('input.mustBeAText')), noLongerThan(200)))
  )
})
export const SavePeopleSchema = v.strictObject({ version, people: PeopleSchema })
export const SaveUsualSchema = v.strictObject({ version, actions: ActionsSchema })

/** All that the places Arming and Actions show and edit. */
export interface SiteActionsView {
  site: SiteView
  /** Every detection, with its camera. */
  detections: (Versioned & {
    camera: string
    cameraName: string
    detection: Detection
    position: number
    actions: SavedActions
  })[]
  schedules: SavedSchedule[]
  endpoints: SavedEndpoint[]
  mail: Versioned & { mail: Mail | null; hasPassword: boolean }
  people: Versioned & { people: People }
  /** What is linked by default; null: not set. */
  usual: Versioned & { actions: Actions | null }
  /** Outputs of devices, set up or not. */
  outputs: {
    device: string
    deviceName: string
    token: string
    kind: OutputKind
    name: string
    /** Cameras that the device shows. */ cameras: string[]
  }[]
  /** Contacts of devices. */
  contacts: { device: string; deviceName: string; token: string }[]
  voices: VoiceView[]
  /** What contacts are now, by input. */
  inputs: Record<string, boolean | null>
  /** By endpoint of a station: when it last answered a heartbeat, and what was wrong with the last one. */
  stations: Record<string, { answeredAt: number | null; error: Said | string | null }>
  /** Links that the camera runs itself, as `camera detection endpoint`. */
  byCamera: string[]
}

export interface VoiceView {
  id: string
  name: string
  seconds: number
  bytes: number
}

/** The contacts of the site, each with the device that has it. */
export const SaveInputsSchema = v.strictObject({
  inputs: v.array(
    v.strictObject({
      id: v.pipe(
        v.string(coded('input.mustBeAnId')),
        v.regex(/^[\w-]{1,64}$/, coded('input.mustBe1To64'))
      ),
      name: filled(80),
      device: v.optional(v.string(coded('api.mustBeTheIdOf'))),
      token: v.optional(v.string(coded('api.mustBeTheTokenOf')))
    }),
    coded('api.mustBeAListOf2')
  )
})

export const AcknowledgeSchema = v.strictObject({
  comment: v.optional(v.pipe(v.string(coded('input.mustBeAText')), noLongerThan(2000)), ''),
  confirmed: v.optional(bool, false)
})

/** What somebody did about an alarm. */
export interface AlarmNote {
  id: number
  what: 'acknowledged' | 'comment' | 'handed' | 'closed'
  words: string
  by: string
  at: number
}
export const NoteSchema = v.strictObject({
  words: filled(2000)
})
export const HandSchema = v.strictObject({
  to: filled(80, coded('api.mustBeAName'))
})
export const CloseSchema = v.strictObject({
  words: v.optional(v.pipe(v.string(coded('input.mustBeAText')), noLongerThan(2000)), '')
})

/** A trigger from elsewhere: a device without the standard's events, a test. */
export const SendTriggerSchema = v.strictObject({
  /** The sender's own name for it: the same is taken once. */
  key: v.pipe(
    v.string(coded('input.mustBeAText')),
    v.minLength(1, coded('input.mustNotBeEmpty')),
    noLongerThan(100)
  ),
  camera: id,
  detection: id,
  at: v.optional(
    v.pipe(
      v.number(coded('input.mustBeAnInstantIn')),
      v.integer(coded('input.mustBeAWholeNumber')),
      v.minValue(0, coded('api.mustBeAfter1970')),
      v.maxValue(4102444800000, coded('api.mustBeBefore2100'))
    )
  ),
  target: v.optional(
    v.pipe(
      v.number(coded('input.mustBeANumber')),
      v.integer(coded('input.mustBeAWholeNumber')),
      v.minValue(0, coded('input.mustBe0OrMore')),
      v.maxValue(2147483647, coded('api.mustBeAtMost2147483647'))
    )
  ),
  direction: v.optional(
    v.picklist(['leftToRight', 'rightToLeft'], coded('input.mustBeLefttorightOrRighttoleft'))
  ),
  cause: v.optional(oneOf(TAMPER_CAUSES))
})
/** Which fix of which issue is to be applied (core/readiness, findingKey). */
export const FixSchema = v.strictObject({
  finding: v.pipe(v.string(coded('input.mustBeAText')), noLongerThan(600)),
  which: v.picklist(['fix', 'orElse'], coded('api.mustBeFixOrOrelse'))
})
/** The request that takes a fix back. */
export interface FixView {
  undo: { method: 'PUT' | 'DELETE'; path: string; body?: unknown }
}

export const StartRunSchema = v.strictObject({
  speed: v.picklist([1, 10, 1000], coded('api.mustBe1AsIf')),
  /** Real actions (core/actions/real.ts) are held. */
  hold: v.optional(bool, false)
})

/** Seconds at which a clip's tamper reference is to be learned again. */
export const LearnAnewSchema = v.strictObject({
  at: v.pipe(
    v.array(
      v.pipe(
        v.number(coded('api.mustBeSeconds')),
        v.finite(coded('api.mustBeSeconds')),
        v.minValue(0, coded('input.mustBe0OrMore'))
      ),
      coded('api.mustBeAListOf3')
    ),
    v.maxLength(50, coded('api.hasMoreThan50Moments'))
  )
})

/** A clip to be made from a script; the script itself is checked by the simulation. */
const clipName = filled(120)
const instant = v.pipe(
  v.number(coded('input.mustBeAnInstantIn')),
  v.integer(coded('input.mustBeAWholeNumber')),
  v.minValue(0, coded('api.mustBeAfter1970')),
  v.maxValue(4102444800000, coded('api.mustBeBefore2100'))
)
export const MakeClipSchema = v.strictObject({
  name: clipName,
  start: v.optional(instant),
  script: v.unknown()
})

/** A clip of what the camera reported from one instant to another. */
export const ReportedClipSchema = v.strictObject({ name: clipName, from: instant, to: instant })

/** A clip's name and start as people may give them. */
export const ClipChangeSchema = v.strictObject({
  name: v.optional(clipName),
  start: v.optional(instant)
})

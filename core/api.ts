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
import { id, ZoneSchema } from './schema/parts.ts'
import type { Severity } from './kinds/parts.ts'

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
  /** The device and its contact that it is; left out: no device has it. */
  device?: string
  token?: string
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

export interface SavedDetection extends Versioned {
  detection: Detection
  position: number
  actions: SavedActions
}

/** What a detection sets off; version 0: nothing has been said yet. */
export interface SavedActions extends Versioned {
  actions: Actions
}

/** Something that triggers can set off. */
export interface SavedEndpoint extends Versioned {
  endpoint: Endpoint
  /** When it was last tested; null: never. */
  testedAt: number | null
  /** Why the last test failed. */
  testError: string | null
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
  site: Omit<SiteView, 'cameras'>
  camera: Pick<Camera, 'id' | 'name'>
  scene: SavedScene
  detections: SavedDetection[]
  /** What deleted detections set off: undo brings both back, also after a reload. */
  dormant: { id: string; actions: SavedActions }[]
  schedules: SavedSchedule[]
  endpoints: SavedEndpoint[]
  /**
   * The camera's simulated scene and its scripts, from which a clip can be made; null where the
   * camera is a real one.
   */
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

export type DeliveryState = 'pending' | 'sent' | 'failed' | 'held'

/** One thing that a trigger set off. */
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
  error: string | null
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
    | { state: 'failed'; words: string }
    | null
}

export interface AttemptView {
  at: number
  ok: boolean
  words: string
}

export interface AlarmView {
  id: number
  camera: string
  cameraName: string
  detection: string
  name: string
  severity: Severity
  priority: Priority
  state: 'waiting' | 'acknowledged' | 'closed'
  acknowledge: Actions['acknowledge']
  for: string[]
  /** Names of those it is for. */
  forNames: string[]
  /** Whom somebody has handed it to. */
  assignee: string | null
  firstAt: number
  lastAt: number
  triggers: number
  acknowledgedAt: number | null
  acknowledgedBy: string | null
  comment: string | null
  /** The run of a clip that it is of; null: it is real. */
  run: string | null
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
  v.number('must be a number'),
  v.integer('must be a whole number'),
  v.minValue(0, 'must be 0 or more')
)

export const SaveDetectionSchema = v.strictObject({
  version,
  position: v.pipe(
    v.number('must be a number'),
    v.integer('must be a whole number'),
    v.minValue(0, 'must be 0 or more'),
    v.maxValue(10000, 'must be at most 10000')
  ),
  detection: DetectionSchema
})
export const SaveSceneSchema = v.strictObject({
  version,
  ignore: v.pipe(
    v.array(ZoneSchema, 'must be a list of areas'),
    v.maxLength(50, 'has more than 50 areas')
  ),
  marks: v.nullable(SceneMarksSchema)
})
export type SaveScene = v.InferOutput<typeof SaveSceneSchema>
export const SaveScheduleSchema = v.strictObject({ version, schedule: ScheduleSchema })

export const SaveActionsSchema = v.strictObject({ version, actions: ActionsSchema })
export const SaveEndpointSchema = v.strictObject({ version, endpoint: EndpointSchema })
export const SaveMailSchema = v.strictObject({
  version,
  mail: v.nullable(MailSchema),
  /** Left out: the password stays. */ password: v.optional(
    v.nullable(
      v.pipe(v.string('must be a text'), v.maxLength(200, 'is longer than 200 characters'))
    )
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
  /** What is linked by default; null: nothing has been said. */
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
  stations: Record<string, { answeredAt: number | null; error: string | null }>
  /** Links that the camera sets off itself, as `camera detection endpoint`. */
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
        v.string('must be an id'),
        v.regex(/^[\w-]{1,64}$/, 'must be 1 to 64 letters, digits, - or _')
      ),
      name: v.pipe(
        v.string('must be a text'),
        v.trim(),
        v.minLength(1, 'must not be empty'),
        v.maxLength(80, 'is longer than 80 characters')
      ),
      device: v.optional(v.string('must be the id of a device')),
      token: v.optional(v.string('must be the token of an input'))
    }),
    'must be a list of contacts'
  )
})

export const AcknowledgeSchema = v.strictObject({
  comment: v.optional(
    v.pipe(v.string('must be a text'), v.maxLength(2000, 'is longer than 2000 characters')),
    ''
  ),
  confirmed: v.optional(v.boolean('must be true or false'), false)
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
  words: v.pipe(
    v.string('must be a text'),
    v.trim(),
    v.minLength(1, 'must not be empty'),
    v.maxLength(2000, 'is longer than 2000 characters')
  )
})
export const HandSchema = v.strictObject({
  to: v.pipe(
    v.string('must be a name'),
    v.trim(),
    v.minLength(1, 'must not be empty'),
    v.maxLength(80, 'is longer than 80 characters')
  )
})
export const CloseSchema = v.strictObject({
  words: v.optional(
    v.pipe(v.string('must be a text'), v.maxLength(2000, 'is longer than 2000 characters')),
    ''
  )
})

/** A trigger from elsewhere: a device without the standard's events, a test. */
export const SendTriggerSchema = v.strictObject({
  /** The sender's own name for it: the same is taken once. */
  key: v.pipe(
    v.string('must be a text'),
    v.minLength(1, 'must not be empty'),
    v.maxLength(100, 'is longer than 100 characters')
  ),
  camera: id,
  detection: id,
  at: v.optional(
    v.pipe(
      v.number('must be an instant in milliseconds'),
      v.integer('must be a whole number'),
      v.minValue(0, 'must be after 1970'),
      v.maxValue(4102444800000, 'must be before 2100')
    )
  ),
  target: v.optional(
    v.pipe(
      v.number('must be a number'),
      v.integer('must be a whole number'),
      v.minValue(0, 'must be 0 or more'),
      v.maxValue(2147483647, 'must be at most 2147483647')
    )
  ),
  direction: v.optional(
    v.picklist(['leftToRight', 'rightToLeft'], 'must be leftToRight or rightToLeft')
  ),
  cause: v.optional(v.picklist(TAMPER_CAUSES, `must be one of ${TAMPER_CAUSES.join(', ')}`))
})
/** Which fix of which issue is to be applied (core/readiness, findingKey). */
export const FixSchema = v.strictObject({
  finding: v.pipe(v.string('must be a text'), v.maxLength(600, 'is longer than 600 characters')),
  which: v.picklist(['fix', 'orElse'], 'must be fix or orElse')
})
/** The request that takes a fix back. */
export interface FixView {
  undo: { method: 'PUT' | 'DELETE'; path: string; body?: unknown }
}

export const StartRunSchema = v.strictObject({
  speed: v.picklist([1, 10, 1000], 'must be 1 (as if live), 10 or 1000 (as fast as it goes)')
})

const shortText = (right: string, most: number) =>
  v.pipe(
    v.string(right),
    v.trim(),
    v.minLength(1, 'must not be empty'),
    v.maxLength(most, `is longer than ${most} characters`)
  )
/** Seconds at which a clip's tamper reference is to be learned anew. */
export const LearnAnewSchema = v.strictObject({
  at: v.pipe(
    v.array(
      v.pipe(
        v.number('must be seconds'),
        v.finite('must be seconds'),
        v.minValue(0, 'must be 0 or more')
      ),
      'must be a list of seconds'
    ),
    v.maxLength(50, 'has more than 50 moments')
  )
})

/** A clip to be made from a script; the script itself is checked by the simulation. */
const clipName = shortText('must be a text', 120)
const instant = v.pipe(
  v.number('must be an instant in milliseconds'),
  v.integer('must be a whole number'),
  v.minValue(0, 'must be after 1970'),
  v.maxValue(4102444800000, 'must be before 2100')
)
export const MakeClipSchema = v.strictObject({
  name: clipName,
  start: v.optional(instant),
  script: v.unknown()
})

/** A clip's name and start as people may give them. */
export const ClipChangeSchema = v.strictObject({
  name: v.optional(clipName),
  start: v.optional(instant)
})

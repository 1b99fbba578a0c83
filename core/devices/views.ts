import { coded, type Said } from '../messages/said.ts'
import type { OutputKind } from '../formats/actions.ts'
import * as v from 'valibot'
import type { AnalysisMode, RuleAbility } from '../formats/onvif/rule.ts'
import type { Difference } from '../formats/onvif/differences.ts'
import type { Loss } from '../formats/onvif/toRule.ts'
import type { DetectionKind } from '../formats/plan.ts'
import type { SurroundingsStanding } from '../sites/surroundings.ts'
import { bool, filled, id, noLongerThan } from '../schema/parts.ts'

/** What the server tells of devices, and what it may be told. */

/** How a device stands, as honestly as it is known. */
export type DeviceState =
  | 'unknown'
  | 'online'
  | 'clock-off'
  | 'offline'
  | 'wrong-password'
  | 'no-account'
  | 'new'
  | 'broken'
  /** It shows another certificate than the one that is kept. */
  | 'certificate'

/** Whether a device can be spoken with now. */
export const isReachable = (state: DeviceState): boolean =>
  state === 'online' || state === 'clock-off'

/** What the device cannot hold as it is wanted. */
export interface ChannelLoss extends Loss {
  /** The other route that can: the name of the device; null: none. */
  elsewhere: string | null
}

/**
 * How a detection stands on a channel: the same; changed in the plan since it was sent (or never sent); missing; changed
 * on the device since it was sent; of a kind the device has not; off, and rightly not there; not known yet; no rule of a
 * device at all, as Wardoptic keeps watch of it itself.
 */
export type StandingState =
  'same' | 'differs' | 'missing' | 'drifted' | 'unsupported' | 'off' | 'unread' | 'own'

/** One of a camera's detections beside what its device holds. */
export interface ChannelDetection {
  id: string
  name: string
  kind: DetectionKind
  state: StandingState
  parked: boolean
  differences: Difference[]
  /** Said before anything is sent. */
  losses: ChannelLoss[]
  /** The other route that can do the kind, when this one cannot; null: none. */
  elsewhere: string | null
}

/** A rule on the device that the plan knows nothing of. */
export interface UnmanagedRule {
  name: string
  /** Null for a type that no kind has; it cannot be imported. */
  kind: DetectionKind | null
}

/** One picture of a device, and the analysis of it. A camera has one, a recorder several. */
export interface ChannelView {
  token: string
  name: string
  camera: string | null
  /** Whether the plan is sent through this route. */
  used: boolean
  abilities: RuleAbility[]
  /** Rules of all types together, at most; null: it does not say. */
  mostRules: number | null
  modes: AnalysisMode[]
  detections: ChannelDetection[]
  unmanaged: UnmanagedRule[]
  /** Types of rules that the device was seen to switch on again by itself. */
  switchesBack: string[]
  /** Null: it has no such switch, or shows no camera. */
  surroundings: SurroundingsStanding | null
}

export interface OutputView {
  token: string
  kind: OutputKind
  name: string
  /** Active now, as the device says. */
  active: boolean
  /** When it was last tested from here; null: never. */
  testedAt: number | null
  /** What of its settings is not on the device yet; empty: nothing. */
  waiting: Said[]
}

export interface InputView {
  token: string
  /** Null: the device does not say. */
  active: boolean | null
}

export interface DeviceView {
  id: string
  name: string
  address: string
  username: string | null
  state: DeviceState
  trouble: Said | string | null
  information: { manufacturer: string; model: string; firmware: string; serial: string } | null
  /** Seconds by which its clock is ahead. */
  clockAhead: number | null
  readAt: number | null
  /** Over TLS: what it is known by, and what it has shown instead (null: the same). SHA-256. */
  certificate: { kept: string; shown: string | null } | null
  /** It is being read or sent to. */
  busy: boolean
  channels: ChannelView[]
  inputs: InputView[]
  outputs: OutputView[]
}

/** Something that a device said; a gap is a stretch in which nobody listened. */
export interface DeviceEventView {
  id: number
  topic: string
  rule: string
  data: Record<string, string>
  /** On the device's own clock. */
  deviceAt: number
  receivedAt: number
}

export interface SendResult {
  channel: string
  detection: string
  /** Of the detection, or of the rule where the plan has none; of the output; or what else was sent. */
  name: Said | string
  what: 'created' | 'changed' | 'deleted'
  error: Said | string | null
  /** What the device holds after an error: the new rule, the one it had, none, or not known until it is read again. */
  holds: 'new' | 'old' | 'none' | 'unknown'
}

/** Sending to some devices: one deliberate command, and how far it is. */
export interface SendingView {
  id: string
  startedAt: number
  finished: boolean
  devices: {
    id: string
    name: string
    state: 'waiting' | 'sending' | 'done' | 'failed'
    results: SendResult[]
    error: Said | string | null
  }[]
}

/** A device that answered when everybody was asked. */
export interface FoundDevice {
  address: string
  name: string
  hardware: string
  /** It is one of the site's already. */
  known: boolean
  simulated: boolean
}

/** Targets of one moment, as a camera says them live. Boxes are shares of the picture. */
export interface LiveFrame {
  at: number
  targets: {
    id: number
    class: string
    x: number
    y: number
    w: number
    h: number
    /** Of the class, 0 to 1; left out where the device says none. */
    likelihood?: number
  }[]
}

const ids = v.pipe(
  v.array(filled(64, coded('input.mustBeAnId')), coded('devices.mustBeAListOf')),
  v.minLength(1, coded('devices.mustNameAtLeastOne')),
  v.maxLength(1000, coded('devices.namesMoreThan1000'))
)

export const AddDeviceSchema = v.strictObject({
  name: filled(80),
  address: filled(200, coded('devices.mustBeAnAddress')),
  /** The camera that a device of one picture is. */
  camera: v.optional(v.nullable(id), null),
  /** Each of its pictures becomes a camera, unless the site has one of its name. */
  makeCameras: v.optional(bool, false),
  username: v.nullable(filled(80)),
  password: v.nullable(v.pipe(v.string(coded('input.mustBeAText')), noLongerThan(120)))
})
/** SHA-256 of the certificate that somebody has looked at. */
export const CertificateSchema = v.strictObject({
  shown: filled(95, coded('input.mustBeAText'))
})
export const AccountSchema = v.strictObject({
  username: filled(80),
  password: v.pipe(
    v.string(coded('input.mustBeAText')),
    v.minLength(1, coded('input.mustNotBeEmpty')),
    noLongerThan(120)
  ),
  first: bool
})
export const ChannelChangeSchema = v.strictObject({
  camera: v.optional(v.nullable(id)),
  used: v.optional(bool)
})
export const ModeSchema = v.strictObject({ type: filled(120, coded('devices.mustBeTheTypeOf')) })
export const SendSchema = v.strictObject({ devices: ids })
export const TakeOverSchema = v.strictObject({
  channel: filled(64, coded('devices.mustBeAChannel')),
  rule: filled(80, coded('devices.mustBeTheNameOf'))
})

/** Simulators that run beside the server; null: none do. */
export interface SimulatorsView {
  running: {
    /** The host that stands for them in settings. */
    host: string
    /** The address of their pages. */
    pages: string
  } | null
}

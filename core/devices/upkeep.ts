import * as v from 'valibot'
import type { DetectionKind } from '../kinds/schemas.ts'
import { coded, type Said } from '../messages/said.ts'
import { filled, noLongerThan, oneOf } from '../schema/parts.ts'

/** What of a device is looked after besides its rules: clock, night picture, network, account; and what it can do. */

/** When a camera shows its infra-red picture: by itself, never, always. */
export const NIGHT_PICTURES = ['auto', 'day', 'night'] as const
export type NightPicture = (typeof NIGHT_PICTURES)[number]

export interface NetworkView {
  /** With the length of their prefix, such as `192.0.2.4/24`. */
  addresses: string[]
  gateways: string[]
  dns: string[]
  /** Time servers that it asks. */
  ntp: string[]
}

/** One place that a device records to; each fact null where the device does not say. */
export interface StorageView {
  /** As the device calls it. */
  place: string
  bytes: number | null
  free: number | null
  whenFull: 'overwrite' | 'stop' | null
  /** What it records while nothing triggers. */
  outsideEvents: 'nothing' | 'keyFrames' | 'all' | null
  /** Seconds that it keeps before an event, and after it. */
  before: number | null
  after: number | null
}

/** Less than this share of it is free: what does not overwrite has no room for another recording. Our own choice. */
const FULL = 0.01
export const isFull = ({ bytes, free }: Pick<StorageView, 'bytes' | 'free'>): boolean =>
  bytes !== null && free !== null && free < FULL * bytes

/** Each part null where the device does not say. */
export interface UpkeepView {
  clock: {
    byNtp: boolean
    /** As POSIX writes it; null: it does not say. */
    zone: string | null
    /** Whether that is the site's. */
    ofSite: boolean
  } | null
  network: NetworkView | null
  channels: {
    token: string
    name: string
    nightPicture: NightPicture | null
    microphone: boolean
  }[]
  /** Where it records to; empty: it has nothing to record to. */
  storage: StorageView[] | null
}

export const ABILITIES = [
  'picture',
  'targets',
  'events',
  'rule',
  'modes',
  'outputs',
  'inputs',
  'clock',
  'nightPicture',
  'storage',
  'network'
] as const
export type Ability = (typeof ABILITIES)[number]

/** `partly`: it does, with less than what detections can be set to. `no-answer`: it should, and did not in time. */
export type AbilityState = 'works' | 'partly' | 'not-offered' | 'refused' | 'no-answer'

/** One thing that a device can do or cannot, asked just now. */
export interface AbilityView {
  ability: Ability
  /** The name of the picture that it is of; null: of the device. */
  channel: string | null
  /** Of rules. */
  kind: DetectionKind | null
  state: AbilityState
  /** The device's own answer, or what was found; null: nothing more to say. */
  says: Said | string | null
}
export interface AbilitiesView {
  at: number
  abilities: AbilityView[]
}

const host = v.pipe(
  v.string(coded('input.mustBeAText')),
  v.trim(),
  v.regex(/^[A-Za-z0-9.:-]{1,253}$/, coded('devices.mustBeAHost'))
)
/** `ntp`: the server that the device asks for the time; null: it is set to the time here. */
export const SetClockSchema = v.strictObject({ ntp: v.optional(v.nullable(host), null) })
export const NightPictureSchema = v.strictObject({ mode: oneOf(NIGHT_PICTURES) })
export const DevicePasswordSchema = v.strictObject({
  devices: v.pipe(
    v.array(filled(64, coded('input.mustBeAnId')), coded('devices.mustBeAListOf')),
    v.minLength(1, coded('devices.mustNameAtLeastOne')),
    v.maxLength(1000, coded('devices.namesMoreThan1000'))
  ),
  password: v.pipe(
    v.string(coded('input.mustBeAText')),
    v.minLength(8, coded('devices.passwordTooShort')),
    noLongerThan(120)
  )
})
/** What came of a new password: of each device, the error or none. */
export interface PasswordResult {
  device: string
  name: string
  error: Said | string | null
}

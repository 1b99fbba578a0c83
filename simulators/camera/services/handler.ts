import { content, xml } from '../../../core/formats/onvif/xml.ts'
import type { Element } from '../../../core/formats/onvif/xml.ts'
import type { Channel } from '../channel.ts'
import type { Notification, PullPoints } from '../events.ts'
import type { Lack, Model } from '../model.ts'
import type { Outputs } from '../outputs.ts'
import type { Recordings } from '../recordings.ts'
import type { DeviceState } from '../state.ts'

/** What the services see of the device that they belong to. */
export interface Served {
  readonly address: string
  /** Where its streams are over RTSP; null: it has none. */
  readonly streams: string | null
  readonly model: Model
  readonly channels: readonly Channel[]
  readonly outputs: Outputs
  readonly recordings: Recordings
  readonly pullPoints: PullPoints
  readonly state: DeviceState
  has(ability: Lack): boolean
  now: () => number
  moment: () => number
  save(): void
  channel(token: string): Channel
  isSet(input: Model['inputs'][number]): boolean
  inputEvent(input: Model['inputs'][number], operation: Notification['operation']): Notification
}

/** Answers one question of the standard: the answer's element. @param gone whoever asked has gone */
export type Handler = (
  device: Served,
  action: Element,
  path: string,
  gone: AbortSignal
) => string | Promise<string>

export const text = (name: string, value: string | number | boolean): string =>
  xml(name, {}, content(value))

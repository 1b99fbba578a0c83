import { said } from '../messages/said.ts'
import { type AnalysisMode, type RuleAbility, type Rule } from '../formats/onvif/rule.ts'
import { differencesOf, type Difference } from '../formats/onvif/differences.ts'
import { toRule, type Loss } from '../formats/onvif/toRule.ts'
import type { Detection, Schedule } from '../formats/plan.ts'
import type { Surroundings, SurroundingsStanding } from '../sites/surroundings.ts'
import type { ChannelDetection, DeviceView, StandingState, UnmanagedRule } from './views.ts'
import { ruleTypeOf, kindOfType } from '../kinds/rules.ts'

/** One channel of a device, as it was last read and sent to. */
export interface Channel {
  device: string
  deviceName: string
  token: string
  name: string
  camera: string | null
  used: boolean
  /** Null: never read. */
  readAt: number | null
  abilities: readonly RuleAbility[]
  mostRules: number | null
  modes: readonly AnalysisMode[]
  held: readonly Rule[]
  /** The rules that were last sent; null: nothing has been sent yet. */
  sent: readonly Rule[] | null
  /** Null: it has no such switch, or shows no camera. */
  surroundings: SurroundingsStanding | null
}

/** What is wanted on a channel: the detections in use that it can do, as rules. */
export const wantedRules = (
  detections: readonly Detection[],
  { abilities }: Pick<Channel, 'abilities'>,
  schedules: readonly Schedule[]
): Rule[] =>
  detections.flatMap((d) => (d.enabled ? (toRule(d, abilities, schedules)?.rule ?? []) : []))

/**
 * Of a camera's detections those that nobody watches for: a device would have to hold them, and none does.
 *
 * @returns their ids
 */
export const unheldOf = (
  camera: string,
  detections: readonly Detection[],
  channels: readonly Pick<Channel, 'camera' | 'held'>[]
): string[] =>
  detections
    .filter(
      ({ id, kind }) =>
        ruleTypeOf(kind) &&
        !channels.some((c) => c.camera === camera && c.held.some(({ name }) => name === id))
    )
    .map(({ id }) => id)

function stateOf(
  d: Detection,
  rule: Rule | null,
  channel: Channel
): { state: StandingState; differences: Difference[] } {
  const held = channel.held.find(({ name }) => name === d.id)
  const sent = channel.sent?.find(({ name }) => name === d.id)
  const nothing = { differences: [] }
  if (!ruleTypeOf(d.kind)) return { state: 'own', ...nothing }
  if (channel.readAt === null) return { state: 'unread', ...nothing }
  if (!d.enabled)
    return held
      ? {
          state: 'differs',
          differences: [
            {
              setting: said('settings.enabled'),
              plan: said('values.switchedOff'),
              device: said('values.onDevice')
            }
          ]
        }
      : { state: 'off', ...nothing }
  if (!rule) return { state: 'unsupported', ...nothing }
  if (!held)
    return sent
      ? {
          state: 'drifted',
          differences: [
            {
              setting: said('settings.enabled'),
              plan: said('values.wasSent'),
              device: said('values.removedOnDevice')
            }
          ]
        }
      : { state: 'missing', ...nothing }
  const differences = differencesOf(rule, held)
  if (sent && differencesOf(sent, held).length)
    return { state: differences.length ? 'drifted' : 'same', differences }
  return { state: differences.length ? 'differs' : 'same', differences }
}

/**
 * How a camera's detection stands on one of its channels.
 *
 * @param others the camera's other channels that are used: other routes to its settings
 */
export function standingOf(
  d: Detection,
  channel: Channel,
  schedules: readonly Schedule[],
  others: readonly Channel[]
): ChannelDetection {
  const translated = toRule(d, channel.abilities, schedules)
  const able = (other: Channel): { losses: Loss[] } | null =>
    other.readAt === null ? null : toRule(d, other.abilities, schedules)
  const losses = channel.readAt === null ? [] : (translated?.losses ?? [])
  return {
    id: d.id,
    name: d.name,
    kind: d.kind,
    parked: d.parked === true,
    ...stateOf(d, translated?.rule ?? null, channel),
    losses: losses.map((loss) => ({
      ...loss,
      elsewhere:
        others.find((other) => able(other)?.losses.every(({ setting }) => setting !== loss.setting))
          ?.deviceName ?? null
    })),
    elsewhere: translated ? null : (others.find((other) => able(other))?.deviceName ?? null)
  }
}

/** Rules on a channel that the plan does not have. */
export const unmanagedOf = (detections: readonly Detection[], channel: Channel): UnmanagedRule[] =>
  channel.held
    .filter(({ name }) => !detections.some(({ id }) => id === name))
    .map(({ name, type }) => ({ name, kind: kindOfType(type) ?? null }))

/** Whether a channel has to be told where its camera looks. */
export const isToldSurroundings = <T extends Pick<Channel, 'surroundings'>>(
  channel: T
): channel is T & { surroundings: { wanted: Surroundings } } =>
  channel.surroundings !== null &&
  channel.surroundings.wanted !== null &&
  channel.surroundings.held !== channel.surroundings.wanted

/** Whether there is something to send for it. */
export const isOpen = ({ state }: ChannelDetection): boolean =>
  state === 'missing' || state === 'differs' || state === 'drifted'

/** How many changes a device waits for: those of its channels, and outputs that it should switch by itself. */
export const changesOfDevice = ({
  channels,
  outputs
}: Pick<DeviceView, 'channels' | 'outputs'>): number =>
  channels.reduce((sum, channel) => sum + changesOf(channel), 0) +
  outputs.filter(({ waiting }) => waiting.length).length

/** How many changes a channel waits for. */
export const changesOf = ({
  detections,
  unmanaged,
  used,
  surroundings
}: {
  detections: readonly ChannelDetection[]
  unmanaged: readonly UnmanagedRule[]
  used: boolean
  surroundings: SurroundingsStanding | null
}): number =>
  used
    ? detections.filter(isOpen).length +
      unmanaged.length +
      Number(isToldSurroundings({ surroundings }))
    : 0

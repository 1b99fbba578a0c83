import { said, type Said } from '../messages/said.ts'
import { buzzerSettings } from '../actions/kinds/buzzer.ts'
import { relaySettings } from '../actions/kinds/relay.ts'
import { speakerSettings } from '../actions/kinds/speaker.ts'
import { strobeSettings } from '../actions/kinds/strobe.ts'
import { isOutput, type Actions, type Endpoint, type OutputEndpoint } from '../formats/actions.ts'
import { writeHours } from '../formats/onvif/hours.ts'
import { WEEKDAYS, type Schedule } from '../formats/plan.ts'

/**
 * How an output is set on its device (docs/device-extension.md): what it does when it runs, its own schedule, and the
 * rules that set it off there, so that the camera acts without the server.
 */
export interface OutputSetting {
  settings: Record<string, string>
  /** `mon=18:30-24:00;…`; empty: always. */
  hours: string
  /** `channel/rule`, in order. */
  rules: string[]
}

const settingsOf: {
  [K in OutputEndpoint['kind']]: (
    endpoint: Extract<OutputEndpoint, { kind: K }>
  ) => Record<string, string>
} = {
  strobe: strobeSettings,
  speaker: speakerSettings,
  relay: relaySettings,
  buzzer: buzzerSettings
}

/** What an output does when it runs, as items. */
export const outputSettings = (endpoint: OutputEndpoint): Record<string, string> =>
  settingsOf[endpoint.kind](endpoint as never)

/** What is known of a channel that holds rules. */
interface Holder {
  token: string
  camera: string | null
  used: boolean
  held: readonly { name: string }[]
}

/**
 * What a device should hold of one of its outputs; null: not set up, and nothing on the device runs it. Hours that a device cannot hold
 * (exceptions, ends tied to the sun) leave the setting off to the server.
 *
 * @param channels of the same device
 * @param actions by camera and detection, `camera detection`
 */
export function wantedOutput(
  device: string,
  output: string,
  endpoints: readonly Endpoint[],
  channels: readonly Holder[],
  actions: ReadonlyMap<string, Actions>,
  schedules: readonly Schedule[]
): OutputSetting | null {
  const endpoint = endpoints.find(
    (e): e is OutputEndpoint => isOutput(e) && e.device === device && e.output === output
  )
  if (!endpoint) return null
  const schedule = schedules.find((s) => s.id === endpoint.schedule)
  const hours = !endpoint.schedule
    ? ''
    : schedule && !schedule.exceptions.length
      ? writeHours(schedule.week)
      : null
  const never = schedule && WEEKDAYS.every((day) => !schedule.week[day].length)
  const able = hours !== null && !never && (!endpoint.schedule || schedule)
  const rules = !able
    ? []
    : channels.flatMap((c) =>
        c.used && c.camera !== null
          ? c.held
              .filter(({ name }) => actions.get(`${c.camera} ${name}`)?.links.includes(endpoint.id))
              .map(({ name }) => `${c.token}/${name}`)
          : []
      )
  return { settings: outputSettings(endpoint), hours: able ? hours : '', rules: rules.sort() }
}

/**
 * What differs between two settings of an output, in words; empty: nothing that matters. Each command of the server says
 * what the output has to do; a device needs to hold it only where it acts by itself.
 */
export function outputDifferences(
  wanted: OutputSetting | null,
  held: OutputSetting | null
): Said[] {
  if (!wanted?.rules.length) return held?.rules.length ? [said('devices.theDeviceSetsItOff')] : []
  if (!held) return [said('devices.itHoldsNoSettingsYet')]
  const names = [...new Set([...Object.keys(wanted.settings), ...Object.keys(held.settings)])]
  return [
    ...names
      .filter((name) => wanted.settings[name] !== held.settings[name])
      .map((name) =>
        said(
          'devices.isPlanned',
          name,
          held.settings[name] ?? said('values.notSet'),
          wanted.settings[name] ?? said('values.notSet')
        )
      ),
    ...(wanted.hours === held.hours ? [] : [said('devices.itsHours')]),
    ...(wanted.rules.join() === held.rules.join() ? [] : [said('devices.whatSetsItOff')])
  ]
}

/** Whether a device sets an output off itself for a rule. */
export const setsOff = (held: OutputSetting | null, channel: string, rule: string): boolean =>
  held?.rules.includes(`${channel}/${rule}`) ?? false

/** What is written to a device so that it holds what is wanted of an output. */
export const toHold = (wanted: OutputSetting | null, held: OutputSetting | null): OutputSetting =>
  wanted ?? { settings: held?.settings ?? {}, hours: '', rules: [] }

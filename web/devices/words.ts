import type {
  ChannelDetection,
  ChannelLoss,
  DeviceEventView,
  DeviceState
} from '../../core/devices/views.ts'
import { localName, type RuleAbility } from '../../core/formats/onvif/rule.ts'
import type { Detection } from '../../core/formats/plan.ts'
import { directionInWords } from '../../core/actions/email.ts'
import { kindNames } from '../kinds/names.ts'
import { kindOfType } from '../../core/kinds/rules.ts'

/** How each state is shown: its shape, its words, and whether somebody has to do something. */
export const states: Record<DeviceState, { mark: string; words: string; bad: boolean }> = {
  unknown: { mark: '○', words: 'not asked yet', bad: false },
  online: { mark: '●', words: 'online', bad: false },
  'clock-off': { mark: '◐', words: 'online, its clock is off', bad: true },
  offline: { mark: '✕', words: 'cannot be reached', bad: true },
  'wrong-password': { mark: '✕', words: 'wrong password', bad: true },
  'no-account': { mark: '✕', words: 'asks for an account', bad: true },
  new: { mark: '◇', words: 'fresh from the box', bad: true },
  broken: { mark: '✕', words: 'answers wrongly', bad: true }
}

export const typeWords = (type: string): string => {
  const kind = kindOfType(type)
  return kind ? kindNames[kind] : localName(type)
}

/** What a device can do of one kind, as a sentence's part: how many, on which scale, up to which dwell. */
export function abilityWords({ type, most, ranges, parameters }: RuleAbility): string {
  const parts = [most === null ? '' : `up to ${most}`]
  if (ranges.Sensitivity)
    parts.push(`sensitivity in ${ranges.Sensitivity.max - ranges.Sensitivity.min + 1} steps`)
  if (ranges.TimeThreshold) parts.push(`dwell up to ${ranges.TimeThreshold.max} s`)
  if (
    type !== 'tt:CellMotionDetector' &&
    type !== 'tt:TamperDetector' &&
    !parameters.includes('ClassFilter')
  )
    parts.push('no classes')
  if (parameters.includes('Hours')) parts.push('own arming hours')
  const said = parts.filter(Boolean)
  return said.length ? `${typeWords(type)} (${said.join(', ')})` : typeWords(type)
}

/** How a detection stands on its device. */
export function detectionWords({
  state,
  elsewhere,
  parked
}: Pick<ChannelDetection, 'state' | 'elsewhere' | 'parked'>): string {
  if (state === 'unsupported' && elsewhere)
    return `not a kind of this door; it goes through ${elsewhere}`
  if (state === 'same' && parked) return 'parked: one minute a day, no area'
  return {
    same: 'as in the plan',
    differs: 'was changed in the plan since it was sent',
    missing: 'is not on the device yet',
    drifted: 'was changed on the device since it was sent',
    unsupported: 'the device cannot do this kind',
    off: 'switched off, and not on the device',
    unread: 'not known before the device has been read',
    own: 'no rule of a device: Wardoptic keeps watch of it'
  }[state]
}

/** What a setting becomes on the device, or through which door it goes. */
export function lossWords({ setting, wanted, nearest, elsewhere }: ChannelLoss): string {
  if (elsewhere) return `${setting} ${wanted}: only through ${elsewhere}`
  return `${setting} ${wanted}: ${nearest === null ? 'the device cannot hold it' : `the nearest is ${nearest}`}`
}

/**
 * What a device said happened. Topics by their last part; source: ONVIF Analytics (from memory).
 *
 * @param detection the one that the rule is of, where it is known: its sides have names
 */
export function eventWords(
  { topic, data }: Pick<DeviceEventView, 'topic' | 'data'>,
  detection?: Detection
): string {
  const what: Record<string, string> = {
    Crossed: 'the line was crossed',
    ObjectsInside: 'somebody is inside',
    ObjectIsLoitering: 'somebody lingers',
    Entered: 'somebody came in',
    Left: 'somebody left',
    Motion: 'motion',
    Tamper: 'tamper',
    Face: 'a face'
  }
  const last = topic.split('/').pop() ?? topic
  if (last === 'DigitalInput')
    return data.LogicalState === 'true' ? 'became active' : 'is at rest again'
  const direction =
    data.Direction &&
    ((detection &&
      directionInWords(detection, data.Direction === 'Right' ? 'leftToRight' : 'rightToLeft')) ??
      data.Direction.toLowerCase())
  return `${what[last] ?? last}${direction ? ` (${direction})` : ''}${data.Cause ? ` (${data.Cause})` : ''}${data.ObjectId ? `, target ${data.ObjectId}` : ''}`
}

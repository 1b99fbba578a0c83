import type { DeviceDetection, DeviceEventView } from '../../core/api.ts'
import { RULE_TYPES, type RuleAbility } from '../../core/formats/onvif/rules.ts'
import type { DetectionKind } from '../../core/formats/plan.ts'
import { kindNames } from '../kinds.ts'

const kindOf = (type: string): string => {
  const kind = (Object.keys(RULE_TYPES) as DetectionKind[]).find((k) => RULE_TYPES[k] === type)
  return kind ? kindNames[kind] : type.replace(/^tt:/, '')
}

/** What a device can do of one kind, as a sentence's part: how many, on which scale, up to which dwell. */
export function abilityWords({ type, most, ranges, parameters }: RuleAbility): string {
  const parts = [most === null ? '' : `up to ${most}`]
  if (ranges.Sensitivity) parts.push(`sensitivity in ${ranges.Sensitivity.max - ranges.Sensitivity.min + 1} steps`)
  if (ranges.TimeThreshold) parts.push(`dwell up to ${ranges.TimeThreshold.max} s`)
  if (type !== 'tt:CellMotionDetector' && type !== 'tt:TamperDetector' && !parameters.includes('ClassFilter')) parts.push('no classes')
  const said = parts.filter(Boolean)
  return said.length ? `${kindOf(type)} (${said.join(', ')})` : kindOf(type)
}

/** How a detection stands on its device. */
export function detectionWords({ state }: DeviceDetection): string {
  return { same: 'as in the plan', differs: 'differs', missing: 'is not on the device yet', unsupported: 'the device cannot do this kind', off: 'switched off, and not on the device', unread: 'not known before the device has been read' }[state]
}

/** What a device said happened. Topics by their last part; source: ONVIF Analytics (from memory). */
export function eventWords({ topic, data }: DeviceEventView): string {
  const what: Record<string, string> = { Crossed: 'the line was crossed', ObjectsInside: 'somebody is inside', ObjectIsLoitering: 'somebody lingers', Motion: 'motion', Tamper: 'tamper' }
  const last = topic.split('/').pop() ?? topic
  return `${what[last] ?? last}${data.Direction ? ` (${data.Direction.toLowerCase()})` : ''}${data.ObjectId ? `, target ${data.ObjectId}` : ''}`
}

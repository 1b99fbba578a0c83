import { capital } from '../../core/messages/format.ts'
import { said } from '../../core/messages/said.ts'
import { wordsOf } from '../../core/messages/words.ts'
import { words as msg } from '../../core/messages/en/devices.ts'
import type {
  ChannelDetection,
  ChannelLoss,
  DeviceEventView,
  DeviceState
} from '../../core/devices/views.ts'
import { localName, type RuleAbility } from '../../core/formats/onvif/rule.ts'
import type { Detection } from '../../core/formats/plan.ts'
import { pathWords } from '../../core/kinds/words.ts'
import { kindNames } from '../../core/kinds/names.ts'
import { kindOfType } from '../../core/kinds/rules.ts'
import { ClockCircleOutlined, KeyOutlined } from '@ant-design/icons'
import type { ReactNode } from 'react'
import { Failed, NotRun, Passed } from '../words/signs.tsx'

/** How each state is shown: its shape, its words, and whether somebody has to do something. */
export const states: Record<DeviceState, { mark: ReactNode; words: string; bad: boolean }> = {
  unknown: { mark: <NotRun />, words: msg.notAskedYet, bad: false },
  online: { mark: <Passed />, words: msg.online, bad: false },
  'clock-off': {
    mark: <ClockCircleOutlined className="sign" aria-hidden />,
    words: msg.onlineClockWrong,
    bad: true
  },
  offline: { mark: <Failed />, words: msg.notReachable, bad: true },
  'wrong-password': { mark: <Failed />, words: msg.wrongPassword, bad: true },
  'no-account': { mark: <Failed />, words: msg.accountRequired, bad: true },
  new: {
    mark: <KeyOutlined className="sign" aria-hidden />,
    words: msg.noAccountYet,
    bad: true
  },
  certificate: { mark: <Failed />, words: msg.otherCertificate, bad: true },
  broken: { mark: <Failed />, words: msg.invalidResponse, bad: true }
}

export const typeWords = (type: string): string => {
  const kind = kindOfType(type)
  return kind ? kindNames[kind] : localName(type)
}

/** What a device can do of one kind, as a sentence's part: how many, on which scale, up to which dwell. */
export function abilityWords({ type, most, ranges, parameters }: RuleAbility): string {
  const parts = [most === null ? '' : msg.upTo(most)]
  if (ranges.Sensitivity)
    parts.push(msg.sensitivityInSteps(ranges.Sensitivity.max - ranges.Sensitivity.min + 1))
  if (ranges.TimeThreshold) parts.push(msg.dwellUpToS(ranges.TimeThreshold.max))
  if (
    type !== 'tt:CellMotionDetector' &&
    type !== 'tt:TamperDetector' &&
    !parameters.includes('ClassFilter')
  )
    parts.push(msg.noClasses)
  if (parameters.includes('Hours')) parts.push(msg.schedulesOnDevice)
  const said = parts.filter(Boolean)
  return said.length ? `${typeWords(type)} (${said.join(', ')})` : typeWords(type)
}

/** How a detection stands on its device. */
export function detectionWords({
  state,
  elsewhere,
  parked
}: Pick<ChannelDetection, 'state' | 'elsewhere' | 'parked'>): string {
  if (state === 'unsupported' && elsewhere) return msg.sentThrough(elsewhere)
  if (state === 'same' && parked) return msg.parkedKeepsItsPlace
  return {
    same: msg.asInThePlan,
    differs: msg.wasChangedInThePlan,
    missing: msg.isNotOnTheDevice,
    drifted: msg.changedOnDevice,
    unsupported: msg.notSupportedByThe,
    off: msg.switchedOffAndNotOn,
    unread: msg.unknownUntilTheDevice,
    own: msg.monitoredByWardoptic
  }[state]
}

/** What a setting becomes on the device, or through which route it goes. */
export function lossWords({ setting, wanted, nearest, elsewhere }: ChannelLoss): string {
  const [name, value] = [capital(wordsOf(said(`settings.${setting}`))), wordsOf(wanted)]
  if (elsewhere) return msg.onlyThrough(name, value, elsewhere)
  return msg.theDeviceCannot(name, value, nearest && wordsOf(nearest))
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
    Crossed: msg.lineCrossed,
    ObjectsInside: msg.targetInside,
    ObjectIsLoitering: msg.targetLoitering,
    Entered: msg.targetEntered,
    Left: msg.targetLeft,
    Motion: msg.motion,
    Tamper: msg.tamper,
    Face: msg.aFace
  }
  const last = topic.split('/').pop() ?? topic
  if (last === 'DigitalInput' || last === 'Relay')
    return data.LogicalState === 'true' ? msg.active : msg.atRest
  const direction =
    data.Direction &&
    ((detection &&
      pathWords(detection, data.Direction === 'Right' ? 'leftToRight' : 'rightToLeft')) ??
      data.Direction.toLowerCase())
  return `${what[last] ?? last}${direction ? ` (${direction})` : ''}${data.Cause ? ` (${data.Cause})` : ''}${data.ObjectId ? msg.target(data.ObjectId) : ''}`
}

/** An address as people know it. */
export const hostOf = (address: string): string => address.replace(/^https?:\/\//, '')

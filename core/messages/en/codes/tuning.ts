import { capital } from '../../format.ts'
import { messages } from '../../messages.ts'

/** The smallest change of one setting that would let a target trigger, or stop it. */
export const tuning = messages({
  change: (setting: string, from: string, to: string) => `${capital(setting)} ${from} → ${to}`,
  newLimit: (setting: string, to: string) => `${capital(setting)} ${to}`,
  classToo: (cls: string) => `Count ${cls} too`,
  notClass: (cls: string) => `Don’t count ${cls}`,
  armedToo: (schedule: string, from: string, to: string, day: string) =>
    `${schedule}: also armed ${from} to ${to} on ${day}`,
  startsEarlier: (schedule: string, from: string, was: string, day: string) =>
    `${schedule}: starts ${from} instead of ${was} on ${day}`,
  endsLater: (schedule: string, to: string, was: string, day: string) =>
    `${schedule}: ends ${to} instead of ${was} on ${day}`,
  bothDirections: 'Count both directions',
  onlyOtherDirection: 'Count only the other direction',
  otherDirection: 'Count the other direction',
  firstSeenInside: 'Count targets first seen inside',
  anyMask: 'With or without a mask',
  anyFace: 'Any face'
})

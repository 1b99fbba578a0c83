import { capital, count, list } from '../../format.ts'
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
  anyFace: 'Any face',
  onlyClasses: (classes: readonly string[]) => `Count ${list(classes)} only`,
  everyClass: 'Count every class',
  shapeMoved: 'The shape is moved a little',
  moreIgnored: (areas: number) =>
    `${count(areas, 'ignore area')} over ${areas === 1 ? 'a place' : 'places'} of nuisances`,
  tooFewMarks: (wanted: number, nuisances: number, least: number) =>
    `Too little to go by: ${count(wanted, 'wanted mark')} and ${count(nuisances, 'nuisance mark')}, at least ${least} of each are needed. Mark ${
      wanted < least && nuisances < least
        ? 'triggers of both kinds'
        : wanted < least
          ? 'triggers that you want'
          : 'triggers that are nuisances'
    }, on several days.`,
  nothingBetter: 'No other settings keep what is wanted and leave fewer nuisances.',
  betterOnDaysLeftOut: (
    kept: number,
    wanted: number,
    gone: number,
    nuisances: number,
    days: number
  ) =>
    `On days left out: ${kept} of ${wanted} wanted kept, ${gone} of ${nuisances} nuisances gone, over ${count(days, 'day')}.`,
  betterOnMarks: (
    kept: number,
    wanted: number,
    gone: number,
    nuisances: number,
    days: number,
    least: number
  ) =>
    `${kept} of ${wanted} wanted kept, ${gone} of ${nuisances} nuisances gone. Not checked on other days: the marks are of ${count(days, 'day')}, and ${least} are needed for that.`
})

import { settingSeconds } from '../messages/format.ts'
import { stayChips, stayWords as msg, zoneSentence } from '../messages/en/kinds/parts.ts'
import type { StayDetection, ZoneDetection } from './schemas.ts'
import { bodyWords, filledIn, whoWords } from './words.ts'

/** A stay in a zone, for the rail. */
export const stayRail = (d: StayDetection, verb: string): [before: string, after: string] => [
  msg.together(d.atLeast, whoWords(d), verb),
  msg.after(d.dwellSeconds ? settingSeconds(d.dwellSeconds) : null, bodyWords(d.sensitivity))
]

/** What happens in a zone, as the sentence begins. */
export const zoneWhat = (d: ZoneDetection, verb: string, isInside = true): string =>
  filledIn(isInside ? zoneSentence.whoDoesZoneOverlap : zoneSentence.whoDoesZoneOverlapOut, {
    who: whoWords(d),
    does: verb,
    zone: d.name,
    overlap: bodyWords(d.sensitivity)
  })

export const dwellWords = (d: StayDetection): string[] =>
  d.dwellSeconds > 0 || !d.countFirstSeenInside
    ? [stayChips.for(settingSeconds(d.dwellSeconds))]
    : []

export const togetherWords = (d: StayDetection): string[] =>
  d.atLeast > 1 ? [stayChips.atATime(d.atLeast)] : []

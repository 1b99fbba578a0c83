import { settingSeconds } from '../../core/messages/format.ts'
import { stayWords as msg } from '../../core/messages/en/kinds/parts.ts'
import type { StayDetection } from '../../core/kinds/schemas.ts'
import { bodyWords, whoWords } from './words.ts'

/** A stay in a zone, for the rail. */
export const stayRail = (d: StayDetection, verb: string): [before: string, after: string] => [
  msg.together(d.atLeast, whoWords(d), verb),
  msg.after(d.dwellSeconds ? settingSeconds(d.dwellSeconds) : null, bodyWords(d.sensitivity))
]

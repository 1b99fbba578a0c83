import { stayWords as msg } from '../../core/messages/en/kinds/parts.ts'
import type { StayDetection } from '../../core/kinds/schemas.ts'
import { bodyWords, capital, classWords, secondsWords } from './words.ts'

/** A stay in a zone, for the rail. */
export const stayRail = (d: StayDetection, verb: string): [before: string, after: string] => [
  msg.of(d.atLeast, capital(classWords(d)), verb),
  msg.for(d.dwellSeconds, secondsWords(d.dwellSeconds), bodyWords(d.sensitivity))
]

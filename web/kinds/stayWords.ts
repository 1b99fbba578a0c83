import type { StayDetection } from '../../core/kinds/schemas.ts'
import { bodyWords, capital, classWords, secondsWords } from './words.ts'

/** A stay in a zone, for the rail. */
export const stayRail = (d: StayDetection, verb: string): [before: string, after: string] => [
  `${d.atLeast > 1 ? `${d.atLeast} of ` : ''}${capital(classWords(d))} ${verb} `,
  `${d.dwellSeconds ? ` for ${secondsWords(d.dwellSeconds)}` : ''}, ${bodyWords(d.sensitivity)}`
]

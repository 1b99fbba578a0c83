import type { EntryDetection } from '../../../core/kinds/entry/schema.ts'
import { bodyWords, capital, classWords, type KindWords } from '../words.ts'

/** What a target does. */
export const entryVerb = 'enters'

export const entryWords: KindWords<EntryDetection> = {
  name: 'Zone entry',
  meaning: 'somebody comes in from outside',
  rail: (d) => [`${capital(classWords(d))} ${entryVerb} `, `, ${bodyWords(d.sensitivity)}`],
  start: { name: 'Zone' }
}

import type { ExitDetection } from '../../../core/kinds/exit/schema.ts'
import { bodyWords, capital, classWords, type KindWords } from '../words.ts'

/** What a target does. */
export const exitVerb = 'leaves'

export const exitWords: KindWords<ExitDetection> = {
  name: 'Zone exit',
  meaning: 'somebody who was in it goes out',
  rail: (d) => [`${capital(classWords(d))} ${exitVerb} `, `, ${bodyWords(d.sensitivity)}`],
  start: { name: 'Zone' }
}

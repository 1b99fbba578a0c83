import { common } from '../../../core/messages/en/common.ts'
import { words as msg } from '../../../core/messages/en/kinds/exit.ts'
import type { ExitDetection } from '../../../core/kinds/exit/schema.ts'
import { bodyWords, capital, classWords, type KindWords } from '../words.ts'

/** What a target does. */
export const exitVerb = 'leaves'

export const exitWords: KindWords<ExitDetection> = {
  name: msg.zoneExit,
  meaning: msg.somebodyWhoWasInIt,
  rail: (d) => [`${capital(classWords(d))} ${exitVerb} `, `, ${bodyWords(d.sensitivity)}`],
  start: { name: common.zone }
}

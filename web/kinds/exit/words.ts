import { common } from '../../../core/messages/en/common.ts'
import { words as msg } from '../../../core/messages/en/kinds/exit.ts'
import type { ExitDetection } from '../../../core/kinds/exit/schema.ts'
import { bodyWords, whoWords, type KindWords } from '../words.ts'

/** What a target does. */
export const exitVerb = msg.leaves

export const exitWords: KindWords<ExitDetection> = {
  name: msg.zoneExit,
  meaning: msg.aTargetThatWas,
  rail: (d) => [`${whoWords(d)} ${exitVerb} `, `, ${bodyWords(d.sensitivity)}`],
  start: { name: common.zone }
}

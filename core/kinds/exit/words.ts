import { common } from '../../messages/en/common.ts'
import { words as msg } from '../../messages/en/kinds/exit.ts'
import type { ExitDetection } from './schema.ts'
import { zoneWhat } from '../stayWords.ts'
import { bodyWords, targetConditionWords, whoWords, type KindWords } from '../words.ts'

/** What a target does. */
export const exitVerb = msg.leaves

export const exitWords: KindWords<ExitDetection> = {
  name: msg.zoneExit,
  meaning: msg.aTargetThatWas,
  rail: (d) => [`${whoWords(d)} ${exitVerb} `, `, ${bodyWords(d.sensitivity)}`],
  what: (d) => zoneWhat(d, exitVerb, false),
  conditions: targetConditionWords,
  start: { name: common.zone }
}

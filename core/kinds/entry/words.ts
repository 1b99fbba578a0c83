import { common } from '../../messages/en/common.ts'
import { words as msg } from '../../messages/en/kinds/entry.ts'
import type { EntryDetection } from './schema.ts'
import { zoneWhat } from '../stayWords.ts'
import { bodyWords, targetConditionWords, whoWords, type KindWords } from '../words.ts'

/** What a target does. */
export const entryVerb = msg.enters

export const entryWords: KindWords<EntryDetection> = {
  name: msg.zoneEntry,
  meaning: msg.aTargetComesIn,
  rail: (d) => [`${whoWords(d)} ${entryVerb} `, `, ${bodyWords(d.sensitivity)}`],
  what: (d) => zoneWhat(d, entryVerb),
  conditions: targetConditionWords,
  start: { name: common.zone }
}

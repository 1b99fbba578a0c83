import { common } from '../../../core/messages/en/common.ts'
import { words as msg } from '../../../core/messages/en/kinds/entry.ts'
import type { EntryDetection } from '../../../core/kinds/entry/schema.ts'
import { bodyWords, whoWords, type KindWords } from '../words.ts'

/** What a target does. */
export const entryVerb = msg.enters

export const entryWords: KindWords<EntryDetection> = {
  name: msg.zoneEntry,
  meaning: msg.aTargetComesIn,
  rail: (d) => [`${whoWords(d)} ${entryVerb} `, `, ${bodyWords(d.sensitivity)}`],
  start: { name: common.zone }
}

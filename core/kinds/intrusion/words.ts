import { common } from '../../messages/en/common.ts'
import { words as msg } from '../../messages/en/kinds/intrusion.ts'
import { dwellWords, stayRail, togetherWords, zoneWhat } from '../stayWords.ts'
import type { IntrusionDetection } from './schema.ts'
import { targetConditionWords, type KindWords } from '../words.ts'

/** What a target does in the zone. */
export const intrusionVerb = msg.isIn

export const intrusionWords: KindWords<IntrusionDetection> = {
  name: msg.intrusion,
  meaning: msg.aTargetIsInside,
  rail: (d) => stayRail(d, intrusionVerb),
  what: (d) => zoneWhat(d, intrusionVerb),
  conditions: (d) => [...dwellWords(d), ...togetherWords(d), ...targetConditionWords(d)],
  // Long enough that one who only passes is not meant; the clip's own passers-by are shown beside it.
  start: { name: common.zone, settings: () => ({ dwellSeconds: 3 }) }
}

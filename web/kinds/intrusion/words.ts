import { common } from '../../../core/messages/en/common.ts'
import { words as msg } from '../../../core/messages/en/kinds/intrusion.ts'
import { stayRail } from '../stayWords.ts'
import type { IntrusionDetection } from '../../../core/kinds/intrusion/schema.ts'
import { type KindWords } from '../words.ts'

/** What a target does in the zone. */
export const intrusionVerb = msg.isIn

export const intrusionWords: KindWords<IntrusionDetection> = {
  name: msg.intrusion,
  meaning: msg.aTargetIsInside,
  rail: (d) => stayRail(d, intrusionVerb),
  // Long enough that one who only passes is not meant; the clip's own passers-by are shown beside it.
  start: { name: common.zone, settings: () => ({ dwellSeconds: 3 }) }
}

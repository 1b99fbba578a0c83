import { common } from '../../../core/messages/en/common.ts'
import { words as msg } from '../../../core/messages/en/kinds/loitering.ts'
import { stayRail } from '../stayWords.ts'
import type { LoiteringDetection } from '../../../core/kinds/loitering/schema.ts'
import { type KindWords } from '../words.ts'

/** What a target does in the zone. */
export const loiteringVerb = msg.lingersIn

export const loiteringWords: KindWords<LoiteringDetection> = {
  name: msg.loitering,
  meaning: msg.aTargetLingersShort,
  rail: (d) => stayRail(d, loiteringVerb),
  start: { name: common.zone, settings: () => ({ dwellSeconds: 30 }) }
}

import { common } from '../../messages/en/common.ts'
import { settingSeconds } from '../../messages/format.ts'
import { sentence, words as msg } from '../../messages/en/kinds/loitering.ts'
import { dwellWords, stayRail, togetherWords, zoneWhat } from '../stayWords.ts'
import type { LoiteringDetection } from './schema.ts'
import { targetConditionWords, type KindWords } from '../words.ts'

/** What a target does in the zone. */
export const loiteringVerb = msg.lingersIn

export const loiteringWords: KindWords<LoiteringDetection> = {
  name: msg.loitering,
  meaning: msg.aTargetLingersShort,
  rail: (d) => stayRail(d, loiteringVerb),
  what: (d) => zoneWhat(d, loiteringVerb),
  conditions: (d) => [
    ...dwellWords(d),
    sentence.outsideAtMost(settingSeconds(d.graceSeconds)),
    ...togetherWords(d),
    ...targetConditionWords(d)
  ],
  start: { name: common.zone, settings: () => ({ dwellSeconds: 30 }) }
}

import { stayRail } from '../stayWords.ts'
import type { IntrusionDetection } from '../../../core/kinds/intrusion/schema.ts'
import { type KindWords } from '../words.ts'

/** What a target does in the zone. */
export const intrusionVerb = 'is in'

export const intrusionWords: KindWords<IntrusionDetection> = {
  name: 'Intrusion',
  meaning: 'somebody is in it for as long as the dwell',
  rail: (d) => stayRail(d, intrusionVerb),
  // Long enough that one who only passes is not meant; the clip's own passers-by are shown beside it.
  start: { name: 'Zone', settings: () => ({ dwellSeconds: 3 }) }
}

import { stayRail } from '../stayWords.ts'
import type { LoiteringDetection } from '../../../core/kinds/loitering/schema.ts'
import { type KindWords } from '../words.ts'

/** What a target does in the zone. */
export const loiteringVerb = 'lingers in'

export const loiteringWords: KindWords<LoiteringDetection> = {
  name: 'Loitering',
  meaning: 'somebody lingers, also with short absences',
  rail: (d) => stayRail(d, loiteringVerb),
  start: { name: 'Zone', settings: () => ({ dwellSeconds: 30 }) }
}

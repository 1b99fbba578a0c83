import type { RuleOf } from '../rule.ts'
import { blankZone, readZone } from '../zoneRule.ts'
import type { EntryDetection } from './schema.ts'

/** Zone entry as a rule of a device's own. */
export const entryRule: RuleOf<EntryDetection> = {
  type: 'wo:EntryDetector',
  blank: blankZone,
  write: (d) => d.zone,
  read: (_, from) => readZone(from)
}

import type { RuleOf } from '../rule.ts'
import { blankZone, readZone } from '../zoneRule.ts'
import type { ExitDetection } from './schema.ts'

/** Zone exit as a rule of a device's own. */
export const exitRule: RuleOf<ExitDetection> = {
  type: 'wo:ExitDetector',
  blank: blankZone,
  write: (d) => d.zone,
  read: (_, from) => readZone(from)
}

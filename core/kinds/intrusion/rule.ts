import { duration } from '../../formats/onvif/durations.ts'
import type { RuleOf } from '../rule.ts'
import { writeStay } from '../stayRule.ts'
import { blankZone, readZone } from '../zoneRule.ts'
import type { IntrusionDetection } from './schema.ts'

/** Intrusion as the standard's field detector. */
export const intrusionRule: RuleOf<IntrusionDetection> = {
  type: 'tt:FieldDetector',
  blank: blankZone,
  write: (d, to) => {
    if (d.dwellSeconds > 0) to.number('TimeThreshold', 'dwell', d.dwellSeconds, 'seconds', duration)
    writeStay(d, to)
    return d.zone
  },
  read: (_, from) => ({ ...readZone(from), ...from.seconds('TimeThreshold', 'dwellSeconds') })
}

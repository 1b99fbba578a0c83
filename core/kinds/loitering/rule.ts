import { duration } from '../../formats/onvif/durations.ts'
import type { RuleOf } from '../rule.ts'
import { writeStay } from '../stayRule.ts'
import { blankZone, readZone } from '../zoneRule.ts'
import type { LoiteringDetection } from './schema.ts'

/** Loitering as the standard's loitering detector. */
export const loiteringRule: RuleOf<LoiteringDetection> = {
  type: 'tt:LoiteringDetector',
  blank: { ...blankZone, dwellSeconds: 1 },
  write: (d, to) => {
    to.number('TimeThreshold', 'dwell', d.dwellSeconds, 'seconds', duration)
    // A device that has none uses one of about this length.
    if (to.takes('GraceTime') || d.graceSeconds !== 10)
      to.number('GraceTime', 'grace', d.graceSeconds, 'seconds', duration)
    writeStay(d, to)
    return d.zone
  },
  read: (_, from) => ({
    ...readZone(from),
    ...from.seconds('TimeThreshold', 'dwellSeconds'),
    ...from.seconds('GraceTime', 'graceSeconds')
  })
}

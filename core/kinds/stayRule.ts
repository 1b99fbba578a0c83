import type { StayDetection } from './schemas.ts'
import type { RuleWriter } from './rule.ts'

/** What no device has a parameter for, of a stay in a zone. */
export function writeStay(d: StayDetection, to: RuleWriter): void {
  if (d.atLeast > 1) to.lose('number together', String(d.atLeast), '1')
  if (!d.countFirstSeenInside) to.lose('who is first seen inside', 'not counted', 'counted')
}

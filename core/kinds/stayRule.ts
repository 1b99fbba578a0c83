import { said } from '../messages/said.ts'
import type { StayDetection } from './schemas.ts'
import type { RuleWriter } from './rule.ts'

/** What no device has a parameter for, of a stay in a zone. */
export function writeStay(d: StayDetection, to: RuleWriter): void {
  if (d.atLeast > 1) to.lose('together', said('values.number', d.atLeast), said('values.number', 1))
  if (!d.countFirstSeenInside)
    to.lose('firstSeenInside', said('values.notCounted'), said('values.counted'))
}

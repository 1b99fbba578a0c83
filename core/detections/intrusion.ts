import type { IntrusionDetection } from '../formats/plan.ts'
import type { Gates } from './gates.ts'
import { StayRun } from './stay.ts'

/** Seconds for which an intrusion's stay goes on through rows out. */
const GRACE = 1

/** Intrusion (docs/detections.md): a stay with a fixed, short grace. */
export const intrusion = (detection: IntrusionDetection, gates: Gates): StayRun =>
  new StayRun(detection, GRACE, gates)

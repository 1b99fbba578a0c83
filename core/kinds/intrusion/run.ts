import type { IntrusionDetection } from './schema.ts'
import type { Gates } from '../../detections/gates.ts'
import { StayRun } from '../stay.ts'

/** Seconds for which an intrusion's stay goes on through rows out. */
export const INTRUSION_GRACE = 1

/** Intrusion (docs/detections.md): a stay with a fixed, short grace. */
export const intrusion = (detection: IntrusionDetection, gates: Gates): StayRun =>
  new StayRun(detection, INTRUSION_GRACE, gates)

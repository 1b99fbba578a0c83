import type { LoiteringDetection } from './schema.ts'
import type { Gates } from '../../detections/gates.ts'
import { StayRun } from '../stay.ts'

/** Loitering (docs/detections.md): a stay with a grace of its own. */
export const loitering = (detection: LoiteringDetection, gates: Gates): StayRun =>
  new StayRun(detection, detection.graceSeconds, gates)

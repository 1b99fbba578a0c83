import type { LoiteringDetection } from '../formats/plan.ts'
import type { Gates } from './gates.ts'
import { StayRun } from './stay.ts'

/** Loitering (docs/detections.md): a stay with a grace of its own. */
export const loitering = (detection: LoiteringDetection, gates: Gates): StayRun =>
  new StayRun(detection, detection.graceSeconds, gates)

import type { EntryDetection } from './schema.ts'
import type { Gates } from '../../detections/gates.ts'
import { PassageRun } from '../passage.ts'

/** Zone entry (docs/detections.md): the passage of the share in the zone. */
export const entry = (detection: EntryDetection, gates: Gates): PassageRun =>
  new PassageRun(detection, (inside) => inside, ['inZone', 'outOfZone'], gates)

import type { ExitDetection } from './schema.ts'
import type { Gates } from '../../detections/gates.ts'
import { PassageRun } from '../passage.ts'

/** Zone exit (docs/detections.md): the passage of the share out of the zone. */
export const exit = (detection: ExitDetection, gates: Gates): PassageRun =>
  new PassageRun(detection, (inside) => 1 - inside, ['outOfZone', 'inZone'], gates)

import type { DetectionKind } from '../core/formats/plan.ts'

/** The kinds of detections as the trade calls them. */
export const kindNames: Record<DetectionKind, string> = {
  line: 'Line crossing',
  intrusion: 'Intrusion',
  entry: 'Zone entry',
  exit: 'Zone exit',
  loitering: 'Loitering',
  motion: 'Motion',
  classMotion: 'Motion by class',
  tamper: 'Tamper',
  signalLoss: 'Signal loss',
  contact: 'Contact input',
  face: 'Face'
}

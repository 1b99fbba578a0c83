import type { DetectionKind } from './schemas.ts'

/** What a kind needs as evidence: targets, faces on them, pictures with targets, measures of pictures, or inputs. */
const shown: Record<DetectionKind, 'targets' | 'faces' | 'pictures' | 'measures' | 'inputs'> = {
  line: 'targets',
  intrusion: 'targets',
  entry: 'targets',
  exit: 'targets',
  loitering: 'targets',
  motion: 'pictures',
  classMotion: 'pictures',
  tamper: 'measures',
  signalLoss: 'measures',
  contact: 'inputs',
  face: 'faces'
}

export const shownTo = (kind: DetectionKind): (typeof shown)[DetectionKind] => shown[kind]

import { messages } from '../../messages.ts'

/** Kinds of detections, within a sentence. */
export const kindNames = messages({
  line: 'line crossing',
  intrusion: 'intrusion',
  loitering: 'loitering',
  entry: 'zone entry',
  exit: 'zone exit',
  motion: 'motion',
  classMotion: 'motion by class',
  face: 'face',
  tamper: 'tamper',
  signalLoss: 'video loss',
  contact: 'contact input'
})

/** How severe an alarm is. */
export const severities = messages({
  information: 'information',
  minor: 'minor',
  major: 'major',
  critical: 'critical'
})

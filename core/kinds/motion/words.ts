import { sentence, words as msg } from '../../messages/en/kinds/motion.ts'
import type { MotionDetection } from './schema.ts'
import { movingWhat } from '../movingWords.ts'
import { cellWords, percentWords, type KindWords } from '../words.ts'

export const motionWords: KindWords<MotionDetection> = {
  name: msg.motion,
  rail: (d) => [msg.motionIn, msg.of(percentWords(d.threshold), cellWords(d))],
  what: (d) => movingWhat(d, sentence.motion),
  start: { name: msg.allMovement, settings: () => ({ holdOffSeconds: 5 }) }
}

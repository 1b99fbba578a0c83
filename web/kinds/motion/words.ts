import { words as msg } from '../../../core/messages/en/kinds/motion.ts'
import type { MotionDetection } from '../../../core/kinds/motion/schema.ts'
import { cellWords, percentWords, type KindWords } from '../words.ts'

export const motionWords: KindWords<MotionDetection> = {
  name: msg.motion,
  rail: (d) => [msg.motionIn, msg.of(percentWords(d.threshold), cellWords(d))],
  start: { name: msg.allMovement, settings: () => ({ holdOffSeconds: 5 }) }
}

import { sentence as msg } from '../../../core/messages/en/kinds/motion.ts'
import type { MotionDetection } from '../../../core/kinds/motion/schema.ts'
import { MovingSentence } from '../MovingSentence.tsx'
import type { KindSentence } from '../sentence.ts'

export const motionSentence: KindSentence<MotionDetection> = {
  What: (props) => <MovingSentence {...props} what={msg.motion} />
}

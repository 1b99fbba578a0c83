import { sentence as msg } from '../../../core/messages/en/kinds/motion.ts'
import type { ReactNode } from 'react'
import type { MotionDetection } from '../../../core/kinds/motion/schema.ts'
import { MovingSentence } from '../MovingSentence.tsx'
import type { SentenceOf } from '../sentence.ts'

export const MotionSentence = (props: SentenceOf<MotionDetection>): ReactNode => (
  <MovingSentence {...props} what={msg.motion} />
)

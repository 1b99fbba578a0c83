import type { MotionDetection } from '../../../core/kinds/motion/schema.ts'
import { cellWords, percentWords, type KindWords } from '../words.ts'

export const motionWords: KindWords<MotionDetection> = {
  name: 'Motion',
  rail: (d) => ['Motion, ', `: ${percentWords(d.threshold)} of ${cellWords(d)}`],
  start: { name: 'All movement', settings: () => ({ holdOffSeconds: 5 }) }
}

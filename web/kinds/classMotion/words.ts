import { words as msg } from '../../../core/messages/en/kinds/classMotion.ts'
import type { ClassMotionDetection } from '../../../core/kinds/classMotion/schema.ts'
import { cellWords, whoWords, percentWords, type KindWords } from '../words.ts'

export const classMotionWords: KindWords<ClassMotionDetection> = {
  name: msg.motionByClass,
  rail: (d) => [msg.inMotion(whoWords(d)), msg.of(percentWords(d.threshold), cellWords(d))],
  start: { name: msg.peopleMoving, settings: () => ({ classes: ['person'], confirmSeconds: 0.3 }) }
}

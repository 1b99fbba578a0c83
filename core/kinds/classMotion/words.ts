import { sentence, words as msg } from '../../messages/en/kinds/classMotion.ts'
import type { ClassMotionDetection } from './schema.ts'
import { movingWhat } from '../movingWords.ts'
import {
  cellWords,
  filledIn,
  percentWords,
  targetConditionWords,
  whoWords,
  type KindWords
} from '../words.ts'

export const classMotionWords: KindWords<ClassMotionDetection> = {
  name: msg.motionByClass,
  rail: (d) => [msg.inMotion(whoWords(d)), msg.of(percentWords(d.threshold), cellWords(d))],
  what: (d) => movingWhat(d, filledIn(sentence.whoInMotion, { who: whoWords(d) })),
  conditions: targetConditionWords,
  start: { name: msg.peopleMoving, settings: () => ({ classes: ['person'], confirmSeconds: 0.3 }) }
}

import type { ClassMotionDetection } from '../../../core/kinds/classMotion/schema.ts'
import { capital, cellWords, classWords, percentWords, type KindWords } from '../words.ts'

export const classMotionWords: KindWords<ClassMotionDetection> = {
  name: 'Motion by class',
  rail: (d) => [
    `${capital(classWords(d))} in motion, `,
    `: ${percentWords(d.threshold)} of ${cellWords(d)}`
  ],
  start: { name: 'People moving', settings: () => ({ classes: ['person'], confirmSeconds: 0.3 }) }
}

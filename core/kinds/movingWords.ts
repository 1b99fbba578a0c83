import { common } from '../messages/en/common.ts'
import { movingSentence as msg } from '../messages/en/kinds/parts.ts'
import { settingSeconds } from '../messages/format.ts'
import type { ClassMotionDetection, MotionDetection } from './schemas.ts'
import { cellWords, filledIn, percentWords } from './words.ts'

/** What both kinds of motion say, as the sentence begins; `what` is it that moves. */
export const movingWhat = (d: MotionDetection | ClassMotionDetection, what: string): string =>
  filledIn(msg.moves(cellWords(d)), {
    what,
    name: d.name,
    share: percentWords(d.threshold),
    sensitivity: common.sensitivityOf(d.sensitivity),
    delay: settingSeconds(d.onDelaySeconds)
  })

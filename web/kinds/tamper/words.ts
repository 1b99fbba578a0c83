import { words as msg } from '../../../core/messages/en/kinds/tamper.ts'
import { causeWords } from '../../../core/detections/index.ts'
import { TAMPER_CAUSES, type TamperDetection } from '../../../core/kinds/tamper/schema.ts'
import { listed, secondsWords, type KindWords } from '../words.ts'

export const causesWords = ({ causes }: TamperDetection): string =>
  causes.length === TAMPER_CAUSES.length
    ? msg.coveredDarkWashedOutOut
    : listed(causes.map((cause) => causeWords[cause]))

export const tamperWords: KindWords<TamperDetection> = {
  name: msg.tamper,
  rail: (d) => ['Tamper, ', msg.for(causesWords(d), secondsWords(d.delaySeconds))],
  start: { name: msg.cameraCare }
}

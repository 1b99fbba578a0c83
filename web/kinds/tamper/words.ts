import { causeWords } from '../../../core/detections/index.ts'
import { TAMPER_CAUSES, type TamperDetection } from '../../../core/kinds/tamper/schema.ts'
import { listed, secondsWords, type KindWords } from '../words.ts'

export const causesWords = ({ causes }: TamperDetection): string =>
  causes.length === TAMPER_CAUSES.length
    ? 'covered, dark, washed out, out of focus or moved'
    : listed(causes.map((cause) => causeWords[cause]))

export const tamperWords: KindWords<TamperDetection> = {
  name: 'Tamper',
  rail: (d) => ['Tamper, ', `: ${causesWords(d)} for ${secondsWords(d.delaySeconds)}`],
  start: { name: 'Camera care' }
}

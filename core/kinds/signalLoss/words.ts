import { settingSeconds } from '../../messages/format.ts'
import { sentence, words as msg } from '../../messages/en/kinds/signalLoss.ts'
import type { SignalLossDetection } from './schema.ts'
import { filledIn, type KindWords } from '../words.ts'

export const signalLossWords: KindWords<SignalLossDetection> = {
  name: msg.videoLoss,
  rail: (d) => [msg.noPicture, msg.for(settingSeconds(d.delaySeconds))],
  what: (d) =>
    filledIn(sentence.noNewPicture, { name: d.name, delay: settingSeconds(d.delaySeconds) }),
  start: { name: msg.videoLoss }
}

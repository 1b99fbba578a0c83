import { settingSeconds } from '../../../core/messages/format.ts'
import { words as msg } from '../../../core/messages/en/kinds/signalLoss.ts'
import type { SignalLossDetection } from '../../../core/kinds/signalLoss/schema.ts'
import { type KindWords } from '../words.ts'

export const signalLossWords: KindWords<SignalLossDetection> = {
  name: msg.videoLoss,
  rail: (d) => [msg.noPicture, msg.for(settingSeconds(d.delaySeconds))],
  start: { name: msg.videoLoss }
}

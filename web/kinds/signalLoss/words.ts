import type { SignalLossDetection } from '../../../core/kinds/signalLoss/schema.ts'
import { secondsWords, type KindWords } from '../words.ts'

export const signalLossWords: KindWords<SignalLossDetection> = {
  name: 'Signal loss',
  rail: (d) => ['No picture, ', `: for ${secondsWords(d.delaySeconds)}`],
  start: { name: 'Picture lost' }
}

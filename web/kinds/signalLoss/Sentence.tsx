import type { ReactNode } from 'react'
import type { SignalLossDetection } from '../../../core/kinds/signalLoss/schema.ts'
import { Chip } from '../Chip.tsx'
import { DelayEditor } from '../DelayEditor.tsx'
import { NameChip } from '../chips.tsx'
import type { SentenceOf } from '../sentence.ts'
import { secondsWords } from '../words.ts'

export function SignalLossSentence(props: SentenceOf<SignalLossDetection>): ReactNode {
  const { detection: d, document } = props
  return (
    <>
      <NameChip detection={d} document={document} />: no new picture for{' '}
      <Chip
        what="Delay"
        editor={(close) => (
          <DelayEditor
            detection={d}
            document={document}
            close={close}
            least={0.5}
            help="How long no new picture may come."
          />
        )}
      >
        {secondsWords(d.delaySeconds)}
      </Chip>
    </>
  )
}

import { common } from '../../../core/messages/en/common.ts'
import { sentence as msg } from '../../../core/messages/en/kinds/signalLoss.ts'
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
      <NameChip detection={d} document={document} />
      {msg.noNewPictureFor}{' '}
      <Chip
        what={common.delay}
        editor={(close) => (
          <DelayEditor
            detection={d}
            document={document}
            close={close}
            least={0.5}
            help={msg.howLongNoNewPicture}
          />
        )}
      >
        {secondsWords(d.delaySeconds)}
      </Chip>
    </>
  )
}

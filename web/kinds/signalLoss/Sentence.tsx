import { settingSeconds } from '../../../core/messages/format.ts'
import { common } from '../../../core/messages/en/common.ts'
import { sentence as msg } from '../../../core/messages/en/kinds/signalLoss.ts'
import type { SignalLossDetection } from '../../../core/kinds/signalLoss/schema.ts'
import { Rich } from '../../words/Rich.tsx'
import { Chip } from '../Chip.tsx'
import { NameChip } from '../chips.tsx'
import type { KindSentence } from '../sentence.ts'
import { DelayEditor } from '../chipEditors.ts'

export const signalLossSentence: KindSentence<SignalLossDetection> = {
  What: ({ detection: d, document }) => (
    <Rich
      text={msg.noNewPicture}
      parts={{
        name: <NameChip detection={d} document={document} />,
        delay: (
          <Chip
            what={common.delay}
            editor={(close) => (
              <DelayEditor
                detection={d}
                document={document}
                close={close}
                least={0.5}
                help={msg.howLong}
              />
            )}
          >
            {settingSeconds(d.delaySeconds)}
          </Chip>
        )
      }}
    />
  )
}

import { settingSeconds } from '../../../core/messages/format.ts'
import { common } from '../../../core/messages/en/common.ts'
import { sentence as msg } from '../../../core/messages/en/kinds/tamper.ts'
import { severities } from '../../../core/messages/en/codes/names.ts'
import type { TamperDetection } from '../../../core/kinds/tamper/schema.ts'
import { Rich } from '../../words/Rich.tsx'
import { Chip } from '../Chip.tsx'
import { NameChip } from '../chips.tsx'
import type { KindSentence } from '../sentence.ts'
import { causesWords } from '../../../core/kinds/tamper/words.ts'
import {
  CausesEditor,
  DelayEditor,
  SeverityEditor,
  TamperSensitivityEditor
} from '../chipEditors.ts'

export const tamperSentence: KindSentence<TamperDetection> = {
  What: ({ detection: d, document }) => (
    <Rich
      text={msg.cameraIs}
      parts={{
        name: <NameChip detection={d} document={document} />,
        causes: (
          <Chip
            what={msg.causes}
            editor={(close) => <CausesEditor detection={d} document={document} close={close} />}
          >
            {causesWords(d)}
          </Chip>
        ),
        delay: (
          <Chip
            what={common.delay}
            editor={(close) => (
              <DelayEditor
                detection={d}
                document={document}
                close={close}
                least={0}
                help={msg.howLong}
              />
            )}
          >
            {settingSeconds(d.delaySeconds)}
          </Chip>
        ),
        sensitivity: (
          <Chip
            what={common.sensitivity}
            editor={(close) => (
              <TamperSensitivityEditor detection={d} document={document} close={close} />
            )}
          >
            {common.sensitivityOf(d.sensitivity)}
          </Chip>
        ),
        severity: (
          <Chip
            what={common.severity}
            editor={(close) => <SeverityEditor detection={d} document={document} close={close} />}
          >
            {severities[d.severity]}
          </Chip>
        )
      }}
    />
  )
}

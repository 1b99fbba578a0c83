import { common } from '../../../core/messages/en/common.ts'
import { sentence as msg } from '../../../core/messages/en/kinds/tamper.ts'
import type { ReactNode } from 'react'
import type { TamperDetection } from '../../../core/kinds/tamper/schema.ts'
import { Chip } from '../Chip.tsx'
import { DelayEditor } from '../DelayEditor.tsx'
import { NameChip } from '../chips.tsx'
import type { SentenceOf } from '../sentence.ts'
import { secondsWords } from '../words.ts'
import { CausesEditor, SeverityEditor, TamperSensitivityEditor } from './editors.tsx'
import { causesWords } from './words.ts'

export function TamperSentence(props: SentenceOf<TamperDetection>): ReactNode {
  const { detection: d, document } = props
  return (
    <>
      <NameChip detection={d} document={document} />
      {msg.theCameraIs}{' '}
      <Chip
        what={msg.causes}
        editor={(close) => <CausesEditor detection={d} document={document} close={close} />}
      >
        {causesWords(d)}
      </Chip>
      {msg.at}{' '}
      <Chip
        what={common.sensitivity}
        editor={(close) => (
          <TamperSensitivityEditor detection={d} document={document} close={close} />
        )}
      >
        {msg.sensitivity2(d.sensitivity)}
      </Chip>
      {common.for}{' '}
      <Chip
        what={common.delay}
        editor={(close) => (
          <DelayEditor
            detection={d}
            document={document}
            close={close}
            least={0}
            help={msg.howLongACauseMust}
          />
        )}
      >
        {secondsWords(d.delaySeconds)}
      </Chip>
      {msg.whichIs}{' '}
      <Chip
        what={msg.severity}
        editor={(close) => <SeverityEditor detection={d} document={document} close={close} />}
      >
        {d.severity}
      </Chip>
    </>
  )
}

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
      <NameChip detection={d} document={document} />: the camera is{' '}
      <Chip
        what="Causes"
        editor={(close) => <CausesEditor detection={d} document={document} close={close} />}
      >
        {causesWords(d)}
      </Chip>
      , at{' '}
      <Chip
        what="Sensitivity"
        editor={(close) => (
          <TamperSensitivityEditor detection={d} document={document} close={close} />
        )}
      >{`sensitivity ${d.sensitivity}`}</Chip>
      , for{' '}
      <Chip
        what="Delay"
        editor={(close) => (
          <DelayEditor
            detection={d}
            document={document}
            close={close}
            least={0}
            help="How long a cause must hold. A truck that stops in front of the camera is gone by then."
          />
        )}
      >
        {secondsWords(d.delaySeconds)}
      </Chip>
      , which is{' '}
      <Chip
        what="Severity"
        editor={(close) => <SeverityEditor detection={d} document={document} close={close} />}
      >
        {d.severity}
      </Chip>
    </>
  )
}

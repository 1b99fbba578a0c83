import { said } from '../../core/messages/said.ts'
import { common } from '../../core/messages/en/common.ts'
import type { ReactNode } from 'react'
import type { SignalLossDetection, TamperDetection } from '../../core/formats/plan.ts'
import { SecondsEditor, type EditorProps } from './editors.tsx'

/** How long something must have held before it counts. */
export function DelayEditor({
  detection,
  document,
  least,
  help
}: EditorProps<TamperDetection | SignalLossDetection> & {
  /** The shortest that the kind allows, seconds. */
  least: number
  help: string
}): ReactNode {
  return (
    <SecondsEditor
      label={common.delay}
      min={least}
      value={detection.delaySeconds}
      max={600}
      help={help}
      onChange={(delaySeconds) =>
        document.edit({ ...detection, delaySeconds }, said('edits.changeTheDelay'))
      }
    />
  )
}

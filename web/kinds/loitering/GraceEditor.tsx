import { said } from '../../../core/messages/said.ts'
import { graceEditor as msg } from '../../../core/messages/en/kinds/loitering.ts'
import type { ReactNode } from 'react'
import type { LoiteringDetection } from '../../../core/kinds/loitering/schema.ts'
import { SecondsEditor, type EditorProps } from '../editors.tsx'

export function GraceEditor({ detection, document }: EditorProps<LoiteringDetection>): ReactNode {
  return (
    <SecondsEditor
      parameter="GraceTime"
      label={msg.graceTime}
      value={detection.graceSeconds}
      max={120}
      help={msg.aTargetThatIs}
      onChange={(graceSeconds) =>
        document.edit({ ...detection, graceSeconds }, said('edits.changeTheGrace'))
      }
    />
  )
}

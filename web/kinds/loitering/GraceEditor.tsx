import type { ReactNode } from 'react'
import type { LoiteringDetection } from '../../../core/kinds/loitering/schema.ts'
import { SecondsEditor, type EditorProps } from '../editors.tsx'

export function GraceEditor({ detection, document }: EditorProps<LoiteringDetection>): ReactNode {
  return (
    <SecondsEditor
      parameter="GraceTime"
      label="Grace"
      value={detection.graceSeconds}
      max={120}
      help="Who is out of the zone for no longer than this is still lingering."
      onChange={(graceSeconds) => document.edit({ ...detection, graceSeconds }, 'Change the grace')}
    />
  )
}

import { Checkbox, Radio } from 'antd'
import type { ReactNode } from 'react'
import { causeWords } from '../../../core/detections/index.ts'
import { SEVERITIES } from '../../../core/kinds/parts.ts'
import { TAMPER_CAUSES, type TamperDetection } from '../../../core/kinds/tamper/schema.ts'
import { capital } from '../words.ts'
import { SensitivitySlider, type EditorProps } from '../editors.tsx'

export function TamperSensitivityEditor({
  detection,
  document
}: EditorProps<TamperDetection>): ReactNode {
  return (
    <SensitivitySlider
      detection={detection}
      document={document}
      meaning="Moves the limits of all causes. The curves show how near the clip comes to them."
    />
  )
}

export function CausesEditor({ detection, document }: EditorProps<TamperDetection>): ReactNode {
  return (
    <>
      <Checkbox.Group
        className="stacked"
        value={detection.causes}
        options={TAMPER_CAUSES.map((value) => ({
          value,
          label: capital(causeWords[value]),
          disabled: detection.causes.length === 1 && detection.causes[0] === value
        }))}
        onChange={(causes) =>
          document.edit(
            { ...detection, causes: TAMPER_CAUSES.filter((c) => (causes as string[]).includes(c)) },
            'Change the causes'
          )
        }
      />
      <p className="quiet">
        A dark even background or low light makes tamper unreliable; leave out what the view cannot
        tell.
      </p>
    </>
  )
}

export function SeverityEditor({ detection, document }: EditorProps<TamperDetection>): ReactNode {
  return (
    <>
      <Radio.Group
        vertical
        value={detection.severity}
        options={SEVERITIES.map((value) => ({ value, label: capital(value) }))}
        onChange={(e) =>
          document.edit(
            { ...detection, severity: e.target.value as TamperDetection['severity'] },
            'Change the severity'
          )
        }
      />
      <p className="quiet">A monitoring station may accept only from some step up.</p>
    </>
  )
}

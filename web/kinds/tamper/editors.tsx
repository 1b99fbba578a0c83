import { editors as msg } from '../../../core/messages/en/kinds/tamper.ts'
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
      meaning={msg.movesTheLimitsOfAll}
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
            msg.changeTheCauses
          )
        }
      />
      <p className="quiet">{msg.aDarkEvenBackgroundOr}</p>
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
            msg.changeTheSeverity
          )
        }
      />
      <p className="quiet">{msg.aMonitoringStationMayAccept}</p>
    </>
  )
}

import { severities } from '../../../core/messages/en/codes/names.ts'
import { capital } from '../../../core/messages/format.ts'
import { said } from '../../../core/messages/said.ts'
import { editors as msg } from '../../../core/messages/en/kinds/tamper.ts'
import { Checkbox, Radio } from 'antd'
import type { ReactNode } from 'react'
import { causes as causeNames } from '../../../core/messages/en/codes/conditions.ts'
import { SEVERITIES } from '../../../core/kinds/parts.ts'
import { TAMPER_CAUSES, type TamperDetection } from '../../../core/kinds/tamper/schema.ts'
import { SensitivitySlider, type EditorProps } from '../editors.tsx'

export function TamperSensitivityEditor({
  detection,
  document
}: EditorProps<TamperDetection>): ReactNode {
  return <SensitivitySlider detection={detection} document={document} meaning={msg.movesLimits} />
}

export function CausesEditor({ detection, document }: EditorProps<TamperDetection>): ReactNode {
  return (
    <>
      <Checkbox.Group
        className="stacked"
        value={detection.causes}
        options={TAMPER_CAUSES.map((value) => ({
          value,
          label: capital(causeNames[value]),
          disabled: detection.causes.length === 1 && detection.causes[0] === value
        }))}
        onChange={(causes) =>
          document.edit(
            { ...detection, causes: TAMPER_CAUSES.filter((c) => (causes as string[]).includes(c)) },
            said('edits.changeTheCauses')
          )
        }
      />
      <p className="quiet">{msg.darkView}</p>
    </>
  )
}

export function SeverityEditor({ detection, document }: EditorProps<TamperDetection>): ReactNode {
  return (
    <>
      <Radio.Group
        vertical
        value={detection.severity}
        options={SEVERITIES.map((value) => ({ value, label: capital(severities[value]) }))}
        onChange={(e) =>
          document.edit(
            { ...detection, severity: e.target.value as TamperDetection['severity'] },
            said('edits.changeTheSeverity')
          )
        }
      />
      <p className="quiet">{msg.stationAccepts}</p>
    </>
  )
}

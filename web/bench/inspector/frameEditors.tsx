import { Checkbox, InputNumber, Radio, Select } from 'antd'
import type { ReactNode } from 'react'
import type { SiteInput } from '../../../core/api.ts'
import { causeWords, motionLevel } from '../../../core/detections/index.ts'
import {
  TAMPER_CAUSES,
  type ClassMotionDetection,
  type ContactDetection,
  type FaceDetection,
  type MotionDetection,
  type SignalLossDetection,
  type TamperDetection
} from '../../../core/formats/plan.ts'
import {
  KeptText,
  SecondsEditor,
  SensitivitySlider,
  tryEdit,
  type EditorProps
} from './editors.tsx'
import { SEVERITIES } from '../../../core/kinds/parts.ts'

type Moving = MotionDetection | ClassMotionDetection

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1)

export function MotionSensitivityEditor({ detection, document }: EditorProps<Moving>): ReactNode {
  return (
    <SensitivitySlider
      detection={detection}
      document={document}
      meaning={`A pixel has changed when it differs from the learned background by more than ${motionLevel(detection.sensitivity).toFixed(1)} of 255 levels; a cell is in motion when a fifth of it has.`}
    />
  )
}

export function ThresholdEditor({ detection, document }: EditorProps<Moving>): ReactNode {
  return (
    <label className="field">
      <span>Cells that must be in motion</span>
      <InputNumber
        autoFocus
        min={0.1}
        max={100}
        step={0.5}
        suffix="%"
        value={detection.threshold}
        onChange={(threshold) =>
          threshold !== null &&
          document.edit({ ...detection, threshold }, 'Change the share of cells')
        }
      />
      <span className="quiet">
        Of the cells that are painted on. The dashed line of the curve shows it.
      </span>
    </label>
  )
}

export function MotionDelaysEditor({ detection, document }: EditorProps<Moving>): ReactNode {
  return (
    <>
      <SecondsEditor
        label="On-delay"
        value={detection.onDelaySeconds}
        max={60}
        help="For how long there must be enough motion."
        onChange={(onDelaySeconds) =>
          document.edit({ ...detection, onDelaySeconds }, 'Change the on-delay')
        }
      />
      <SecondsEditor
        label="Off-delay"
        value={detection.offDelaySeconds}
        max={60}
        help="After how long without it a new trigger may fall."
        onChange={(offDelaySeconds) =>
          document.edit({ ...detection, offDelaySeconds }, 'Change the off-delay')
        }
      />
    </>
  )
}

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

export function DelayEditor({
  detection,
  document
}: EditorProps<TamperDetection | SignalLossDetection>): ReactNode {
  const tamper = detection.kind === 'tamper'
  return (
    <SecondsEditor
      label="Delay"
      min={tamper ? 0 : 0.5}
      value={detection.delaySeconds}
      max={600}
      help={
        tamper
          ? 'How long a cause must hold. A truck that stops in front of the camera is gone by then.'
          : 'How long no new picture may come.'
      }
      onChange={(delaySeconds) => document.edit({ ...detection, delaySeconds }, 'Change the delay')}
    />
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

export function ContactEditor({
  detection,
  document,
  inputs
}: EditorProps<ContactDetection> & { inputs: readonly SiteInput[] }): ReactNode {
  return (
    <>
      <label className="field">
        <span>Input</span>
        <Select
          value={detection.input}
          options={inputs.map(({ id, name }) => ({ value: id, label: name }))}
          onChange={(input) => document.edit({ ...detection, input }, 'Change the input')}
          getPopupContainer={(element) => element.parentElement!}
        />
      </label>
      <Radio.Group
        vertical
        value={detection.normally}
        options={[
          { value: 'open', label: 'Normally open: fires when it closes' },
          { value: 'closed', label: 'Normally closed: fires when it opens' }
        ]}
        onChange={(e) =>
          document.edit(
            { ...detection, normally: e.target.value as ContactDetection['normally'] },
            'Change the contact’s rest'
          )
        }
      />
      <SecondsEditor
        label="Debounce"
        value={detection.debounceSeconds}
        max={60}
        help="For how long it must stay so."
        onChange={(debounceSeconds) =>
          document.edit({ ...detection, debounceSeconds }, 'Change the debounce time')
        }
      />
    </>
  )
}

export function FaceFrameEditor({ detection, document }: EditorProps<FaceDetection>): ReactNode {
  const side = (key: 'w' | 'h', name: string): ReactNode => (
    <InputNumber
      aria-label={`Smallest face, ${name}`}
      size="small"
      min={0.5}
      max={100}
      step={0.5}
      prefix={name}
      suffix="%"
      value={Math.round(detection.faceMin[key] * 1000) / 10}
      onChange={(v) =>
        v !== null &&
        document.edit(
          { ...detection, faceMin: { ...detection.faceMin, [key]: v / 100 } },
          'Change the smallest face'
        )
      }
    />
  )
  return (
    <>
      <div className="row size-frame-row">
        {side('w', 'width')}
        {side('h', 'height')}
      </div>
      <p className="quiet">
        The dashed frame on the picture; drag its corner. Smaller faces do not count.
      </p>
    </>
  )
}

export function MaskEditor({ detection, document }: EditorProps<FaceDetection>): ReactNode {
  return (
    <>
      <Radio.Group
        vertical
        value={detection.mask}
        options={[
          { value: 'any', label: 'With or without a mask' },
          { value: 'with', label: 'With a mask' },
          { value: 'without', label: 'Without a mask' }
        ]}
        onChange={(e) =>
          document.edit(
            { ...detection, mask: e.target.value as FaceDetection['mask'] },
            'Change the mask condition'
          )
        }
      />
      <p className="quiet">Where it cannot be told, only “with or without” counts.</p>
    </>
  )
}

export function ListEditor({ detection, document }: EditorProps<FaceDetection>): ReactNode {
  return (
    <>
      <Radio.Group
        vertical
        value={detection.list}
        options={[
          { value: 'any', label: 'Whoever it is' },
          { value: 'listed', label: 'Somebody on the list' },
          { value: 'notListed', label: 'Anybody not on the list' }
        ]}
        onChange={(e) =>
          document.edit(
            { ...detection, list: e.target.value as FaceDetection['list'] },
            'Change the list condition'
          )
        }
      />
      <KeptText
        label="Names on the list, separated by commas"
        value={detection.faces.join(', ')}
        onKeep={(text) =>
          tryEdit(
            document,
            {
              ...detection,
              faces: text
                .split(',')
                .map((name) => name.trim())
                .filter(Boolean)
            },
            'Change the list of faces'
          )
        }
      />
      <p className="quiet">
        Who somebody is comes from the camera; footage alone does not tell it.
      </p>
    </>
  )
}

import { InputNumber } from 'antd'
import type { ReactNode } from 'react'
import { motionLevel } from '../../core/detections/index.ts'
import type { ClassMotionDetection, MotionDetection } from '../../core/formats/plan.ts'
import { SecondsEditor, SensitivitySlider, type EditorProps } from './editors.tsx'

export type Moving = MotionDetection | ClassMotionDetection

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

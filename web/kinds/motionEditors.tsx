import { said } from '../../core/messages/said.ts'
import { motionEditors as msg } from '../../core/messages/en/kinds/parts.ts'
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
      meaning={msg.aPixelCountsAs(motionLevel(detection.sensitivity))}
    />
  )
}

export function ThresholdEditor({ detection, document }: EditorProps<Moving>): ReactNode {
  return (
    <label className="field">
      <span>{msg.cellsInMotion}</span>
      <InputNumber
        autoFocus
        min={0.1}
        max={100}
        step={0.5}
        suffix="%"
        value={detection.threshold}
        onChange={(threshold) =>
          threshold !== null &&
          document.edit({ ...detection, threshold }, said('edits.changeTheShareOfCells'))
        }
      />
      <span className="quiet">{msg.ofTheCells}</span>
    </label>
  )
}

export function MotionDelaysEditor({ detection, document }: EditorProps<Moving>): ReactNode {
  return (
    <>
      <SecondsEditor
        label={msg.onDelay}
        value={detection.onDelaySeconds}
        max={60}
        help={msg.howLongMotion}
        onChange={(onDelaySeconds) =>
          document.edit({ ...detection, onDelaySeconds }, said('edits.changeTheOnDelay'))
        }
      />
      <SecondsEditor
        label={msg.offDelay}
        value={detection.offDelaySeconds}
        max={60}
        help={msg.howLongWithout}
        onChange={(offDelaySeconds) =>
          document.edit({ ...detection, offDelaySeconds }, said('edits.changeTheOffDelay'))
        }
      />
    </>
  )
}

import { classes as classNames } from '../../core/messages/en/codes/conditions.ts'
import { capital } from '../../core/messages/format.ts'
import { type Said, said } from '../../core/messages/said.ts'
import { problemWords } from '../../core/messages/errorWords.ts'
import { common, units } from '../../core/messages/en/common.ts'
import { editors as msg } from '../../core/messages/en/kinds/parts.ts'
import { Checkbox, Input, InputNumber, Slider } from 'antd'
import { useState, type ReactNode } from 'react'
import { needOf } from '../../core/detections/index.ts'
import { InputError } from '../../core/errors.ts'
import { DetectionSchema, type Detection, type TargetGated } from '../../core/formats/plan.ts'
import { CLASSES } from '../../core/targets/classes.ts'
import type { BenchDocument } from '../bench/document.ts'
import { bodyWords } from '../../core/kinds/words.ts'
import { BodyShare } from './BodyShare.tsx'
import { DeviceNote } from '../bench/inspector/DeviceNote.tsx'
import { parseWith } from '../../core/schema/parse.ts'

export interface EditorProps<D extends Detection = Detection> {
  detection: D
  document: BenchDocument
  close: () => void
}

/** Keeps an edit if it is a valid detection; otherwise says what would be right. */
export function tryEdit(document: BenchDocument, detection: Detection, label: Said): string | null {
  try {
    document.edit(parseWith(DetectionSchema, detection), label)
    return null
  } catch (error) {
    if (error instanceof InputError) return problemWords(error)
    throw error
  }
}

/** A text that is kept on Enter or when it is left; what cannot be kept stays, with the reason under it. */
export function SavedText({
  label,
  value,
  onKeep,
  autoFocus,
  placeholder
}: {
  label: string
  value: string
  onKeep: (text: string) => string | null
  autoFocus?: boolean
  placeholder?: string
}): ReactNode {
  const [text, setText] = useState(value)
  const [error, setError] = useState<string | null>(null)
  const keep = (): void => setError(text === value ? null : onKeep(text))
  return (
    <div>
      <label className="field">
        <span>{label}</span>
        <Input
          value={text}
          autoFocus={autoFocus}
          placeholder={placeholder}
          status={error ? 'error' : undefined}
          aria-invalid={!!error}
          onChange={(e) => setText(e.target.value)}
          onPressEnter={keep}
          onBlur={keep}
        />
      </label>
      {error && (
        <span className="field-error" role="alert">
          {error}
        </span>
      )}
    </div>
  )
}

export function NameEditor({ detection, document }: EditorProps): ReactNode {
  return (
    <SavedText
      autoFocus
      label={common.name}
      value={detection.name}
      onKeep={(name) =>
        tryEdit(document, { ...detection, name }, said('edits.rename', detection.name))
      }
    />
  )
}

export function ClassesEditor({ detection, document }: EditorProps<TargetGated>): ReactNode {
  return (
    <>
      <Checkbox.Group
        className="stacked"
        value={detection.classes}
        options={CLASSES.map((value) => ({
          value,
          label: value === 'unknown' ? msg.unknownNotRecognisedYet : classNames[value]
        }))}
        onChange={(classes) =>
          document.edit({ ...detection, classes: classes }, said('edits.changeTheClasses'))
        }
      />
      <p className="quiet">{msg.noneSelectedEveryTarget}</p>
      {detection.classes.length > 0 && <DeviceNote parameter="ClassFilter" value={0} />}
    </>
  )
}

/** Detections that have a sensitivity, which says how much of the body must be over. */
type Sensitive = Extract<Detection, { sensitivity: number }>

/** Sensitivity as a slider and a number; what it means stands beside it. */
export function SensitivitySlider({
  detection,
  document,
  meaning
}: {
  detection: Sensitive
  document: BenchDocument
  meaning: string
}): ReactNode {
  return (
    <div>
      <div className="row">
        <span>{common.sensitivity}</span>
        <InputNumber
          aria-label={common.sensitivity}
          min={1}
          max={100}
          precision={0}
          size="small"
          value={detection.sensitivity}
          onChange={(sensitivity) =>
            sensitivity !== null &&
            document.edit({ ...detection, sensitivity }, said('edits.changeTheSensitivity'))
          }
        />
      </div>
      <Slider
        min={1}
        max={100}
        value={detection.sensitivity}
        ariaLabelForHandle={common.sensitivity}
        onChange={(sensitivity) => document.show({ ...detection, sensitivity })}
        onChangeComplete={() => document.commitDrag(said('edits.changeTheSensitivity'))}
      />
      <p className="quiet">{meaning}</p>
      <DeviceNote parameter="Sensitivity" value={detection.sensitivity} />
    </div>
  )
}

/** Sensitivity as the share of the body that must be somewhere, such as `in the zone`. */
export function SensitivityEditor({
  detection,
  document,
  where
}: EditorProps<Extract<Sensitive, TargetGated>> & { where: string }): ReactNode {
  return (
    <div className="sensitivity">
      <BodyShare share={needOf(detection.sensitivity)} />
      <SensitivitySlider
        detection={detection}
        document={document}
        meaning={msg.mustBe(capital(bodyWords(detection.sensitivity)), where)}
      />
    </div>
  )
}

export function SecondsEditor({
  label,
  value,
  min = 0,
  max,
  help,
  parameter,
  onChange
}: {
  label: string
  value: number
  min?: number
  max: number
  help: string
  /** What it is called on a device. */ parameter?: string
  onChange: (seconds: number) => void
}): ReactNode {
  return (
    <label className="field">
      <span>{label}</span>
      <InputNumber
        autoFocus
        min={min}
        max={max}
        step={0.1}
        suffix={units.s}
        value={value}
        onChange={(v) => v !== null && onChange(Math.round(v * 1000) / 1000)}
      />
      <span className="quiet">{help}</span>
      {parameter && <DeviceNote parameter={parameter} value={value} unit={units.spacedS} />}
    </label>
  )
}

export function ConfirmEditor({ detection, document }: EditorProps<TargetGated>): ReactNode {
  return (
    <SecondsEditor
      parameter="ConfirmTime"
      label={common.confirmTime}
      value={detection.confirmSeconds}
      max={60}
      help={msg.howLongVisible}
      onChange={(confirmSeconds) =>
        document.edit({ ...detection, confirmSeconds }, said('edits.changeTheConfirmTime'))
      }
    />
  )
}

export function HoldOffEditor({ detection, document }: EditorProps): ReactNode {
  return (
    <SecondsEditor
      parameter={detection.holdOffSeconds > 0 ? 'HoldOff' : undefined}
      label={common.reTriggerDelay}
      value={detection.holdOffSeconds}
      max={86400}
      help={msg.noFurtherTriggerFor}
      onChange={(holdOffSeconds) =>
        document.edit({ ...detection, holdOffSeconds }, said('edits.changeTheHoldOff'))
      }
    />
  )
}

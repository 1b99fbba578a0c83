import './inspector.css'
import type { ReactNode } from 'react'
import { deviceWords, useLimits } from './deviceLimits.ts'
import { WarningOutlined } from '@ant-design/icons'

/** Beside a control: what the camera's device can hold of it, and what it would make of the value. */
export function DeviceNote({
  parameter,
  value,
  unit = ''
}: {
  parameter: string
  value: number
  unit?: string
}): ReactNode {
  const limits = useLimits()
  const note = limits && deviceWords(limits, parameter, value, unit)
  if (!note) return null
  return (
    <span className={note.holds ? 'device-note' : 'device-note beyond'}>
      {!note.holds && <WarningOutlined aria-hidden />} {note.words}
    </span>
  )
}

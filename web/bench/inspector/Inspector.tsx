import { DeleteOutlined } from '@ant-design/icons'
import { Button, Tooltip } from 'antd'
import type { ReactNode } from 'react'
import type { Ladder } from '../../../core/detections/index.ts'
import type { LineDetection, Schedule } from '../../../core/formats/plan.ts'
import type { BenchDocument } from '../document.ts'
import { HoursEditor } from '../schedule/HoursEditor.tsx'
import { bodyWords, classWords, crossingWords, scheduleWords, secondsWords, sizeWords } from '../words.ts'
import { Chip } from './Chip.tsx'
import { ClassesEditor, ConfirmEditor, DirectionEditor, EmailEditor, HoldOffEditor, NameEditor, SensitivityEditor, SizeEditor } from './editors.tsx'
import { LadderView } from './LadderView.tsx'

export interface InspectorProps {
  document: BenchDocument
  line: LineDetection | null
  letter: string
  schedules: Schedule[]
  email: string | null
  /** How many detections of the camera use each schedule. */
  users: (schedule: string) => number
  ladder: Ladder | null
  targetClass: string
  onRemove: () => void
}

/** What is selected: the sentence with every part editable, then the gate ladder of the selected target. */
export function Inspector({ document, line, letter, schedules, email, users, ladder, targetClass, onRemove }: InspectorProps): ReactNode {
  if (!line)
    return (
      <aside className="inspector" aria-label="Inspector">
        <h2>Nothing selected</h2>
        <p className="quiet">Choose a detection on the left or on the picture to set it. Choose a trigger or a target to see which gates it passed.</p>
      </aside>
    )
  const editor = { line, document }
  return (
    <aside className="inspector" aria-label="Inspector">
      <header>
        <h2>Detection {letter}</h2>
        <Tooltip title={<>Delete <kbd>Del</kbd></>}>
          <Button type="text" size="small" icon={<DeleteOutlined />} aria-label={`Delete ${line.name}`} onClick={onRemove} />
        </Tooltip>
      </header>
      <p className="sentence">
        A <Chip what="Classes" editor={(close) => <ClassesEditor {...editor} close={close} />}>{classWords(line)}</Chip> crosses{' '}
        <Chip what="Name" editor={(close) => <NameEditor {...editor} close={close} />}>{line.name}</Chip>{' '}
        <Chip what="Direction and sides" editor={(close) => <DirectionEditor {...editor} close={close} />}>{crossingWords(line)}</Chip>, with{' '}
        <Chip what="Body share" editor={(close) => <SensitivityEditor {...editor} close={close} />}>{bodyWords(line.sensitivity)}</Chip> over, seen for{' '}
        <Chip what="Confirm time" editor={(close) => <ConfirmEditor {...editor} close={close} />}>{secondsWords(line.confirmSeconds)}</Chip>,{' '}
        <Chip what="Size frames" editor={(close) => <SizeEditor {...editor} close={close} />}>{sizeWords(line)}</Chip>, armed{' '}
        <Chip what="Arming hours" editor={() => <HoursEditor line={line} document={document} schedules={schedules} users={users} />}>{scheduleWords(line, schedules)}</Chip>,{' '}
        <Chip what="Hold-off" editor={(close) => <HoldOffEditor {...editor} close={close} />}>{line.holdOffSeconds ? `not within ${secondsWords(line.holdOffSeconds)} of the last` : 'every time'}</Chip>; then{' '}
        <Chip what="E-mail" editor={(close) => <EmailEditor {...editor} to={email} close={close} />}>{email ? `e-mail to ${email}` : 'no e-mail'}</Chip>.
      </p>
      {!line.enabled && <p className="off-note">☾ Switched off: it triggers nothing until it is in use.</p>}
      {ladder ? (
        <LadderView ladder={ladder} cls={targetClass} />
      ) : (
        <p className="quiet ladder-hint">{line.enabled ? 'Choose a trigger on the timeline, or a target, to see why it fired or why not.' : ''}</p>
      )}
    </aside>
  )
}

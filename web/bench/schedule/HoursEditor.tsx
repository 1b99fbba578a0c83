import { newSchedule } from '../../arming/newSchedule.ts'
import { type Said, said } from '../../../core/messages/said.ts'
import { common } from '../../../core/messages/en/common.ts'
import { hoursEditor as msg } from '../../../core/messages/en/bench/schedule.ts'
import { Button, Input, Modal, Select } from 'antd'
import { useState, type ReactNode } from 'react'
import { Link } from 'react-router'
import { dayNames } from '../../arming/words.ts'
import { refusalOf } from '../../sync/refusal.ts'
import {
  ScheduleSchema,
  WEEKDAYS,
  type Detection,
  type Schedule,
  type Weekday
} from '../../../core/formats/plan.ts'
import type { BenchDocument } from '../document.ts'
import { SavedText } from '../../kinds/editors.tsx'
import { DayBar } from './DayBar.tsx'
import { readSpans, spansText } from '../../../core/arming/spansText.ts'
import { parseWith } from '../../../core/schema/parse.ts'

export interface HoursEditorProps {
  detection: Detection
  document: BenchDocument
  schedules: Schedule[]
  users: (schedule: string) => number
}

/** Chooses a detection's arming schedule, and opens its week. */
export function HoursEditor({
  detection,
  document,
  schedules,
  users
}: HoursEditorProps): ReactNode {
  const [editing, setEditing] = useState<string | null>(null)
  const chosen = schedules.find((s) => s.id === detection.schedule)
  const choose = (id: string): void => {
    document.edit(
      { ...detection, schedule: id === '' ? undefined : id },
      said('edits.changeTheArmingHours')
    )
  }
  const make = (): void => {
    const day: Schedule['week']['mon'] = [['18:30', '24:00']]
    const week = { mon: day, tue: day, wed: day, thu: day, fri: day, sat: day, sun: day }
    const schedule = newSchedule(schedules, week)
    document.addSchedule(schedule, detection)
    setEditing(schedule.id)
  }
  const open = schedules.find((s) => s.id === editing)
  return (
    <div className="hours">
      <Select
        aria-label={common.armingSchedule}
        value={detection.schedule ?? ''}
        onChange={choose}
        options={[
          { value: '', label: msg.always },
          ...schedules.map((s) => ({ value: s.id, label: s.name }))
        ]}
        getPopupContainer={(element) => element.parentElement!}
      />
      <div className="row">
        <Button size="small" disabled={!chosen} onClick={() => setEditing(detection.schedule!)}>
          {msg.editItsWeek}
        </Button>
        <Button size="small" onClick={make}>
          {msg.addSchedule}
        </Button>
      </div>
      <Modal
        open={!!open}
        title={common.armingSchedule}
        footer={[
          <Link key="arming" to={`/arming/${editing}`}>
            {msg.openInArming}
          </Link>,
          <Button key="close" onClick={() => setEditing(null)}>
            {common.close}
          </Button>
        ]}
        onCancel={() => setEditing(null)}
        width={640}
        destroyOnHidden
      >
        {open && <Week key={open.id} schedule={open} document={document} users={users(open.id)} />}
      </Modal>
    </div>
  )
}

function Week({
  schedule,
  document,
  users
}: {
  schedule: Schedule
  document: BenchDocument
  users: number
}): ReactNode {
  const keep = (change: Partial<Schedule>, label: Said): string | null => {
    return refusalOf(() =>
      document.editSchedule(parseWith(ScheduleSchema, { ...schedule, ...change }), label)
    )
  }
  return (
    <div className="week">
      <SavedText
        label={common.name}
        value={schedule.name}
        onKeep={(name) => keep({ name }, said('edits.renameTheHours', schedule.name))}
      />
      {users > 1 && <p className="quiet">{msg.detectionsOfThisCamera(users)}</p>}
      {WEEKDAYS.map((day) => (
        <Day
          key={`${day} ${spansText(schedule.week[day])}`}
          day={day}
          spans={schedule.week[day]}
          onKeep={(spans) =>
            keep(
              { week: { ...schedule.week, [day]: spans } },
              said('edits.changeOf', dayNames[day], schedule.name)
            )
          }
          onCopy={() =>
            keep(
              {
                week: Object.fromEntries(
                  WEEKDAYS.map((d) => [d, schedule.week[day]])
                ) as Schedule['week']
              },
              said('edits.copyToAllDays', dayNames[day])
            )
          }
        />
      ))}
      <p className="quiet">{msg.timesOnTheSitesClock}</p>
    </div>
  )
}

function Day({
  day,
  spans,
  onKeep,
  onCopy
}: {
  day: Weekday
  spans: Schedule['week']['mon']
  onKeep: (spans: Schedule['week']['mon']) => string | null
  onCopy: () => void
}): ReactNode {
  const [text, setText] = useState(spansText(spans))
  const [error, setError] = useState<string | null>(null)
  const keep = (): void => {
    const read = readSpans(text)
    setError(typeof read === 'string' ? read : onKeep(read))
  }
  return (
    <div className="day">
      <span>{dayNames[day]}</span>
      <DayBar spans={spans} />
      <Input
        size="small"
        aria-label={msg.hoursOf(dayNames[day])}
        value={text}
        placeholder={msg.notArmed}
        status={error ? 'error' : undefined}
        onChange={(e) => setText(e.target.value)}
        onBlur={keep}
        onPressEnter={keep}
      />
      <Button size="small" type="text" onClick={onCopy}>
        {msg.toAllDays}
      </Button>
      {error && (
        <span className="field-error" role="alert">
          {error}
        </span>
      )}
    </div>
  )
}

import { newSchedule } from './newSchedule.ts'
import { said } from '../../core/messages/said.ts'
import { problemWords } from '../../core/messages/errorWords.ts'
import { scheduleList as msg } from '../../core/messages/en/arming.ts'
import { PlusOutlined, UploadOutlined } from '@ant-design/icons'
import { App, Button, Upload } from 'antd'
import type { ReactNode } from 'react'
import type { SiteHours } from '../../core/arming/coverage.ts'
import { scheduleAt } from '../../core/arming/armedNow.ts'
import { WEEKDAYS, type Schedule } from '../../core/formats/plan.ts'
import { sendFile } from '../api/client.ts'
import type { SiteDocument, SiteState } from '../sync/siteDocument.ts'
import { weekHours } from './words.ts'

export function ScheduleList({
  state,
  document,
  hours,
  clock,
  now,
  chosen,
  onChoose
}: {
  state: SiteState
  document: SiteDocument
  hours: SiteHours
  clock: Parameters<typeof scheduleAt>[1]
  now: number
  chosen: string | null
  onChoose: (id: string) => void
}): ReactNode {
  const { message } = App.useApp()
  const make = (): void => {
    const week = Object.fromEntries(WEEKDAYS.map((day) => [day, []])) as unknown as Schedule['week']
    const schedule = newSchedule(state.schedules, week)
    document.editSchedule(schedule, said('edits.newHours', schedule.name))
    onChoose(schedule.id)
  }
  const read = async (file: File): Promise<void> => {
    try {
      const schedule = await sendFile<Schedule>('/calendars', file, 'text/calendar')
      document.editSchedule(schedule, said('edits.takeInTheCalendar', schedule.name))
      onChoose(schedule.id)
    } catch (error) {
      void message.error(`${file.name}: ${problemWords(error)}`)
    }
  }
  return (
    <section className="schedule-list" aria-label={msg.schedules}>
      <h2>{msg.schedules}</h2>
      <ul>
        {state.schedules.map((schedule) => {
          const detections = state.detections.filter(
            ({ detection }) => detection.schedule === schedule.id
          ).length
          const endpoints = state.endpoints.filter((e) => e.schedule === schedule.id).length
          const { armed } = hours.coverage(schedule.id, undefined)
          const answer = scheduleAt(schedule, clock, now)
          const users = [
            ...(detections ? [msg.detections(detections)] : []),
            ...(endpoints ? [msg.actions(endpoints)] : [])
          ]
          return (
            <li key={schedule.id}>
              <button
                type="button"
                className={`schedule${schedule.id === chosen ? ' chosen' : ''}`}
                aria-pressed={schedule.id === chosen}
                onClick={() => onChoose(schedule.id)}
              >
                <strong>{schedule.name}</strong>
                <span className="quiet">{users.join(', ') || msg.notUsed}</span>
                <span className="quiet">
                  {msg.aWeek(weekHours(armed))} ·{' '}
                  <span className={answer.armed ? 'is-armed' : ''}>
                    {answer.armed ? msg.onNow : msg.notArmedNow}
                  </span>
                </span>
              </button>
            </li>
          )
        })}
      </ul>
      {state.schedules.length === 0 && <p className="quiet">{msg.noSchedulesDetectionsAre}</p>}
      <div className="row wrap">
        <Button icon={<PlusOutlined aria-hidden />} onClick={make}>
          {msg.addSchedule}
        </Button>
        <Upload
          accept=".ics,text/calendar"
          showUploadList={false}
          beforeUpload={(file) => (void read(file), false)}
        >
          <Button icon={<UploadOutlined aria-hidden />}>{msg.calendar}</Button>
        </Upload>
      </div>
    </section>
  )
}

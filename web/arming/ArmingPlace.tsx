import { atSite } from '../api/here.ts'
import { common } from '../../core/messages/en/common.ts'
import { said } from '../../core/messages/said.ts'
import { problemWords } from '../../core/messages/errorWords.ts'
import { armingPlace as msg } from '../../core/messages/en/arming.ts'
import './arming.css'
import { DeleteOutlined, DownloadOutlined } from '@ant-design/icons'
import { Alert, Button, Input, Tooltip } from 'antd'
import { useMemo, useState, type ReactNode } from 'react'
import { useNavigate, useParams } from 'react-router'
import type { SiteActionsView } from '../../core/api.ts'
import { SiteHours } from '../../core/arming/coverage.ts'
import type { Weekday } from '../../core/formats/plan.ts'
import { ConflictNote } from '../sync/ConflictNote.tsx'
import { SyncBar } from '../sync/SyncBar.tsx'
import { useSiteActions, useSiteDocument } from '../sync/useSiteDocument.ts'
import { useMinute } from '../now.ts'
import { DayPanel, keepSchedule } from './DayPanel.tsx'
import { ExceptionPanel } from './ExceptionPanel.tsx'
import { GapsPanel, linkedTo } from './GapsPanel.tsx'
import { InputsPanel } from './InputsPanel.tsx'
import { IsItArmed } from './IsItArmed.tsx'
import { ScheduleList } from './ScheduleList.tsx'
import { UsersPanel } from './UsersPanel.tsx'
import { WeekGrid, type ChosenSpan, type Rail } from './WeekGrid.tsx'
import { wallNow, weekOf } from './weekOf.ts'
import { YearStrip } from './YearStrip.tsx'

/** More rails beside a day would be too thin to tell apart. */
const MAX_RAILS = 4

export function ArmingPlace(): ReactNode {
  const actions = useSiteActions()
  if (actions.error && !actions.data)
    return <Alert className="notice" type="error" showIcon title={problemWords(actions.error)} />
  if (!actions.data) return <p className="waiting">{common.loading}</p>
  return <Arming view={actions.data} />
}

/** When detections may trigger, and when their actions may run. */
function Arming({ view }: { view: SiteActionsView }): ReactNode {
  const { document, state } = useSiteDocument(view)
  const navigate = useNavigate()
  const { schedule: wanted } = useParams()
  const now = useMinute()
  const { timeZone, position } = view.site
  // Looked at again by the hour.
  const hour = Math.floor(now / 3_600_000) * 3_600_000
  const week = useMemo(() => weekOf(hour, timeZone, position), [hour, timeZone, position])
  const hours = useMemo(
    () => new SiteHours(state.schedules, timeZone, position ?? undefined, week.days[0]!.from),
    [state.schedules, timeZone, position, week]
  )
  const today = wallNow(week, now)!.date
  const [day, setDay] = useState<Weekday>(week.days.find((d) => d.date === today)!.weekday)
  const [span, setSpan] = useState<ChosenSpan | null>(null)
  const [dates, setDates] = useState<string[]>([])
  const schedule =
    state.schedules.find((s) => s.id === wanted) ??
    state.schedules.find((s) =>
      state.detections.some(({ detection }) => detection.schedule === s.id)
    ) ??
    state.schedules[0] ??
    null
  const users = useMemo(
    () =>
      state.detections.filter(({ detection }) => schedule && detection.schedule === schedule.id),
    [state.detections, schedule]
  )
  const linked = linkedTo(users, state)
  const rails: Rail[] = linked
    .filter((e) => e.schedule !== undefined)
    .slice(0, MAX_RAILS)
    .map((e) => ({
      id: e.id,
      name: e.name,
      hours: week.hours(state.schedules.find((s) => s.id === e.schedule))
    }))
  const clock = { timeZone, position: position ?? undefined }
  const choose = (id: string): void => {
    setSpan(null)
    setDates([])
    void navigate(`/arming/${id}`)
  }
  const used =
    schedule && (users.length > 0 || state.endpoints.some((e) => e.schedule === schedule.id))
  return (
    <main className="arming-place">
      <aside className="arming-left">
        <ScheduleList
          state={state}
          document={document}
          hours={hours}
          clock={clock}
          now={now}
          chosen={schedule?.id ?? null}
          onChoose={choose}
        />
        <IsItArmed
          schedule={schedule}
          detections={users}
          schedules={state.schedules}
          site={view.site}
          contacts={view.inputs}
          now={now}
        />
      </aside>
      <div className="arming-middle">
        {state.conflict && <ConflictNote conflict={state.conflict} document={document} />}
        {schedule && (
          <>
            <header className="arming-head">
              <ScheduleName
                key={`${schedule.id} ${schedule.name}`}
                name={schedule.name}
                onKeep={(name) =>
                  keepSchedule(
                    document,
                    schedule,
                    { name },
                    said('edits.renameTheHours', schedule.name)
                  )
                }
              />
              <span className="quiet arming-hint">{msg.dragToAddAltTo}</span>
              <SyncBar state={state} document={document} />
              <Tooltip title={msg.exportCalendarIcalendar}>
                <Button
                  type="text"
                  aria-label={msg.exportCalendar}
                  icon={<DownloadOutlined aria-hidden />}
                  href={atSite(`/schedules/${encodeURIComponent(schedule.id)}/calendar.ics`)}
                />
              </Tooltip>
              <Tooltip title={used ? msg.inUseChooseAnother : msg.deleteSchedule}>
                <Button
                  type="text"
                  aria-label={msg.deleteSchedule}
                  icon={<DeleteOutlined aria-hidden />}
                  disabled={!!used}
                  onClick={() =>
                    document.edit(said('edits.deleteTheHours', schedule.name), [
                      `schedule:${schedule.id}`,
                      null
                    ])
                  }
                />
              </Tooltip>
            </header>
            <WeekGrid
              schedule={schedule}
              calendar={week}
              rails={rails}
              document={document}
              day={day}
              span={span}
              now={now}
              onDay={(d) => {
                setDay(d)
                setDates([])
              }}
              onSpan={setSpan}
            />
            <YearStrip
              schedule={schedule}
              week={week}
              timeZone={timeZone}
              chosen={dates}
              today={today}
              onChoose={(chosen) => {
                setDates(chosen)
                setSpan(null)
              }}
            />
          </>
        )}
        {!schedule && <p className="waiting">{msg.noSchedulesDetectionsAre}</p>}
      </div>
      <aside className="arming-right">
        {schedule && (
          <>
            {dates.length > 0 ? (
              <ExceptionPanel
                key={`${schedule.id} ${dates.join()}`}
                schedule={schedule}
                dates={dates}
                document={document}
                onClose={() => setDates([])}
              />
            ) : (
              <DayPanel
                schedule={schedule}
                day={day}
                span={span}
                document={document}
                hasSun={position !== null}
                onSpan={setSpan}
              />
            )}
            <GapsPanel
              schedule={schedule}
              state={state}
              document={document}
              hours={hours}
              users={users}
              rails={rails.map((r) => r.id)}
            />
            <UsersPanel
              schedule={schedule}
              state={state}
              document={document}
              view={view}
              users={users}
            />
          </>
        )}
        <InputsPanel view={view} />
      </aside>
    </main>
  )
}

function ScheduleName({
  name,
  onKeep
}: {
  name: string
  onKeep: (name: string) => string | null
}): ReactNode {
  const [text, setText] = useState(name)
  const [error, setError] = useState<string | null>(null)
  const keep = (): void => (text.trim() === name ? setText(name) : setError(onKeep(text)))
  return (
    <span className="schedule-name">
      <Input
        variant="borderless"
        aria-label={msg.scheduleName}
        value={text}
        status={error ? 'error' : undefined}
        onChange={(e) => setText(e.target.value)}
        onBlur={keep}
        onPressEnter={keep}
      />
      {error && (
        <span className="field-error" role="alert">
          {error}
        </span>
      )}
    </span>
  )
}

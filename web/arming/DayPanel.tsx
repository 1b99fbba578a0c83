import { type Said, said } from '../../core/messages/said.ts'
import { common, units } from '../../core/messages/en/common.ts'
import { dayPanel as msg } from '../../core/messages/en/arming.ts'
import { Button, Checkbox, Input, InputNumber, Popover, Select } from 'antd'
import { useState, type ReactNode } from 'react'
import { copied, endText, tidy } from '../../core/arming/spans.ts'
import { refusalOf } from '../sync/refusal.ts'
import { parseSpanEnd, type SpanEnd } from '../../core/formats/spanEnd.ts'
import {
  ScheduleSchema,
  WEEKDAYS,
  type Schedule,
  type Span,
  type Weekday
} from '../../core/formats/plan.ts'
import type { SiteDocument } from '../sync/siteDocument.ts'
import { readSpans, spansText } from '../../core/arming/spansText.ts'
import type { ChosenSpan } from './WeekGrid.tsx'
import { dayNames, shortDay } from './words.ts'
import { parseWith } from '../../core/schema/parse.ts'

/** Keeps a change of a schedule, or says what is wrong with it. */
export function keepSchedule(
  document: SiteDocument,
  schedule: Schedule,
  change: Partial<Schedule>,
  label: Said
): string | null {
  return refusalOf(() =>
    document.editSchedule(parseWith(ScheduleSchema, { ...schedule, ...change }), label)
  )
}

/** The hours of one day, as they are typed; the chosen span with its ends; the day copied to others. */
export function DayPanel({
  schedule,
  day,
  span,
  document,
  hasSun,
  onSpan
}: {
  schedule: Schedule
  day: Weekday
  span: ChosenSpan | null
  document: SiteDocument
  hasSun: boolean
  onSpan: (span: ChosenSpan | null) => void
}): ReactNode {
  const spans = schedule.week[day]
  const chosen = span?.day === day ? spans[span.index] : undefined
  const keep = (next: readonly Span[], label: Said): string | null =>
    keepSchedule(document, schedule, { week: { ...schedule.week, [day]: next as Span[] } }, label)
  return (
    <section aria-label={dayNames[day]} className="arming-section">
      <header className="row">
        <h2>{dayNames[day]}</h2>
        <CopyDay schedule={schedule} day={day} document={document} />
      </header>
      <Typed
        key={`${schedule.id} ${day} ${spansText(spans)}`}
        label={msg.hoursOf(dayNames[day])}
        spans={spans}
        onKeep={(next) => keep(tidy(next), said('edits.changeOf', dayNames[day], schedule.name))}
      />
      {chosen && (
        <div className="span-ends">
          {(['from', 'to'] as const).map((side, i) => (
            <End
              key={`${span!.index} ${side}`}
              side={side}
              value={chosen[i]!}
              hasSun={hasSun}
              onKeep={(text) =>
                keep(
                  spans.map((s, n) =>
                    n === span!.index ? (side === 'from' ? [text, s[1]] : [s[0], text]) : s
                  ),
                  said('edits.changeOf', dayNames[day], schedule.name)
                )
              }
            />
          ))}
          <Button
            size="small"
            onClick={() => {
              keep(
                spans.filter((_, n) => n !== span!.index),
                said('edits.takeHoursOutOf', dayNames[day])
              )
              onSpan(null)
            }}
          >
            {common.remove}
          </Button>
        </div>
      )}
    </section>
  )
}

/** Spans typed as a text, such as `00:00 to 06:30, 18:30 to 24:00`. */
export function Typed({
  label,
  spans,
  onKeep
}: {
  label: string
  spans: readonly Span[]
  onKeep: (spans: Span[]) => string | null
}): ReactNode {
  const [text, setText] = useState(spansText(spans as Span[]))
  const [error, setError] = useState<string | null>(null)
  const keep = (): void => {
    const read = readSpans(text)
    setError(typeof read === 'string' ? read : onKeep(read))
  }
  return (
    <label className="field">
      <Input
        aria-label={label}
        value={text}
        placeholder={msg.notArmed}
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
    </label>
  )
}

type Anchor = 'clock' | 'sunrise' | 'sunset'

/** One end of a span: a time of the clock, or minutes from sunrise or sunset. */
function End({
  side,
  value,
  hasSun,
  onKeep
}: {
  side: 'from' | 'to'
  value: string
  hasSun: boolean
  onKeep: (text: string) => string | null
}): ReactNode {
  const [error, setError] = useState<string | null>(null)
  const label = side === 'from' ? common.from : msg.to
  const end = parseSpanEnd(value)!
  const anchor: Anchor = 'minutes' in end ? 'clock' : end.sun
  const keep = (next: SpanEnd): void => setError(onKeep(endText(next)))
  return (
    <div className="span-end">
      <span>{label}</span>
      <Select
        size="small"
        aria-label={msg.clockOrSun(label)}
        value={anchor}
        options={[
          { value: 'clock', label: msg.clock },
          { value: 'sunrise', label: msg.sunrise, disabled: !hasSun },
          { value: 'sunset', label: msg.sunset, disabled: !hasSun }
        ]}
        onChange={(next: Anchor) =>
          keep(
            next === 'clock'
              ? { minutes: side === 'from' ? 18 * 60 : 24 * 60 }
              : { sun: next, offset: 0 }
          )
        }
      />
      {'minutes' in end ? (
        <ClockInput
          key={value}
          label={msg.time(label)}
          value={value}
          onKeep={(text) => {
            setError(null)
            return onKeep(text)
          }}
        />
      ) : (
        <InputNumber
          size="small"
          aria-label={msg.minutesFrom(label, end.sun)}
          value={end.offset}
          min={-720}
          max={720}
          precision={0}
          suffix={units.min}
          onChange={(offset) => offset !== null && keep({ ...end, offset })}
        />
      )}
      {error && (
        <span className="field-error" role="alert">
          {error}
        </span>
      )}
    </div>
  )
}

function ClockInput({
  label,
  value,
  onKeep
}: {
  label: string
  value: string
  onKeep: (text: string) => string | null
}): ReactNode {
  const [text, setText] = useState(value)
  const [error, setError] = useState<string | null>(null)
  const keep = (): void => {
    const padded = /^\d:\d\d$/.test(text) ? `0${text}` : text
    const end = parseSpanEnd(padded)
    setError(end && 'minutes' in end ? onKeep(padded) : msg.isNoTime(text.slice(0, 20)))
  }
  return (
    <>
      <Input
        size="small"
        className="clock-input"
        aria-label={label}
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
    </>
  )
}

/** Copies a day's hours to others. */
function CopyDay({
  schedule,
  day,
  document
}: {
  schedule: Schedule
  day: Weekday
  document: SiteDocument
}): ReactNode {
  const [open, setOpen] = useState(false)
  const [to, setTo] = useState<Weekday[]>([])
  const others = WEEKDAYS.filter((d) => d !== day)
  const working: Weekday[] = ['mon', 'tue', 'wed', 'thu', 'fri']
  const content = (
    <div className="copy-day">
      <Checkbox.Group
        aria-label={msg.daysToCopyTo}
        value={to}
        options={others.map((d) => ({ value: d, label: shortDay(d) }))}
        onChange={(days) => setTo(days)}
      />
      <div className="row wrap">
        <Button size="small" onClick={() => setTo(working.filter((d) => d !== day))}>
          {msg.monToFri}
        </Button>
        <Button size="small" onClick={() => setTo(others)}>
          {msg.allDays}
        </Button>
        <Button
          size="small"
          type="primary"
          disabled={!to.length}
          onClick={() => {
            document.editSchedule(
              { ...schedule, week: copied(schedule.week, day, to) },
              said('edits.copyTo', dayNames[day], to.map((d) => shortDay(d)).join(', '))
            )
            setOpen(false)
            setTo([])
          }}
        >
          {msg.copy}
        </Button>
      </div>
    </div>
  )
  return (
    <Popover
      trigger="click"
      open={open}
      onOpenChange={setOpen}
      content={content}
      placement="bottomRight"
    >
      <Button size="small">{msg.copyTo2(dayNames[day])}</Button>
    </Popover>
  )
}

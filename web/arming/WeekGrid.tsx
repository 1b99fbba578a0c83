import { type Said, said } from '../../core/messages/said.ts'
import { weekGrid as msg } from '../../core/messages/en/arming.ts'
import {
  useLayoutEffect,
  useRef,
  type KeyboardEvent,
  type PointerEvent,
  type ReactNode
} from 'react'
import type { Calendar } from '../../core/arming/calendar.ts'
import { without, type Hours } from '../../core/arming/hours.ts'
import { DAY_MINUTES, added, cleared, clockText, moved, tidy } from '../../core/arming/spans.ts'
import { spansByDate } from '../../core/arming/stretches.ts'
import { parseSpanEnd } from '../../core/formats/spanEnd.ts'
import { WEEKDAYS, type Schedule, type Span, type Weekday } from '../../core/formats/plan.ts'
import type { SiteDocument } from '../sync/siteDocument.ts'
import { useStable } from '../stable.ts'
import { dayNames, shortDay } from './words.ts'
import { wallNow } from './weekOf.ts'
import { SunOutlined } from '@ant-design/icons'

export interface Rail {
  id: string
  name: string
  /** Its own hours in the week on show. */
  hours: Hours
}

export interface ChosenSpan {
  day: Weekday
  index: number
}

const SNAP = 30
const percent = (minutes: number): string => `${(100 * minutes) / DAY_MINUTES}%`

/**
 * The week as columns with time running down: the schedule's spans, daylight, and the hours of what
 * is linked as rails.
 */
export function WeekGrid({
  schedule,
  calendar,
  rails,
  document,
  day,
  span,
  now,
  onDay,
  onSpan
}: {
  schedule: Schedule
  calendar: Calendar
  rails: readonly Rail[]
  document: SiteDocument
  day: Weekday
  span: ChosenSpan | null
  now: number
  onDay: (day: Weekday) => void
  onSpan: (span: ChosenSpan | null) => void
}): ReactNode {
  const armed = calendar.hours(schedule)
  const railSpans = rails.map((rail) => ({
    ...rail,
    open: spansByDate(rail.hours, calendar),
    silent: spansByDate(without(armed, rail.hours), calendar)
  }))
  const here = wallNow(calendar, now)
  return (
    <div className="week-grid" role="group" aria-label={msg.weekOf(schedule.name)}>
      <div className="week-scale" aria-hidden="true">
        {[0, 3, 6, 9, 12, 15, 18, 21, 24].map((hour) => (
          <span key={hour} style={{ top: percent(hour * 60) }}>
            {String(hour).padStart(2, '0')}
          </span>
        ))}
      </div>
      {WEEKDAYS.map((weekday) => {
        const dayOf = calendar.days.find((d) => d.weekday === weekday)!
        const exception = schedule.exceptions.find((e) => e.date === dayOf.date)
        const light = calendar.hasSun ? calendar.sun(dayOf) : null
        return (
          <section
            key={weekday}
            className={`week-day${weekday === day ? ' chosen' : ''}`}
            aria-label={dayNames[weekday]}
          >
            <button
              type="button"
              className="day-head"
              aria-pressed={weekday === day}
              onClick={() => onDay(weekday)}
            >
              {shortDay(weekday)} <span className="figures">{Number(dayOf.date.slice(8))}</span>
              {exception && (
                <span
                  className="day-exception"
                  title={msg.exceptionOn(dayOf.date, exception.name ? `: ${exception.name}` : '')}
                >
                  ≠
                </span>
              )}
            </button>
            <div className="day-body">
              <Column
                schedule={schedule}
                weekday={weekday}
                calendar={calendar}
                document={document}
                chosen={span?.day === weekday ? span.index : null}
                onDay={onDay}
                onSpan={onSpan}
              >
                {light && (
                  <>
                    <i
                      className="daylight"
                      style={{
                        top: percent(light.sunrise / 60_000),
                        height: percent((light.sunset - light.sunrise) / 60_000)
                      }}
                    />
                    {weekday === 'mon' && (
                      <>
                        <span className="sun-time" style={{ top: percent(light.sunrise / 60_000) }}>
                          <SunOutlined aria-hidden />{' '}
                          {clockText(Math.round(light.sunrise / 60_000))}
                        </span>
                        <span
                          className="sun-time set"
                          style={{ top: percent(light.sunset / 60_000) }}
                        >
                          {clockText(Math.round(light.sunset / 60_000))}
                        </span>
                      </>
                    )}
                  </>
                )}
                {here?.date === dayOf.date && (
                  <i className="week-now" style={{ top: percent(here.minutes) }} />
                )}
              </Column>
              {railSpans.map((rail, n) => (
                <div key={rail.id} className={`hour-rail rail-${n}`} title={rail.name}>
                  {(rail.open.get(dayOf.date)?.spans ?? []).map((s) => (
                    <i
                      key={s.from}
                      style={{
                        top: percent(s.from / 60_000),
                        height: percent((s.to - s.from) / 60_000)
                      }}
                    />
                  ))}
                  {(rail.silent.get(dayOf.date)?.spans ?? []).map((s) => (
                    <i
                      key={`silent ${s.from}`}
                      className="silent"
                      style={{
                        top: percent(s.from / 60_000),
                        height: percent((s.to - s.from) / 60_000)
                      }}
                    />
                  ))}
                </div>
              ))}
            </div>
          </section>
        )
      })}
    </div>
  )
}

type Drag =
  | { what: 'new'; from: number; to: number; /** With Alt hours are taken out. */ out: boolean }
  | { what: 'from' | 'to' | 'both'; index: number; grabbed: number; spans: readonly Span[] }

function Column({
  schedule,
  weekday,
  calendar,
  document,
  chosen,
  onDay,
  onSpan,
  children
}: {
  schedule: Schedule
  weekday: Weekday
  calendar: Calendar
  document: SiteDocument
  chosen: number | null
  onDay: (day: Weekday) => void
  onSpan: (span: ChosenSpan | null) => void
  children: ReactNode
}): ReactNode {
  const column = useRef<HTMLDivElement>(null)
  const drag = useRef<Drag | null>(null)
  const spans = schedule.week[weekday]
  const dayOf = calendar.days.find((d) => d.weekday === weekday)!
  const withSpans = (next: readonly Span[]): Schedule => ({
    ...schedule,
    week: { ...schedule.week, [weekday]: next as Span[] }
  })
  const minutesAt = useStable((e: PointerEvent): number => {
    const box = column.current!.getBoundingClientRect()
    return Math.min(DAY_MINUTES, Math.max(0, ((e.clientY - box.top) / box.height) * DAY_MINUTES))
  })
  const snap = (minutes: number): number => Math.round(minutes / SNAP) * SNAP
  const place = (text: string): number =>
    Math.round(calendar.wallOf(parseSpanEnd(text)!, dayOf) / 60_000)
  const begin = useStable((e: PointerEvent, what: Drag): void => {
    if (e.button !== 0) return
    e.stopPropagation()
    column.current!.setPointerCapture(e.pointerId)
    drag.current = what
    onDay(weekday)
  })
  const move = (e: PointerEvent): void => {
    const d = drag.current
    if (!d) return
    if (d.what === 'new') {
      d.to = snap(minutesAt(e))
      const change = d.out ? cleared : added
      document.showSchedule(
        withSpans(
          d.to === d.from
            ? before.current
            : change(before.current, Math.min(d.from, d.to), Math.max(d.from, d.to))
        )
      )
      return
    }
    const [from, to] = d.spans[d.index]!
    const pulled = d.what === 'to' ? to : from
    const end = parseSpanEnd(pulled)!
    // What is dragged snaps to half hours; ends tied to the sun keep to it by half hours.
    const by =
      'minutes' in end
        ? snap(end.minutes + minutesAt(e) - d.grabbed) - end.minutes
        : snap(minutesAt(e) - d.grabbed)
    document.showSchedule(
      withSpans(d.spans.map((s, i) => (i === d.index ? moved(s, by, d.what) : s)))
    )
  }
  const before = useRef<readonly Span[]>(spans)
  const end = (): void => {
    const d = drag.current
    drag.current = null
    if (!d) return
    if (d.what === 'new' && d.from === d.to) {
      document.cancelDrag()
      return onSpan(null)
    }
    const dragged = spansNow.current
    document.showSchedule(withSpans(tidy(dragged)))
    document.commitDrag(
      d.what === 'new'
        ? said('edits.takeHoursOutOf2', d.out, dayNames[weekday])
        : said('edits.changeOf2', dayNames[weekday], schedule.name)
    )
    const at = d.what === 'new' ? Math.min(d.from, d.to) : place(dragged[d.index]![0])
    const index = tidy(dragged).findIndex(([from, to]) => place(from) <= at && place(to) > at)
    onSpan(index < 0 ? null : { day: weekday, index })
  }
  const spansNow = useRef<readonly Span[]>(spans)
  useLayoutEffect(() => {
    spansNow.current = spans
  })
  const change = (next: readonly Span[], label: Said): void =>
    document.editSchedule(withSpans(next), label)
  const keys =
    (index: number, what: 'from' | 'to' | 'both') =>
    (e: KeyboardEvent): void => {
      const step = { ArrowUp: -1, ArrowDown: 1, PageUp: -SNAP, PageDown: SNAP }[e.key]
      if (step !== undefined) {
        e.preventDefault()
        e.stopPropagation()
        change(
          spans.map((s, i) => (i === index ? moved(s, step, what) : s)),
          said('edits.changeOf2', dayNames[weekday], schedule.name)
        )
      } else if (e.key === 'Delete' || e.key === 'Backspace') {
        e.preventDefault()
        change(
          spans.filter((_, i) => i !== index),
          said('edits.takeHoursOutOf3', dayNames[weekday])
        )
        onSpan(null)
      }
    }
  return (
    <div
      ref={column}
      className="day-column"
      onPointerDown={(e) => {
        before.current = spans
        const at = snap(minutesAt(e))
        begin(e, { what: 'new', from: at, to: at, out: e.altKey })
      }}
      onPointerMove={move}
      onPointerUp={end}
      onPointerCancel={() => {
        drag.current = null
        document.cancelDrag()
      }}
    >
      {children}
      {spans.map(([from, to], index) => {
        const [top, bottom] = [place(from), place(to)]
        const grab = (what: 'from' | 'to' | 'both') => (e: PointerEvent) => {
          // With Alt it is the column that is dragged over.
          if (e.altKey) return
          onSpan({ day: weekday, index })
          begin(e, { what, index, grabbed: minutesAt(e), spans })
        }
        const whole = top === 0 && bottom === DAY_MINUTES
        return (
          <div
            key={index}
            className={`armed-span${chosen === index ? ' chosen' : ''}`}
            style={{ top: percent(top), height: percent(Math.max(4, bottom - top)) }}
            role="group"
            aria-label={msg.to(dayNames[weekday], from, to)}
          >
            <button
              type="button"
              className="span-body"
              aria-label={msg.hoursOfTo(dayNames[weekday], whole, from, to)}
              aria-pressed={chosen === index}
              onPointerDown={grab('both')}
              onFocus={() => onSpan({ day: weekday, index })}
              onKeyDown={keys(index, 'both')}
            >
              {whole ? (
                <span className="mid" aria-hidden="true">
                  {msg.allDay}
                </span>
              ) : (
                <>
                  {top > 0 && (
                    <span className="top" aria-hidden="true">
                      {from.startsWith('sun') ? <Sun at={top} /> : from}
                    </span>
                  )}
                  {bottom < DAY_MINUTES && (
                    <span className="bottom" aria-hidden="true">
                      {to.startsWith('sun') ? <Sun at={bottom} /> : to}
                    </span>
                  )}
                </>
              )}
            </button>
            <div
              className={`span-handle upper${top < SNAP ? ' at-edge' : ''}`}
              role="slider"
              tabIndex={0}
              aria-label={msg.startOn(dayNames[weekday])}
              aria-orientation="vertical"
              aria-valuemin={0}
              aria-valuemax={DAY_MINUTES}
              aria-valuenow={top}
              aria-valuetext={from}
              onPointerDown={grab('from')}
              onFocus={() => onSpan({ day: weekday, index })}
              onKeyDown={keys(index, 'from')}
            />
            <div
              className={`span-handle lower${bottom > DAY_MINUTES - SNAP ? ' at-edge' : ''}`}
              role="slider"
              tabIndex={0}
              aria-label={msg.endOn(dayNames[weekday])}
              aria-orientation="vertical"
              aria-valuemin={0}
              aria-valuemax={DAY_MINUTES}
              aria-valuenow={bottom}
              aria-valuetext={to}
              onPointerDown={grab('to')}
              onFocus={() => onSpan({ day: weekday, index })}
              onKeyDown={keys(index, 'to')}
            />
          </div>
        )
      })}
    </div>
  )
}

/** A time that follows the sun. */
const Sun = ({ at }: { at: number }): ReactNode => (
  <>
    <SunOutlined aria-hidden /> {clockText(at)}
  </>
)

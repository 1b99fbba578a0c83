import { yearStrip as msg } from '../../core/messages/en/arming.ts'
import { useMemo, useRef, type KeyboardEvent, type ReactNode } from 'react'
import { Calendar, type CalendarDay } from '../../core/arming/calendar.ts'
import { spansText } from '../../core/arming/spansText.ts'
import { dateText } from '../../core/messages/format.ts'
import type { Schedule } from '../../core/formats/plan.ts'

const DAY = 24 * 60 * 60_000
const WEEKS = 53

/** The 53 weeks ahead, each date one cell: exceptions stand out, any date can be made one. Shift extends to a range. */
export function YearStrip({
  schedule,
  week,
  timeZone,
  chosen,
  today,
  onChoose
}: {
  schedule: Schedule
  /** The week on show. */ week: Calendar
  timeZone: string
  chosen: readonly string[]
  today: string
  onChoose: (dates: string[]) => void
}): ReactNode {
  const grid = useRef<HTMLDivElement>(null)
  const first = week.days[0]!
  const dates = useMemo(() => {
    const { days } = new Calendar(
      timeZone,
      undefined,
      first.from,
      first.from + (WEEKS * 7 + 1) * DAY
    )
    return days.filter((d, i) => i === 0 || d.date !== days[i - 1]!.date).slice(0, WEEKS * 7)
  }, [timeZone, first.from])
  const anchor = chosen[0] ?? today
  const index = Math.max(
    0,
    dates.findIndex((d) => d.date === (chosen[chosen.length - 1] ?? today))
  )
  const choose = (day: CalendarDay, extend: boolean): void => {
    if (!extend) return onChoose([day.date])
    const [a, b] = [dates.findIndex((d) => d.date === anchor), dates.indexOf(day)].sort(
      (x, y) => x - y
    ) as [number, number]
    const range = dates.slice(Math.max(0, a), b + 1).map((d) => d.date)
    onChoose(anchor <= day.date ? range : range.reverse())
  }
  const keys = (e: KeyboardEvent): void => {
    const step = { ArrowUp: -1, ArrowDown: 1, ArrowLeft: -7, ArrowRight: 7 }[e.key]
    if (step === undefined) return
    e.preventDefault()
    const next = dates[index + step]
    if (!next) return
    choose(next, e.shiftKey)
    requestAnimationFrame(() =>
      grid.current?.querySelector<HTMLElement>(`[data-date="${next.date}"]`)?.focus()
    )
  }
  return (
    <section className="year-strip" aria-label={msg.exceptionsAndHolidays}>
      <header>
        <h2>{msg.exceptionsAndHolidays}</h2>
        <span className="quiet">{msg.selectADateOr(schedule.exceptions.length)}</span>
      </header>
      <div className="year-months" aria-hidden="true">
        {dates
          .filter((_, i) => i % 7 === 0)
          .map((d, w, all) => {
            const month = Number(d.date.slice(5, 7))
            const before = w > 0 ? Number(all[w - 1]!.date.slice(5, 7)) : 0
            return month !== before &&
              (w === 0 || w < WEEKS - 2) &&
              !(w === 0 && Number(d.date.slice(8)) > 14) ? (
              <span key={d.date} style={{ gridColumnStart: w + 1 }}>
                {msg.month(month - 1)}
              </span>
            ) : null
          })}
      </div>
      <div
        ref={grid}
        className="year-cells"
        role="group"
        aria-label={msg.datesOfTheYearAhead}
        onKeyDown={keys}
      >
        {dates.map((day, i) => {
          const exception = schedule.exceptions.find((e) => e.date === day.date)
          const usual = schedule.week[day.weekday].length > 0
          const kind = exception
            ? exception.spans.length
              ? 'other'
              : 'none'
            : usual
              ? 'usual'
              : 'off'
          const words = exception
            ? msg.exception(
                exception.name ? ` ${exception.name}` : '',
                exception.spans.length,
                spansText(exception.spans)
              )
            : usual
              ? msg.asInTheWeek
              : msg.notArmedAsInThe
          return (
            <button
              key={day.date}
              type="button"
              data-date={day.date}
              tabIndex={i === index ? 0 : -1}
              className={`year-cell ${kind}${chosen.includes(day.date) ? ' chosen' : ''}${day.date === today ? ' today' : ''}`}
              aria-pressed={chosen.includes(day.date)}
              aria-label={`${dateText(day.date)}: ${words}`}
              title={`${dateText(day.date)}: ${words}`}
              onClick={(e) => choose(day, e.shiftKey)}
            />
          )
        })}
      </div>
    </section>
  )
}

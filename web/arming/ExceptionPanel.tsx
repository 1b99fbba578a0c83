import { type Said, said } from '../../core/messages/said.ts'
import { common } from '../../core/messages/en/common.ts'
import { exceptionPanel as msg } from '../../core/messages/en/arming.ts'
import { Button, Input } from 'antd'
import { useState, type ReactNode } from 'react'
import { withException } from '../../core/arming/spans.ts'
import { dateText } from '../../core/messages/format.ts'
import type { Schedule, Span } from '../../core/formats/plan.ts'
import type { SiteDocument } from '../sync/siteDocument.ts'
import { spansText } from '../../core/arming/spansText.ts'
import { Typed, keepSchedule } from './DayPanel.tsx'

/** What holds on the chosen dates instead of the week's hours. */
export function ExceptionPanel({
  schedule,
  dates,
  document,
  onClose
}: {
  schedule: Schedule
  dates: readonly string[]
  document: SiteDocument
  onClose: () => void
}): ReactNode {
  const sorted = [...dates].sort()
  const known = schedule.exceptions.filter((e) => dates.includes(e.date))
  const [name, setName] = useState(known[0]?.name ?? '')
  const what =
    sorted.length === 1
      ? dateText(sorted[0]!)
      : msg.to(dateText(sorted[0]!), dateText(sorted[sorted.length - 1]!))
  const set = (spans: Span[] | null, label: Said, called = name.trim()): string | null => {
    const next = dates.reduce(
      (s, date) => withException(s, date, spans && { ...(called && { name: called }), spans }),
      schedule
    )
    return keepSchedule(document, schedule, { exceptions: next.exceptions }, label)
  }
  const spans = known[0]?.spans ?? []
  return (
    <section aria-label={msg.exception} className="arming-section">
      <header className="row">
        <h2>{what}</h2>
        <Button size="small" type="text" onClick={onClose}>
          {common.close}
        </Button>
      </header>
      <p className="quiet">
        {known.length
          ? msg.anExceptionHolds(
              known.length === 1 && dates.length === 1,
              known.length,
              dates.length
            )
          : msg.theHoursOfTheWeek}
      </p>
      <Input
        aria-label={msg.nameOfTheException}
        placeholder={msg.nameSuchAsChristmasDay}
        value={name}
        maxLength={80}
        onChange={(e) => setName(e.target.value)}
        onBlur={() => known.length > 0 && set(spans, said('edits.nameTheExceptionOf', what))}
      />
      {known.length > 0 && (
        <Typed
          key={`${what} ${spansText(spans)}`}
          label={msg.hoursOfTheException}
          spans={spans}
          onKeep={(next) => set(next, said('edits.changeTheExceptionOf', what))}
        />
      )}
      <div className="row wrap">
        <Button size="small" onClick={() => set([], said('edits.notArmedOn', what))}>
          {msg.notArmed}
        </Button>
        <Button
          size="small"
          onClick={() => set([['00:00', '24:00']], said('edits.armedAllDayOn', what))}
        >
          {msg.armedAllDay}
        </Button>
        <Button
          size="small"
          disabled={!known.length}
          onClick={() => set(null, said('edits.asInTheWeekOn', what))}
        >
          {msg.asInTheWeek}
        </Button>
      </div>
    </section>
  )
}

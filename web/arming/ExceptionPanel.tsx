import { Button, Input } from 'antd'
import { useState, type ReactNode } from 'react'
import { withException } from '../../core/arming/spans.ts'
import { dateInWords } from '../../core/arming/stretches.ts'
import type { Schedule, Span } from '../../core/formats/plan.ts'
import type { SiteDocument } from '../sync/siteDocument.ts'
import { spansText } from './spansText.ts'
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
      ? dateInWords(sorted[0]!)
      : `${dateInWords(sorted[0]!)} to ${dateInWords(sorted[sorted.length - 1]!)}`
  const set = (spans: Span[] | null, label: string, called = name.trim()): string | null => {
    const next = dates.reduce(
      (s, date) => withException(s, date, spans && { ...(called && { name: called }), spans }),
      schedule
    )
    return keepSchedule(document, schedule, { exceptions: next.exceptions }, label)
  }
  const spans = known[0]?.spans ?? []
  return (
    <section aria-label="Exception" className="arming-section">
      <header className="row">
        <h2>{what}</h2>
        <Button size="small" type="text" onClick={onClose}>
          Close
        </Button>
      </header>
      <p className="quiet">
        {known.length
          ? `${known.length === 1 && dates.length === 1 ? 'An exception holds' : `Exceptions hold on ${known.length} of ${dates.length}`} instead of the week.`
          : 'The hours of the week hold. What is said here holds instead.'}
      </p>
      <Input
        aria-label="Name of the exception"
        placeholder="Name, such as Christmas Day"
        value={name}
        maxLength={80}
        onChange={(e) => setName(e.target.value)}
        onBlur={() => known.length > 0 && set(spans, `Name the exception of ${what}`)}
      />
      {known.length > 0 && (
        <Typed
          key={`${what} ${spansText(spans)}`}
          label="Hours of the exception"
          spans={spans}
          onKeep={(next) => set(next, `Change the exception of ${what}`)}
        />
      )}
      <div className="row wrap">
        <Button size="small" onClick={() => set([], `Not armed on ${what}`)}>
          Not armed
        </Button>
        <Button size="small" onClick={() => set([['00:00', '24:00']], `Armed all day on ${what}`)}>
          Armed all day
        </Button>
        <Button
          size="small"
          disabled={!known.length}
          onClick={() => set(null, `As in the week on ${what}`)}
        >
          As in the week
        </Button>
      </div>
    </section>
  )
}

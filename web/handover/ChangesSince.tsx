import { common } from '../../core/messages/en/common.ts'
import { problemWords } from '../../core/messages/errorWords.ts'
import { areas, changeWords, handoverPlace as msg } from '../../core/messages/en/handover.ts'
import { Alert, Select } from 'antd'
import { useState, type ReactNode } from 'react'
import type { RecordView } from '../../core/handover/views.ts'
import { useClock } from '../words/useClock.ts'
import { useChangesSince } from './useHandover.ts'

/** What has changed since a record, setting by setting; the newest one to begin with. */
export function ChangesSince({ records }: { records: readonly RecordView[] }): ReactNode {
  const clock = useClock()
  const [asked, setAsked] = useState<number | null>(null)
  const number = asked ?? records[0]!.number
  const { data, error } = useChangesSince(number)
  return (
    <section className="changes-since" aria-label={msg.since}>
      <header className="row wrap">
        <h2>{msg.since}</h2>
        {records.length > 1 ? (
          <Select
            size="small"
            aria-label={msg.record}
            value={number}
            onChange={setAsked}
            options={records.map((r) => ({
              value: r.number,
              label: msg.sinceRecord(r.number, clock.dateAndTime(r.madeAt))
            }))}
          />
        ) : (
          <span className="quiet">
            {msg.sinceRecord(number, clock.dateAndTime(records[0]!.madeAt))}
          </span>
        )}
      </header>
      {error && <Alert type="error" title={problemWords(error)} />}
      {!data && !error && <p className="quiet">{common.loading}</p>}
      {data && data.changes.length === 0 && <p className="quiet">{msg.nothingChanged}</p>}
      {data && data.changes.length > 0 && (
        <ul className="change-list">
          {data.changes.map(({ area, where, name, change, settings }, i) => (
            <li key={i}>
              <span className="change-area">{areas[area]}</span>
              <span className="change-name">
                {[where, name].filter(Boolean).join(', ')}
                {settings.length === 0 && ` ${changeWords[change]}`}
              </span>
              {settings.length > 0 && (
                <span className="change-settings">
                  {settings.map(({ setting, before, after }) => (
                    <span key={setting}>{changeWords.fromTo(setting, before, after)}</span>
                  ))}
                </span>
              )}
            </li>
          ))}
        </ul>
      )}
    </section>
  )
}

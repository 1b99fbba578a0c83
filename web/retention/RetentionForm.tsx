import { problemWords } from '../../core/messages/errorWords.ts'
import { common } from '../../core/messages/en/common.ts'
import { retentionForm as msg } from '../../core/messages/en/retention.ts'
import './retention.css'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Alert, App, Button, InputNumber } from 'antd'
import { useState, type ReactNode } from 'react'
import type { Retention, RetentionView } from '../../core/retention.ts'
import { request } from '../api/client.ts'

interface Line {
  key: keyof Retention
  name: string
  unit: string
  now: (v: RetentionView['now']) => string
}

const lines: readonly Line[] = [
  {
    key: 'alarmDays',
    name: msg.closedAlarms,
    unit: msg.days,
    now: (n) => msg.alarmsNow(n.alarms, n.triggers, n.deliveries)
  },
  {
    key: 'evidenceGigabytes',
    name: msg.evidenceAndPictures,
    unit: msg.gigabytes,
    now: (n) => msg.usedFreeOnThe(n.evidenceBytes, n.freeBytes)
  },
  { key: 'eventDays', name: msg.deviceEvents, unit: msg.days, now: (n) => msg.eventsNow(n.events) },
  { key: 'editDays', name: msg.historyOfEdits, unit: msg.days, now: (n) => msg.editsNow(n.edits) },
  {
    key: 'auditDays',
    name: msg.auditLog,
    unit: msg.days,
    now: (n) => msg.entriesNow(n.audit)
  }
]
const names = Object.fromEntries(lines.map(({ key, name }) => [key, name]))

/** How long, and how much, is kept of what the site gathers, beside how much there is now. */
export function RetentionForm(): ReactNode {
  const queries = useQueryClient()
  const { message } = App.useApp()
  const view = useQuery({
    queryKey: ['retention'],
    queryFn: () => request<RetentionView>('GET', '/api/retention')
  })
  const [edited, setEdited] = useState<Partial<Retention>>({})
  const [error, setError] = useState<string | null>(null)
  if (view.error && !view.data) return <Alert type="error" title={problemWords(view.error)} />
  if (!view.data) return <p className="quiet">{common.loading}</p>
  const { retention, version, now } = view.data
  const save = async (): Promise<void> => {
    try {
      queries.setQueryData(
        ['retention'],
        await request<RetentionView>('PUT', '/api/settings/retention', {
          version,
          retention: { ...retention, ...edited }
        })
      )
      setEdited({})
      setError(null)
      void message.success(msg.saved)
    } catch (problem) {
      setError(problemWords(problem, names))
    }
  }
  return (
    <form
      className="retention"
      onSubmit={(e) => {
        e.preventDefault()
        void save()
      }}
    >
      <p className="quiet">{msg.olderDataIsDeleted}</p>
      {lines.map(({ key, name, unit, now: words }) => (
        <label key={key} className="retention-line">
          <span>{name}</span>
          <InputNumber
            aria-label={msg.inUnit(name, unit)}
            value={edited[key] ?? retention[key]}
            min={key === 'evidenceGigabytes' ? 0.1 : 1}
            max={key === 'evidenceGigabytes' ? 10_000 : 3650}
            suffix={unit}
            onChange={(value) => setEdited({ ...edited, [key]: value ?? retention[key] })}
          />
          <span className="quiet figures">{words(now)}</span>
        </label>
      ))}
      {error && <Alert type="error" title={error} />}
      <Button type="primary" htmlType="submit" disabled={!Object.keys(edited).length}>
        {common.save}
      </Button>
    </form>
  )
}

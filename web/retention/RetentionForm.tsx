import './retention.css'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Alert, App, Button, InputNumber } from 'antd'
import { useState, type ReactNode } from 'react'
import type { Retention, RetentionView } from '../../core/retention.ts'
import { wordsOf } from '../accounts/errorWords.ts'
import { request } from '../api/client.ts'

const count = (n: number, one: string, many = `${one}s`): string =>
  `${n.toLocaleString('en-GB')} ${n === 1 ? one : many}`
const size = (bytes: number): string =>
  bytes >= 1e9 ? `${(bytes / 1e9).toFixed(1)} GB` : `${Math.round(bytes / 1e6)} MB`

interface Line {
  key: keyof Retention
  name: string
  unit: string
  now: (v: RetentionView['now']) => string
}

const lines: readonly Line[] = [
  {
    key: 'alarmDays',
    name: 'Closed alarms',
    unit: 'days',
    now: (n) =>
      `${count(n.alarms, 'alarm')}, ${count(n.triggers, 'trigger')}, ${count(n.deliveries, 'delivery', 'deliveries')}`
  },
  {
    key: 'evidenceGigabytes',
    name: 'Evidence and pictures',
    unit: 'GB',
    now: (n) => `${size(n.evidenceBytes)} used, ${size(n.freeBytes)} free on the disk`
  },
  { key: 'eventDays', name: 'Device events', unit: 'days', now: (n) => count(n.events, 'event') },
  { key: 'editDays', name: 'History of edits', unit: 'days', now: (n) => count(n.edits, 'edit') },
  {
    key: 'auditDays',
    name: 'Audit list',
    unit: 'days',
    now: (n) => count(n.audit, 'entry', 'entries')
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
  if (view.error && !view.data) return <Alert type="error" title={view.error.message} />
  if (!view.data) return <p className="quiet">Loading…</p>
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
      void message.success('Saved')
    } catch (problem) {
      setError(wordsOf(problem, names))
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
      <p className="quiet">
        What is older goes in small steps. Nothing goes that an open alarm needs.
      </p>
      {lines.map(({ key, name, unit, now: words }) => (
        <label key={key} className="retention-line">
          <span>{name}</span>
          <InputNumber
            aria-label={`${name}, ${unit}`}
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
        Save
      </Button>
    </form>
  )
}

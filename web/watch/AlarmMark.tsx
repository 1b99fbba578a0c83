import { marking as msg } from '../../core/messages/en/bench/lookBack.ts'
import { alarmDesk } from '../../core/messages/en/watch.ts'
import { problemWords } from '../../core/messages/errorWords.ts'
import { useQueryClient } from '@tanstack/react-query'
import { Alert, Button, Select } from 'antd'
import { useEffect, useState, type ReactNode } from 'react'
import type { AlarmView } from '../../core/api.ts'
import { MARKS, MARK_REASONS, type MarkKind, type MarkReason } from '../../core/marks/marks.ts'
import { request } from '../api/client.ts'
import { useStable } from '../stable.ts'

const KEYS: Readonly<Record<string, MarkKind>> = { w: 'wanted', n: 'nuisance' }

/** Whether somebody is writing: then a letter is a letter. */
const isWriting = (at: EventTarget | null): boolean =>
  at instanceof HTMLElement &&
  (at.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(at.tagName))

/** Says of an alarm whether it was wanted; with one key, as many are closed in a night. */
export function AlarmMark({ alarm }: { alarm: AlarmView }): ReactNode {
  const queries = useQueryClient()
  const [reason, setReason] = useState<MarkReason | null>(null)
  const [error, setError] = useState<string | null>(null)
  const say = useStable((mark: MarkKind, why: MarkReason | null): void => {
    void request('POST', `/alarms/${alarm.id}/mark`, { mark, reason: why })
      .then(
        () => setError(null),
        (problem: unknown) => setError(problemWords(problem))
      )
      .finally(() => void queries.invalidateQueries({ queryKey: ['alarms'] }))
  })
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      const mark = KEYS[event.key.toLowerCase()]
      if (!mark || event.ctrlKey || event.metaKey || event.altKey || isWriting(event.target)) return
      event.preventDefault()
      say(mark, null)
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [say])
  return (
    <div className="alarm-marking" role="group" aria-label={alarmDesk.wasIt}>
      <p className="quiet">{alarmDesk.wasIt}</p>
      <div className="row">
        {MARKS.map((mark) => (
          <Button
            key={mark}
            type={alarm.mark === mark ? 'primary' : 'default'}
            aria-pressed={alarm.mark === mark}
            onClick={() => say(mark, null)}
          >
            {msg[mark]} <kbd>{alarmDesk.markKeys[mark]}</kbd>
          </Button>
        ))}
        {alarm.mark === 'nuisance' && (
          <Select
            aria-label={msg.why}
            placeholder={msg.why}
            value={reason ?? undefined}
            popupMatchSelectWidth={false}
            onChange={(why) => {
              setReason(why)
              say('nuisance', why)
            }}
            options={MARK_REASONS.map((value) => ({ value, label: msg.reasons[value] }))}
          />
        )}
      </div>
      {error && <Alert type="error" title={error} />}
    </div>
  )
}

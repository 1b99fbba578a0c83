import { wordsOf } from '../../core/messages/words.ts'
import { problemWords } from '../../core/messages/errorWords.ts'
import { common } from '../../core/messages/en/common.ts'
import { alarmDesk as msg, alarmQueue as queue } from '../../core/messages/en/watch.ts'
import { faceOf } from '../actions/kinds.ts'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Alert, App, Button, Checkbox, Dropdown, Input } from 'antd'
import { useState, type ReactNode } from 'react'
import type { AlarmNote, AlarmView, DeliveryView } from '../../core/api.ts'
import { request } from '../api/client.ts'
import { ByTrigger } from '../alarms/ByTrigger.tsx'
import { AlarmMark } from './AlarmMark.tsx'
import { AlarmEvidence } from './AlarmEvidence.tsx'
import { alarmFacts } from '../alarms/facts.ts'
import { Flag, Passed } from '../words/signs.tsx'
import { NoteText } from '../words/NoteText.tsx'
import { useClock } from '../words/useClock.ts'
import { seconds } from '../../core/messages/format.ts'
import { alarm as shared } from '../../core/messages/en/alarms.ts'

/** One alarm: what it is, what was done about it, and what can be done now. */
export function AlarmDesk({
  alarm: a,
  earlier,
  people,
  mayAct
}: {
  alarm: AlarmView
  /** Earlier ones of the same detection that are in the same state. */
  earlier: readonly AlarmView[]
  people: readonly string[]
  mayAct: boolean
}): ReactNode {
  const queries = useQueryClient()
  const { message } = App.useApp()
  const clock = useClock()
  const [words, setWords] = useState('')
  const [confirmed, setConfirmed] = useState(false)
  const [all, setAll] = useState(false)
  const [error, setError] = useState<string | null>(null)
  const notes = useQuery({
    queryKey: ['notes', a.id],
    queryFn: () => request<AlarmNote[]>('GET', `/alarms/${a.id}/notes`),
    refetchInterval: 4000
  })
  const act = async (path: string, body: object): Promise<void> => {
    setError(null)
    try {
      const also = all && (path === 'acknowledge' || path === 'close') ? earlier : []
      for (const { id } of [a, ...also]) await request('POST', `/alarms/${id}/${path}`, body)
      setAll(false)
      setWords('')
      setConfirmed(false)
    } catch (problem) {
      setError(problemWords(problem, { words: shared.comment }))
    } finally {
      await Promise.all([
        queries.invalidateQueries({ queryKey: ['alarms'] }),
        queries.invalidateQueries({ queryKey: ['notes', a.id] })
      ])
    }
  }
  return (
    <section className="alarm-desk" aria-label={msg.alarm(a.name)}>
      <header>
        <h2>
          {a.state === 'waiting' ? <Flag /> : <Passed />} {a.name}
        </h2>
        <p className="quiet">{[...alarmFacts(a, clock), shared.states[a.state]].join(' · ')}</p>
      </header>
      {a.note && <NoteText note={a.note} />}
      {mayAct && a.state !== 'closed' && (
        <form
          onSubmit={(e) => {
            e.preventDefault()
            void act(
              a.state === 'waiting' ? 'acknowledge' : 'notes',
              a.state === 'waiting' ? { comment: words, confirmed } : { words }
            )
          }}
        >
          <Input.TextArea
            aria-label={shared.comment}
            placeholder={
              a.state === 'waiting' && a.acknowledge.comment
                ? shared.commentRequired
                : shared.comment
            }
            rows={2}
            className="grows"
            maxLength={2000}
            value={words}
            onChange={(e) => setWords(e.target.value)}
          />
          {a.state === 'waiting' && a.acknowledge.confirm && (
            <Checkbox checked={confirmed} onChange={(e) => setConfirmed(e.target.checked)}>
              {shared.checked}
            </Checkbox>
          )}
          {earlier.length > 0 && (
            <Checkbox checked={all} onChange={(e) => setAll(e.target.checked)}>
              {queue.also(earlier.length)}
            </Checkbox>
          )}
          {error && <Alert type="error" title={error} />}
          <div className="row">
            {a.state === 'waiting' ? (
              <Button type="primary" htmlType="submit">
                {shared.acknowledge}
              </Button>
            ) : (
              <Button type="primary" onClick={() => void act('close', { words })}>
                {msg.closeIt}
              </Button>
            )}
            <Button disabled={!words.trim()} onClick={() => void act('notes', { words })}>
              {msg.addComment}
            </Button>
            <Dropdown
              trigger={['click']}
              menu={{
                items: people.map((name) => ({
                  key: name,
                  label: name,
                  onClick: () =>
                    void act('hand', { to: name }).then(
                      () => void message.success(msg.assignedTo(name))
                    )
                }))
              }}
            >
              <Button>{msg.assignTo}</Button>
            </Dropdown>
          </div>
        </form>
      )}
      {mayAct && <AlarmMark alarm={a} />}
      <AlarmEvidence alarm={a} />
      <h3>{msg.whoDidWhat}</h3>
      <ol className="alarm-notes">
        <li>
          <span className="figures">{clock.time(a.firstAt)}</span> {msg.triggered}
        </li>
        {notes.data?.map((n) => (
          <li key={n.id}>
            <span className="figures">{clock.time(n.at)}</span> {msg.log[n.what](n.by, n.words)}
          </li>
        ))}
      </ol>
      <h3>{msg.actions}</h3>
      {a.deliveries.length === 0 ? (
        <p className="quiet">{msg.noActions}</p>
      ) : (
        <ByTrigger
          deliveries={a.deliveries}
          show={(deliveries) => <Effects deliveries={deliveries} />}
        />
      )}
    </section>
  )
}

const Effects = ({ deliveries }: { deliveries: readonly DeliveryView[] }): ReactNode => (
  <ul className="alarm-effects">
    {deliveries.map((d) => (
      <li key={d.id} className={d.state}>
        {faceOf(d.kind).icon} {d.name}
        {d.does === 'off' && common.off}:{' '}
        {d.state === 'sent'
          ? msg.deliveredAfter(seconds((d.sentAt! - d.createdAt) / 1000))
          : d.state === 'pending'
            ? common.pending
            : d.state === 'held'
              ? msg.skipped(d.error && wordsOf(d.error))
              : msg.failed(d.error && wordsOf(d.error))}
      </li>
    ))}
  </ul>
)

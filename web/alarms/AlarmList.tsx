import { wordsOf } from '../../core/messages/words.ts'
import { problemWords } from '../../core/messages/errorWords.ts'
import { common } from '../../core/messages/en/common.ts'
import { alarmList as msg, alarm as shared } from '../../core/messages/en/alarms.ts'
import './alarms.css'
import { faceOf } from '../actions/kinds.ts'
import { useQueryClient } from '@tanstack/react-query'
import { Alert, App, Button, Checkbox, Input, Popover } from 'antd'
import { useState, type ReactNode } from 'react'
import { Link } from 'react-router'
import { byPriority } from '../../core/actions/alarms.ts'
import type { AlarmView, DeliveryView } from '../../core/api.ts'
import { request } from '../api/client.ts'
import { seconds } from '../../core/messages/format.ts'
import { Failed, Flag, Passed } from '../words/signs.tsx'
import { useClock } from '../words/useClock.ts'
import { alarmFacts } from './facts.ts'
import { ByTrigger } from './ByTrigger.tsx'
import { marks } from './marks.tsx'
import { useAlarms, useAttempts } from './useAlarms.ts'

/** Those that wait first, by their priority; then the others, newest first. */
const inOrder = (alarms: readonly AlarmView[]): AlarmView[] => [
  ...alarms.filter((a) => a.state === 'waiting').sort(byPriority),
  ...alarms.filter((a) => a.state !== 'waiting')
]

/** The alarms, each with its deliveries. */
export function AlarmList(): ReactNode {
  const alarms = useAlarms()
  if (alarms.error && !alarms.data)
    return <Alert type="error" showIcon title={problemWords(alarms.error)} />
  if (!alarms.data) return <p className="waiting">{common.loading}</p>
  if (!alarms.data.alarms.length) return <p className="waiting">{msg.noAlarmYetATrigger}</p>
  return (
    <ol className="alarm-list">
      {inOrder(alarms.data.alarms).map((alarm) => (
        <Alarm key={alarm.id} alarm={alarm} />
      ))}
    </ol>
  )
}

function Alarm({ alarm: a }: { alarm: AlarmView }): ReactNode {
  const clock = useClock()
  return (
    <li className={`alarm ${a.state === 'waiting' ? 'is-waiting' : ''}`}>
      <header>
        <span className="alarm-mark" aria-hidden="true">
          {a.state === 'waiting' ? <Flag /> : <Passed />}
        </span>
        <strong>{a.name}</strong>
        <span className="quiet">{alarmFacts(a, clock).join(' · ')}</span>
        <span className="grow" />
        {a.state === 'waiting' ? (
          <Acknowledge alarm={a} />
        ) : (
          <span className="quiet">
            {msg.acknowledgedBy(a.acknowledgedBy!, clock.time(a.acknowledgedAt!), a.comment ?? '')}
          </span>
        )}
      </header>
      {a.deliveries.length === 0 && (
        <p className="quiet">
          {msg.noActions}{' '}
          <Link to={`/actions?camera=${a.camera}&detection=${a.detection}`}>{msg.addActions}</Link>.
        </p>
      )}
      <ByTrigger
        deliveries={a.deliveries}
        show={(deliveries) => <Deliveries deliveries={deliveries} />}
      />
    </li>
  )
}

const Deliveries = ({ deliveries }: { deliveries: readonly DeliveryView[] }): ReactNode => (
  <ul>
    {deliveries.map((d) => (
      <Delivery key={d.id} delivery={d} />
    ))}
  </ul>
)

function Delivery({ delivery: d }: { delivery: DeliveryView }): ReactNode {
  const queries = useQueryClient()
  const { message } = App.useApp()
  const [open, setOpen] = useState(false)
  const attempts = useAttempts(d.id, open)
  const { mark, words } = marks[d.state]
  const clock = useClock()
  const history = (
    <ul className="attempts">
      {attempts.data?.length === 0 && <li className="quiet">{msg.notTriedYet}</li>}
      {attempts.data?.map((t) => (
        <li key={t.at} className={t.ok ? '' : 'failed'}>
          <span className="figures">{clock.time(t.at)}</span> {t.ok ? <Passed /> : <Failed />}{' '}
          {wordsOf(t.outcome)}
        </li>
      ))}
    </ul>
  )
  return (
    <li className={`delivery ${d.state}`}>
      <span className="delivery-mark">{mark}</span>
      <span>
        {faceOf(d.kind).icon} <b>{d.name}</b>
        {d.does === 'off' && common.off} <span className="quiet">{d.recipient}</span>
      </span>
      <span>
        {d.state === 'sent' && d.sentAt !== null
          ? msg.after(words, seconds((d.sentAt - d.createdAt) / 1000))
          : words}
        {d.state !== 'held' && (
          <span className="quiet"> {d.by === 'camera' ? msg.byTheCamera : msg.byTheServer}</span>
        )}
        {d.error && (
          <span className={d.state === 'failed' ? 'failed' : 'quiet'}>: {wordsOf(d.error)}</span>
        )}
        {d.state === 'pending' && d.attempts > 0 && (
          <span className="quiet">; {msg.soFarNextAt(d.attempts, clock.time(d.nextAt!))}</span>
        )}
      </span>
      <span className="row">
        {d.state === 'failed' && (
          <Button
            size="small"
            onClick={() =>
              void request('POST', `/deliveries/${d.id}/retry`).then(
                () => queries.invalidateQueries({ queryKey: ['alarms'] }),
                (e: Error) => message.error(problemWords(e))
              )
            }
          >
            {common.retry}
          </Button>
        )}
        {d.state !== 'held' && (
          <Popover
            trigger="click"
            open={open}
            onOpenChange={setOpen}
            content={history}
            title={msg.soFar(d.attempts)}
          >
            <Button size="small" type="text" aria-label={msg.historyOf(d.name)}>
              {msg.history}
            </Button>
          </Popover>
        )}
      </span>
    </li>
  )
}

function Acknowledge({ alarm: a }: { alarm: AlarmView }): ReactNode {
  const queries = useQueryClient()
  const [open, setOpen] = useState(false)
  const [comment, setComment] = useState('')
  const [confirmed, setConfirmed] = useState(false)
  const [error, setError] = useState<string | null>(null)
  const acknowledge = async (): Promise<void> => {
    try {
      await request('POST', `/alarms/${a.id}/acknowledge`, { comment, confirmed })
      setOpen(false)
    } catch (problem) {
      setError(problemWords(problem))
    } finally {
      void queries.invalidateQueries({ queryKey: ['alarms'] })
    }
  }
  const form = (
    <form
      className="acknowledge"
      onSubmit={(e) => {
        e.preventDefault()
        void acknowledge()
      }}
    >
      <Input.TextArea
        aria-label={shared.comment}
        placeholder={a.acknowledge.comment ? shared.commentRequired : shared.comment}
        rows={2}
        value={comment}
        onChange={(e) => setComment(e.target.value)}
      />
      {a.acknowledge.confirm && (
        <Checkbox checked={confirmed} onChange={(e) => setConfirmed(e.target.checked)}>
          {shared.checked}
        </Checkbox>
      )}
      {error && (
        <span className="field-error" role="alert">
          {error}
        </span>
      )}
      <Button type="primary" size="small" htmlType="submit">
        {shared.acknowledge}
      </Button>
    </form>
  )
  return (
    <Popover
      trigger="click"
      placement="bottomRight"
      open={open}
      onOpenChange={setOpen}
      content={form}
    >
      <Button size="small">{msg.acknowledge}</Button>
    </Popover>
  )
}

import { clipTime } from '../../../core/messages/format.ts'
import { wordsOf } from '../../../core/messages/words.ts'
import { common } from '../../../core/messages/en/common.ts'
import { marks } from '../../alarms/marks.tsx'
import { runPanel as msg } from '../../../core/messages/en/bench/runs.ts'
import './runs.css'
import '../bench.css'
import { CloseOutlined } from '@ant-design/icons'
import { Button, Progress } from 'antd'
import type { ReactNode } from 'react'
import { Link } from 'react-router'
import type { RunTrigger, RunView } from '../../../core/api.ts'
import type { Detection } from '../../../core/formats/plan.ts'
import { pathWords } from '../../../core/kinds/words.ts'
import { request } from '../../api/client.ts'

const states: Record<RunView['state'], string> = {
  running: msg.running,
  finished: msg.finished,
  stopped: msg.stopped,
  failed: msg.failed
}
/** A clip replayed as live: its triggers as they come, and the actions of each. */
export function RunPanel({
  run,
  detections,
  onClose,
  onTrigger
}: {
  run: RunView
  detections: Detection[]
  onClose: () => void
  onTrigger: (trigger: RunTrigger) => void
}): ReactNode {
  return (
    <section className="run-panel" aria-label={msg.replayAsLive}>
      <header>
        <h3>
          {states[run.state]}
          {run.state === 'running' && (
            <>
              {' '}
              <span className="figures">{clipTime(run.at)}</span>
            </>
          )}
        </h3>
        {run.state === 'running' ? (
          <Button
            size="small"
            onClick={() => void request('POST', `/runs/${run.id}/stop`).catch(() => {})}
          >
            {common.stop}
          </Button>
        ) : (
          <Button
            size="small"
            type="text"
            aria-label={common.close}
            icon={<CloseOutlined aria-hidden />}
            onClick={onClose}
          />
        )}
      </header>
      <Progress size="small" percent={Math.round((100 * run.at) / run.seconds)} showInfo={false} />
      {run.triggers.length === 0 && (
        <p className="quiet">{run.state === 'running' ? msg.noTriggerSoFar : msg.noTriggers}</p>
      )}
      <ol>
        {run.triggers.map((t) => {
          const detection = detections.find((d) => d.id === t.detection)
          return (
            <li key={t.id}>
              <button type="button" className="link" onClick={() => onTrigger(t)}>
                <span className="figures">{clipTime(t.time)}</span> <b>{t.name}</b>{' '}
                {detection && pathWords(detection, t.direction)}
              </button>
              {t.deliveries.length === 0 && <span className="quiet">{msg.noActions}</span>}
              {t.deliveries.map((d) => (
                <span key={d.id} className={d.state === 'failed' ? 'failed' : 'quiet'}>
                  {d.name}: {marks[d.state].words}
                  {d.error && msg.attempt(wordsOf(d.error), d.attempts)}
                </span>
              ))}
            </li>
          )
        })}
      </ol>
      <Link to="/mailbox">{msg.openTheMailbox}</Link>
    </section>
  )
}

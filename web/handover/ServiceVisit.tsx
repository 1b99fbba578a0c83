import { problemWords } from '../../core/messages/errorWords.ts'
import { handoverPlace as msg } from '../../core/messages/en/handover.ts'
import { useQueryClient } from '@tanstack/react-query'
import { Alert, Button, Select } from 'antd'
import { useState, type ReactNode } from 'react'
import { Link } from 'react-router'
import type { HandoverView } from '../../core/handover/views.ts'
import { request } from '../api/client.ts'
import { useClock } from '../words/useClock.ts'
import { HANDOVER } from './useHandover.ts'

/** A service visit: started against a record, worked through on site, and ended with a record of its own. */
export function ServiceVisit({
  view,
  busy,
  onFinish
}: {
  view: HandoverView
  /** A record is being made. */
  busy: boolean
  onFinish: () => void
}): ReactNode {
  const queries = useQueryClient()
  const clock = useClock()
  const handovers = view.records.filter(({ kind }) => kind === 'handover')
  const [asked, setAsked] = useState<number | null>(null)
  const [error, setError] = useState<string | null>(null)
  const act = async (work: Promise<unknown>): Promise<void> => {
    try {
      await work
      setError(null)
    } catch (problem) {
      setError(problemWords(problem))
    }
    await queries.invalidateQueries({ queryKey: HANDOVER })
  }
  const { visit } = view
  const number = asked ?? handovers[0]?.number
  return (
    <section className="service-visit" aria-label={msg.service}>
      <h2>{msg.service}</h2>
      {error && <Alert type="error" title={error} />}
      {visit ? (
        <>
          <p className="quiet">
            {msg.visitSince(clock.dateAndTime(visit.startedAt), visit.by, visit.record)}
          </p>
          <ol className="visit-steps">
            <li>
              <Link to="/prove/walk">{msg.visitSteps.walk}</Link>
              <span className="figures">{msg.walked(visit.walked.of)}</span>
              <span className="quiet">{msg.visitWalk}</span>
            </li>
            <li>
              <Link to="/actions">{msg.visitSteps.outputs}</Link>
              <span className="figures">{msg.tested(visit.outputs.tested, visit.outputs.of)}</span>
              <span className="quiet">{msg.visitOutputs}</span>
            </li>
            <li>
              <b>{msg.visitSteps.finish}</b>
              <span />
              <span className="quiet">{msg.visitFinish}</span>
            </li>
          </ol>
          <div className="row">
            <Button type="primary" disabled={busy} onClick={onFinish}>
              {msg.finishVisit}
            </Button>
            <Button disabled={busy} onClick={() => void act(request('DELETE', '/handover/visit'))}>
              {msg.cancelVisit}
            </Button>
          </div>
        </>
      ) : (
        <>
          <p className="quiet">{msg.serviceHelp}</p>
          <div className="row wrap">
            {handovers.length > 1 && (
              <Select
                aria-label={msg.record}
                value={number}
                onChange={setAsked}
                options={handovers.map((r) => ({
                  value: r.number,
                  label: msg.sinceRecord(r.number, clock.dateAndTime(r.madeAt))
                }))}
              />
            )}
            <Button
              disabled={number === undefined}
              onClick={() => void act(request('POST', '/handover/visit', { record: number }))}
            >
              {msg.startVisit}
            </Button>
          </div>
        </>
      )}
    </section>
  )
}

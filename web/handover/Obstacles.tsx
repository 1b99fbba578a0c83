import { common } from '../../core/messages/en/common.ts'
import { problemWords } from '../../core/messages/errorWords.ts'
import { handoverPlace as msg } from '../../core/messages/en/handover.ts'
import { emptyPlace } from '../../core/messages/en/shell.ts'
import { said } from '../../core/messages/said.ts'
import { wordsOf } from '../../core/messages/words.ts'
import { useQueryClient } from '@tanstack/react-query'
import { Alert, Button, Input, Modal } from 'antd'
import { useState, type ReactNode } from 'react'
import { Link } from 'react-router'
import { findingKey, type Finding } from '../../core/readiness/index.ts'
import type { HandoverView } from '../../core/handover/views.ts'
import { request } from '../api/client.ts'
import { useSite } from '../api/queries.ts'
import { useDevices } from '../devices/useDevices.ts'
import { Findings } from '../readiness/Findings.tsx'
import { useClock } from '../words/useClock.ts'
import { HANDOVER } from './useHandover.ts'

/** What stands in the way of a clean record, each with its fix, or accepted on purpose; and what was accepted. */
export function Obstacles({ view }: { view: HandoverView }): ReactNode {
  const queries = useQueryClient()
  const clock = useClock()
  const site = useSite()
  const devices = useDevices()
  const [accepting, setAccepting] = useState<Finding | null>(null)
  const [error, setError] = useState<string | null>(null)
  const names = new Map(
    [...(site.data?.cameras ?? []), ...(devices.data ?? [])].map(({ id, name }) => [id, name])
  )
  if (site.data?.cameras.length === 0)
    return (
      <section className="obstacles" aria-label={emptyPlace.noCameras}>
        <h2>{emptyPlace.noCameras}</h2>
        <p className="quiet">
          {wordsOf(said('handover.siteIsEmpty'))} <Link to="/site">{emptyPlace.goToTheSite}</Link>
        </p>
      </section>
    )
  const takeBack = async (key: string): Promise<void> => {
    try {
      await request('DELETE', `/handover/accepted?key=${encodeURIComponent(key)}`)
      setError(null)
    } catch (problem) {
      setError(problemWords(problem))
    }
    await queries.invalidateQueries({ queryKey: HANDOVER })
  }
  return (
    <section className="obstacles" aria-label={msg.stands(view.open.length)}>
      <h2>{msg.stands(view.open.length)}</h2>
      {error && <Alert type="error" title={error} />}
      <Findings
        findings={view.open}
        names={names}
        more={(finding) => (
          <Button size="small" type="text" onClick={() => setAccepting(finding)}>
            {msg.accept}
          </Button>
        )}
      />
      {view.accepted.length > 0 && (
        <>
          <h3>{msg.accepted(view.accepted.length)}</h3>
          <ul className="accepted-issues">
            {view.accepted.map(({ key, sentence, reason, by, at }) => (
              <li key={key}>
                <span>
                  {sentence}
                  <br />
                  <b>{reason}</b>{' '}
                  <span className="quiet">{msg.acceptedBy(by, clock.dateAndTime(at))}</span>
                </span>
                <Button size="small" type="text" onClick={() => void takeBack(key)}>
                  {msg.takeBack}
                </Button>
              </li>
            ))}
          </ul>
        </>
      )}
      {view.hints.length > 0 && (
        <details className="hints">
          <summary>{msg.hints(view.hints.length)}</summary>
          <Findings findings={view.hints} names={names} />
        </details>
      )}
      {accepting && <AcceptDialog finding={accepting} onClose={() => setAccepting(null)} />}
    </section>
  )
}

function AcceptDialog({ finding, onClose }: { finding: Finding; onClose: () => void }): ReactNode {
  const queries = useQueryClient()
  const [reason, setReason] = useState('')
  const [error, setError] = useState<string | null>(null)
  const accept = async (): Promise<void> => {
    try {
      await request('POST', '/handover/accepted', { key: findingKey(finding), reason })
      await queries.invalidateQueries({ queryKey: HANDOVER })
      onClose()
    } catch (problem) {
      setError(problemWords(problem))
    }
  }
  return (
    <Modal
      open
      title={msg.acceptTitle}
      okText={msg.acceptTitle}
      okButtonProps={{ disabled: !reason.trim() }}
      cancelText={common.cancel}
      onOk={() => void accept()}
      onCancel={onClose}
    >
      <div className="handover-form">
        <p>{wordsOf(finding.sentence)}</p>
        <label className="field">
          <span>{msg.reason}</span>
          <Input.TextArea
            rows={2}
            autoFocus
            maxLength={400}
            value={reason}
            onChange={(event) => setReason(event.target.value)}
          />
        </label>
        {error && <Alert type="error" title={error} />}
      </div>
    </Modal>
  )
}

import { wordsOf } from '../../core/messages/words.ts'
import { type Said, said } from '../../core/messages/said.ts'
import { problemWords } from '../../core/messages/errorWords.ts'
import { common } from '../../core/messages/en/common.ts'
import { endpointPanel as msg } from '../../core/messages/en/actions/actions.ts'
import { DeleteOutlined, ThunderboltOutlined } from '@ant-design/icons'
import { useQueryClient } from '@tanstack/react-query'
import { Alert, Button, Popconfirm, Select } from 'antd'
import { useState, type ReactNode } from 'react'
import { Link } from 'react-router'
import type { SiteActionsView } from '../../core/api.ts'
import { refusalOf } from '../sync/refusal.ts'
import { EndpointSchema, isOutput, type Endpoint } from '../../core/formats/actions.ts'
import { request } from '../api/client.ts'
import { keyOf, type SiteDocument, type SiteState } from '../sync/siteDocument.ts'
import { faceOf } from './kinds.ts'
import { Field, TextField } from './fields.tsx'
import { useSimulators } from './useSimulators.ts'
import { Failed, Passed } from '../words/signs.tsx'
import { useClock } from '../words/useClock.ts'
import { parseWith } from '../../core/schema/parse.ts'

const ANY_TIME = ''

/** The settings of an action, and its test. */
export function EndpointPanel({
  endpoint: e,
  missing,
  view,
  state,
  document,
  onRemoved
}: {
  endpoint: Endpoint
  missing: Said | null
  view: SiteActionsView
  state: SiteState
  document: SiteDocument
  onRemoved: () => void
}): ReactNode {
  const queries = useQueryClient()
  const simulators = useSimulators()
  const [testing, setTesting] = useState(false)
  const [result, setResult] = useState<{ ok: boolean; words: string } | null>(null)
  const kept = view.endpoints.find(({ endpoint }) => endpoint.id === e.id)
  const keep = (change: Partial<Endpoint>, label = said('edits.edit', e.name)): string | null => {
    return refusalOf(() => {
      document.editEndpoint(parseWith(EndpointSchema, { ...e, ...change }), label)
      setResult(null)
    })
  }
  const test = async (): Promise<void> => {
    setTesting(true)
    try {
      const { outcome } = await request<{ outcome: Said | string }>(
        'POST',
        `/endpoints/${encodeURIComponent(e.id)}/test`
      )
      setResult({ ok: true, words: wordsOf(outcome) })
    } catch (error) {
      setResult({ ok: false, words: problemWords(error) })
    } finally {
      setTesting(false)
      await queries.invalidateQueries({ queryKey: ['actions'] })
      void queries.invalidateQueries({ queryKey: ['readiness'] })
    }
  }
  const clock = useClock()
  const users = state.detections.filter((d) => state.actions.get(keyOf(d))?.links.includes(e.id))
  const output = isOutput(e)
    ? view.outputs.find((o) => o.device === e.device && o.token === e.output)
    : null
  const face = faceOf(e.kind)
  return (
    <article className="action-panel" aria-label={e.name}>
      <header className="row">
        <h2>
          {face.icon} {face.name}
          {output && <span className="quiet"> {msg.on(output.deviceName)}</span>}
        </h2>
        <Popconfirm
          title={msg.delete(e.name)}
          description={users.length ? msg.itUndoBringsIt(users.length) : msg.undoBringsItBack}
          okText={common.delete}
          cancelText={common.cancel}
          onConfirm={() => {
            document.removeEndpoint(e)
            onRemoved()
          }}
        >
          <Button
            type="text"
            aria-label={msg.delete3(e.name)}
            icon={<DeleteOutlined aria-hidden />}
          />
        </Popconfirm>
      </header>
      {missing && <Alert type="error" title={msg.notReady(wordsOf(missing))} />}
      <TextField
        key={`name ${e.name}`}
        label={common.name}
        value={e.name}
        onKeep={(name) => keep({ name }, said('edits.rename', e.name))}
      />
      <face.Fields endpoint={e} view={view} state={state} keep={keep} />
      <Field label={msg.schedule}>
        <Select
          size="small"
          aria-label={msg.schedule}
          value={e.schedule ?? ANY_TIME}
          options={[
            { value: ANY_TIME, label: msg.always },
            ...state.schedules.map((s) => ({ value: s.id, label: s.name }))
          ]}
          onChange={(id: string) =>
            keep({ schedule: id === ANY_TIME ? undefined : id }, said('edits.hoursOf', e.name))
          }
        />
        {e.schedule && <Link to={`/arming/${e.schedule}`}>{msg.openInArming}</Link>}
      </Field>
      <div className="test-row">
        <Button
          icon={<ThunderboltOutlined aria-hidden />}
          loading={testing}
          disabled={state.status !== 'saved'}
          onClick={() => void test()}
        >
          {face.test}
        </Button>
        {simulators && face.simulated === '/mailbox' && (
          <Link to={face.simulated}>{msg.openMailbox}</Link>
        )}
        {simulators && face.simulated !== null && face.simulated !== '/mailbox' && (
          <a href={`${simulators.pages}${face.simulated}`} target="_blank" rel="noreferrer">
            {msg.openSimulator}
          </a>
        )}
        <p role="status" className={(result ? !result.ok : kept?.testError) ? 'failed' : 'quiet'}>
          {result && (result.ok ? <Passed /> : <Failed />)}{' '}
          {result
            ? result.words
            : kept?.testedAt
              ? kept.testError
                ? msg.testFailed(clock.dateAndTime(kept.testedAt), wordsOf(kept.testError))
                : msg.tested(clock.dateAndTime(kept.testedAt))
              : msg.notTestedWithThese}
        </p>
      </div>
      <section aria-label={msg.triggeredBy}>
        <h3>{msg.triggeredBy}</h3>
        {users.length === 0 && <p className="quiet">{msg.noDetectionYetLinkIt}</p>}
        <div className="row wrap">
          <Button
            size="small"
            disabled={users.length === state.detections.length}
            onClick={() =>
              document.link(
                state.detections.map((d) => ({ key: keyOf(d), endpoint: e.id })),
                true,
                said('edits.linkToAll', e.name)
              )
            }
          >
            {msg.linkToAll2}
          </Button>
          <Button
            size="small"
            disabled={!users.length}
            onClick={() =>
              document.link(
                users.map((d) => ({ key: keyOf(d), endpoint: e.id })),
                false,
                said('edits.unlinkFromAll', e.name)
              )
            }
          >
            {msg.unlinkFromAll2}
          </Button>
        </div>
        <ul className="set-off-by">
          {users.map((d) => (
            <li key={keyOf(d)}>
              {d.detection.name}{' '}
              <span className="quiet">
                {isOutput(e) &&
                  (view.byCamera.includes(`${d.camera} ${d.detection.id} ${e.id}`)
                    ? msg.byTheCameraItself
                    : msg.byTheServer)}
              </span>
            </li>
          ))}
        </ul>
        {output &&
          users.some(
            (d) =>
              output.cameras.includes(d.camera) &&
              !view.byCamera.includes(`${d.camera} ${d.detection.id} ${e.id}`)
          ) && (
            <p className="quiet">
              {msg.onceItIsSentThe}{' '}
              <Link to={`/devices?device=${output.device}`}>{msg.sendIt}</Link>
            </p>
          )}
      </section>
    </article>
  )
}

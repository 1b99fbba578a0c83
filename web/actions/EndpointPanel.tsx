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
import { dayAndTime } from './words.ts'
import { parseWith } from '../../core/schema/parse.ts'

const ANY_TIME = ''

/** How something that can be set off is set up; a test of it. */
export function EndpointPanel({
  endpoint: e,
  missing,
  view,
  state,
  document,
  onRemoved
}: {
  endpoint: Endpoint
  missing: string | null
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
  const keep = (change: Partial<Endpoint>, label = `Edit ${e.name}`): string | null => {
    return refusalOf(() => {
      document.editEndpoint(parseWith(EndpointSchema, { ...e, ...change }), label)
      setResult(null)
    })
  }
  const test = async (): Promise<void> => {
    setTesting(true)
    try {
      const { words } = await request<{ words: string }>(
        'POST',
        `/api/endpoints/${encodeURIComponent(e.id)}/test`
      )
      setResult({ ok: true, words })
    } catch (error) {
      setResult({ ok: false, words: (error as Error).message })
    } finally {
      setTesting(false)
      await queries.invalidateQueries({ queryKey: ['actions'] })
      void queries.invalidateQueries({ queryKey: ['readiness'] })
    }
  }
  const users = state.detections.filter((d) => state.actions.get(keyOf(d))?.links.includes(e.id))
  const output = isOutput(e)
    ? view.outputs.find((o) => o.device === e.device && o.token === e.output)
    : null
  const face = faceOf(e.kind)
  return (
    <article className="action-panel" aria-label={e.name}>
      <header className="row">
        <h2>
          <span aria-hidden="true">{face.glyph}</span> {face.name}
          {output && <span className="quiet"> on {output.deviceName}</span>}
        </h2>
        <Popconfirm
          title={`Delete ${e.name}?`}
          description={
            users.length
              ? `${users.length} ${users.length === 1 ? 'detection does' : 'detections do'} not set it off any more. Undo brings it back.`
              : 'Undo brings it back.'
          }
          okText="Delete"
          cancelText="Keep"
          onConfirm={() => {
            document.removeEndpoint(e)
            onRemoved()
          }}
        >
          <Button type="text" aria-label={`Delete ${e.name}`} icon={<DeleteOutlined />} />
        </Popconfirm>
      </header>
      {missing && <Alert type="error" title={`It does nothing as it stands: ${missing}.`} />}
      <TextField
        key={`name ${e.name}`}
        label="Name"
        value={e.name}
        onKeep={(name) => keep({ name }, `Rename ${e.name}`)}
      />
      <face.Fields endpoint={e} view={view} state={state} keep={keep} />
      <Field label="Its own hours">
        <Select
          size="small"
          aria-label="Its own hours"
          value={e.schedule ?? ANY_TIME}
          options={[
            { value: ANY_TIME, label: 'at any time' },
            ...state.schedules.map((s) => ({ value: s.id, label: s.name }))
          ]}
          onChange={(id: string) =>
            keep({ schedule: id === ANY_TIME ? undefined : id }, `Hours of ${e.name}`)
          }
        />
        {e.schedule && <Link to={`/arming/${e.schedule}`}>Its week in Arming</Link>}
      </Field>
      <div className="test-row">
        <Button
          icon={<ThunderboltOutlined />}
          loading={testing}
          disabled={state.status !== 'saved'}
          onClick={() => void test()}
        >
          {face.test}
        </Button>
        {simulators && face.simulated === '/mailbox' && (
          <Link to={face.simulated}>See the mailbox</Link>
        )}
        {simulators && face.simulated !== null && face.simulated !== '/mailbox' && (
          <a href={`${simulators.pages}${face.simulated}`} target="_blank" rel="noreferrer">
            See it at the stand-in
          </a>
        )}
        <p role="status" className={(result ? !result.ok : kept?.testError) ? 'failed' : 'quiet'}>
          {result
            ? `${result.ok ? '✓' : '✕'} ${result.words}`
            : kept?.testedAt
              ? kept.testError
                ? `✕ ${dayAndTime(kept.testedAt)}: ${kept.testError}`
                : `✓ tested ${dayAndTime(kept.testedAt)}`
              : 'Never tested as it is set up now.'}
        </p>
      </div>
      <section aria-label="Set off by">
        <h3>Set off by</h3>
        {users.length === 0 && <p className="quiet">No detection yet: link it in the matrix.</p>}
        <div className="row wrap">
          <Button
            size="small"
            disabled={users.length === state.detections.length}
            onClick={() =>
              document.link(
                state.detections.map((d) => ({ key: keyOf(d), endpoint: e.id })),
                true,
                `Link ${e.name} to all`
              )
            }
          >
            Link to all
          </Button>
          <Button
            size="small"
            disabled={!users.length}
            onClick={() =>
              document.link(
                users.map((d) => ({ key: keyOf(d), endpoint: e.id })),
                false,
                `Unlink ${e.name} from all`
              )
            }
          >
            Unlink from all
          </Button>
        </div>
        <ul className="set-off-by">
          {users.map((d) => (
            <li key={keyOf(d)}>
              {d.detection.name}{' '}
              <span className="quiet">
                {isOutput(e) &&
                  (view.byCamera.includes(`${d.camera} ${d.detection.id} ${e.id}`)
                    ? 'by the camera itself'
                    : 'by the server')}
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
              Once it is sent, the camera sets it off itself, also while the server is away.{' '}
              <Link to={`/devices?device=${output.device}`}>Send it</Link>
            </p>
          )}
      </section>
    </article>
  )
}

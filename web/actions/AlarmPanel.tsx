import { ThunderboltOutlined } from '@ant-design/icons'
import { useQueryClient } from '@tanstack/react-query'
import { App, Button, Checkbox, Popconfirm, Select } from 'antd'
import { useState, type ReactNode } from 'react'
import { Link, useNavigate } from 'react-router'
import { ActionsSchema, PRIORITIES, isOutput, type Actions } from '../../core/formats/actions.ts'
import { refusalOf } from '../sync/refusal.ts'
import { request } from '../api/client.ts'
import type { SiteDocument, SiteState } from '../sync/siteDocument.ts'
import { keyOf } from '../sync/siteDocument.ts'
import { Field, NumberField } from './fields.tsx'
import { whoOptions } from './whoOptions.ts'
import { SEVERITIES } from '../../core/kinds/parts.ts'
import { parseWith } from '../../core/schema/parse.ts'
import type { Placed } from '../sync/kinds.ts'

/** What becomes of the alarms of a detection. */
export function AlarmPanel({
  detection: d,
  cameraName,
  state,
  document
}: {
  detection: Placed
  cameraName: string
  state: SiteState
  document: SiteDocument
}): ReactNode {
  const { message } = App.useApp()
  const navigate = useNavigate()
  const queries = useQueryClient()
  const [working, setWorking] = useState(false)
  const key = keyOf(d)
  const actions = document.actionsOf(key)
  const tryIt = async (): Promise<void> => {
    setWorking(true)
    try {
      await request('POST', '/api/triggers', {
        key: `try-${Date.now()}`,
        camera: d.camera,
        detection: d.detection.id
      })
      await queries.invalidateQueries({ queryKey: ['alarms'] })
      void navigate('/actions/alarms')
    } catch (error) {
      void message.error((error as Error).message)
    } finally {
      setWorking(false)
    }
  }
  return (
    <article className="action-panel" aria-label={d.detection.name}>
      <header>
        <h2>
          {d.detection.name} <span className="quiet">{cameraName}</span>
        </h2>
      </header>
      <AlarmFields
        actions={actions}
        ownSeverity={'severity' in d.detection}
        state={state}
        onKeep={(change, label) =>
          keepActions(actions, change, (next) =>
            document.setActions([key], () => next, `${label} of ${d.detection.name}`)
          )
        }
      />
      <div className="row wrap">
        <Button
          size="small"
          disabled={!state.usual}
          onClick={() =>
            document.setActions(
              [key],
              (a) => ({ ...state.usual!, accepted: a.accepted }),
              `Usual actions for ${d.detection.name}`
            )
          }
        >
          Use the usual actions
        </Button>
        <Button
          size="small"
          disabled={actions.links.length === state.endpoints.length}
          onClick={() =>
            document.link(
              state.endpoints.map((e) => ({ key, endpoint: e.id })),
              true,
              `Link everything to ${d.detection.name}`
            )
          }
        >
          Link everything
        </Button>
        <Button
          size="small"
          disabled={!actions.links.length}
          onClick={() =>
            document.link(
              state.endpoints.map((e) => ({ key, endpoint: e.id })),
              false,
              `Unlink everything from ${d.detection.name}`
            )
          }
        >
          Unlink everything
        </Button>
        <Popconfirm
          title={`Set off ${d.detection.name} once?`}
          description="As if it had triggered now: everything that is linked acts."
          okText="Set it off"
          cancelText="Not now"
          onConfirm={tryIt}
        >
          <Button
            size="small"
            icon={<ThunderboltOutlined />}
            loading={working}
            disabled={state.status !== 'saved' || !d.detection.enabled}
          >
            Set it off once
          </Button>
        </Popconfirm>
      </div>
      <p>
        <Link to={`/bench/${d.camera}?detection=${d.detection.id}`}>Open it on the Bench</Link>
        {d.detection.schedule && (
          <>
            {' · '}
            <Link to={`/arming/${d.detection.schedule}`}>Its hours in Arming</Link>
          </>
        )}
      </p>
    </article>
  )
}

/** Keeps a change of actions, or says what is wrong with it. */
export function keepActions(
  actions: Actions,
  change: Partial<Actions>,
  keep: (next: Actions) => void
): string | null {
  return refusalOf(() => keep(parseWith(ActionsSchema, { ...actions, ...change })))
}

const NONE = ''

export function AlarmFields({
  actions: a,
  ownSeverity = false,
  state,
  onKeep
}: {
  actions: Actions
  ownSeverity?: boolean
  state: SiteState
  onKeep: (change: Partial<Actions>, label: string) => string | null
}): ReactNode {
  const outputs = state.endpoints.filter(isOutput)
  const acknowledge = (change: Partial<Actions['acknowledge']>): string | null =>
    onKeep({ acknowledge: { ...a.acknowledge, ...change } }, 'Acknowledging')
  const { switch: wanted } = a.acknowledge
  return (
    <>
      {ownSeverity ? (
        <p className="quiet">Its severity is set with the detection, on the Bench.</p>
      ) : (
        <Field label="Severity">
          <Select
            size="small"
            aria-label="Severity"
            value={a.severity}
            options={SEVERITIES.map((value) => ({ value, label: value }))}
            onChange={(severity) => onKeep({ severity }, 'Severity')}
          />
        </Field>
      )}
      <Field label="Priority">
        <Select
          size="small"
          aria-label="Priority"
          value={a.priority}
          options={PRIORITIES.map((value) => ({ value, label: value }))}
          onChange={(priority) => onKeep({ priority }, 'Priority')}
        />
      </Field>
      <Field label="Whose alarm it is">
        <Select
          size="small"
          mode="multiple"
          aria-label="Whose alarm it is"
          placeholder="everybody’s"
          value={a.for}
          options={whoOptions(state)}
          onChange={(who: string[]) => onKeep({ for: who }, 'Whose alarm it is')}
        />
      </Field>
      <NumberField
        label="One alarm of triggers within"
        unit="s"
        value={a.groupSeconds}
        help="while nobody has acknowledged it; 0: each its own"
        onKeep={(groupSeconds) => onKeep({ groupSeconds }, 'One alarm within')}
      />
      <NumberField
        label="After acting, act again only after"
        unit="s"
        value={a.quietSeconds}
        help="triggers in between are kept and counted"
        onKeep={(quietSeconds) => onKeep({ quietSeconds }, 'Quiet time')}
      />
      <Field label="Acknowledging">
        <Checkbox
          checked={a.acknowledge.comment}
          onChange={(e) => acknowledge({ comment: e.target.checked })}
        >
          needs a comment
        </Checkbox>
        <Checkbox
          checked={a.acknowledge.confirm}
          onChange={(e) => acknowledge({ confirm: e.target.checked })}
        >
          is asked once more
        </Checkbox>
        {outputs.length > 0 && (
          <Select
            size="small"
            aria-label="Acknowledging switches"
            value={wanted ? `${wanted.on ? 'on' : 'off'} ${wanted.endpoint}` : NONE}
            options={[
              { value: NONE, label: 'switches nothing' },
              ...outputs.flatMap((o) => [
                { value: `off ${o.id}`, label: `switches ${o.name} off` },
                { value: `on ${o.id}`, label: `switches ${o.name} on` }
              ])
            ]}
            onChange={(value: string) =>
              acknowledge({
                switch:
                  value === NONE
                    ? undefined
                    : { on: value.startsWith('on '), endpoint: value.replace(/^\w+ /, '') }
              })
            }
          />
        )}
      </Field>
    </>
  )
}

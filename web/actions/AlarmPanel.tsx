import { severities } from '../../core/messages/en/codes/names.ts'
import { alarm } from '../../core/messages/en/alarms.ts'
import { common, units } from '../../core/messages/en/common.ts'
import { type Said, said } from '../../core/messages/said.ts'
import { problemWords } from '../../core/messages/errorWords.ts'
import { alarmPanel as msg } from '../../core/messages/en/actions/actions.ts'
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
      await request('POST', '/triggers', {
        key: `try-${Date.now()}`,
        camera: d.camera,
        detection: d.detection.id
      })
      await queries.invalidateQueries({ queryKey: ['alarms'] })
      void navigate('/actions/alarms')
    } catch (error) {
      void message.error(problemWords(error))
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
            document.setActions([key], () => next, said('edits.of', label, d.detection.name))
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
              said('edits.usualActionsFor', d.detection.name)
            )
          }
        >
          {msg.addDefaultActions}
        </Button>
        <Button
          size="small"
          disabled={actions.links.length === state.endpoints.length}
          onClick={() =>
            document.link(
              state.endpoints.map((e) => ({ key, endpoint: e.id })),
              true,
              said('edits.linkEverythingTo', d.detection.name)
            )
          }
        >
          {msg.linkAll}
        </Button>
        <Button
          size="small"
          disabled={!actions.links.length}
          onClick={() =>
            document.link(
              state.endpoints.map((e) => ({ key, endpoint: e.id })),
              false,
              said('edits.unlinkEverythingFrom', d.detection.name)
            )
          }
        >
          {msg.unlinkAll}
        </Button>
        <Popconfirm
          title={msg.triggerNow(d.detection.name)}
          description={msg.allLinkedActionsRun}
          okText={msg.trigger}
          cancelText={common.cancel}
          onConfirm={tryIt}
        >
          <Button
            size="small"
            icon={<ThunderboltOutlined aria-hidden />}
            loading={working}
            disabled={state.status !== 'saved' || !d.detection.enabled}
          >
            {msg.setItOffOnce}
          </Button>
        </Popconfirm>
      </div>
      <p>
        <Link to={`/bench/${d.camera}?detection=${d.detection.id}`}>{msg.openItOnTheBench}</Link>
        {d.detection.schedule && (
          <>
            {' · '}
            <Link to={`/arming/${d.detection.schedule}`}>{msg.openItsSchedule}</Link>
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
  onKeep: (change: Partial<Actions>, label: Said) => string | null
}): ReactNode {
  const outputs = state.endpoints.filter(isOutput)
  const acknowledge = (change: Partial<Actions['acknowledge']>): string | null =>
    onKeep({ acknowledge: { ...a.acknowledge, ...change } }, said('edits.acknowledging'))
  const { switch: wanted } = a.acknowledge
  return (
    <>
      {ownSeverity ? (
        <p className="quiet">{msg.itsSeverityIsSetWith}</p>
      ) : (
        <Field label={common.severity}>
          <Select
            size="small"
            aria-label={common.severity}
            value={a.severity}
            options={SEVERITIES.map((value) => ({ value, label: severities[value] }))}
            onChange={(severity) => onKeep({ severity }, said('edits.changeTheSeverity'))}
          />
        </Field>
      )}
      <Field label={msg.priority}>
        <Select
          size="small"
          aria-label={msg.priority}
          value={a.priority}
          options={PRIORITIES.map((value) => ({ value, label: alarm.priorities[value] }))}
          onChange={(priority) => onKeep({ priority }, said('edits.priority'))}
        />
      </Field>
      <Field label={msg.assignedTo}>
        <Select
          size="small"
          mode="multiple"
          aria-label={msg.assignedTo}
          placeholder={msg.everyone}
          value={a.for}
          options={whoOptions(state)}
          onChange={(who: string[]) => onKeep({ for: who }, said('edits.whoseAlarmItIs'))}
        />
      </Field>
      <NumberField
        label={msg.groupTriggersWithin}
        unit={units.s}
        value={a.groupSeconds}
        help={msg.untilAcknowledged0One}
        onKeep={(groupSeconds) => onKeep({ groupSeconds }, said('edits.oneAlarmWithin'))}
      />
      <NumberField
        label={msg.pauseActionsFor}
        unit={units.s}
        value={a.quietSeconds}
        help={msg.triggersInThePause}
        onKeep={(quietSeconds) => onKeep({ quietSeconds }, said('edits.quietTime'))}
      />
      <Field label={msg.acknowledging}>
        <Checkbox
          checked={a.acknowledge.comment}
          onChange={(e) => acknowledge({ comment: e.target.checked })}
        >
          {msg.requireComment}
        </Checkbox>
        <Checkbox
          checked={a.acknowledge.confirm}
          onChange={(e) => acknowledge({ confirm: e.target.checked })}
        >
          {msg.requireConfirmation}
        </Checkbox>
        {outputs.length > 0 && (
          <Select
            size="small"
            aria-label={msg.onAcknowledge}
            value={wanted ? `${wanted.on ? 'on' : 'off'} ${wanted.endpoint}` : NONE}
            options={[
              { value: NONE, label: msg.noOutput },
              ...outputs.flatMap((o) => [
                { value: `off ${o.id}`, label: msg.switchesOff(o.name) },
                { value: `on ${o.id}`, label: msg.switchesOn(o.name) }
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

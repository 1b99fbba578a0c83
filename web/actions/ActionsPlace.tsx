import { common } from '../../core/messages/en/common.ts'
import { type Said, said } from '../../core/messages/said.ts'
import { problemWords } from '../../core/messages/errorWords.ts'
import { actionsPlace as msg } from '../../core/messages/en/actions/actions.ts'
import { emptyPlace } from '../../core/messages/en/shell.ts'
import './actions.css'
import { PlusOutlined } from '@ant-design/icons'
import { Alert, Button, Dropdown } from 'antd'
import { useMemo, useState, type ReactNode } from 'react'
import { Link, NavLink, useParams, useSearchParams } from 'react-router'
import { crossingOf } from '../../core/actions/matrix.ts'
import type { SiteActionsView } from '../../core/api.ts'
import { SiteHours } from '../../core/arming/coverage.ts'
import { isOutput, missingOf, type EndpointKind } from '../../core/formats/actions.ts'
import { AlarmList } from '../alarms/AlarmList.tsx'
import { useAlarms } from '../alarms/useAlarms.ts'
import { ConflictNote } from '../sync/ConflictNote.tsx'
import { SyncBar } from '../sync/SyncBar.tsx'
import { keyOf } from '../sync/siteDocument.ts'
import { useSiteActions, useSiteDocument } from '../sync/useSiteDocument.ts'
import { AlarmPanel } from './AlarmPanel.tsx'
import { EndpointPanel } from './EndpointPanel.tsx'
import { MailAndPeople } from './MailAndPeople.tsx'
import { Matrix, type Column } from './Matrix.tsx'
import { newEndpoint } from './newEndpoint.ts'
import { useSimulators } from './useSimulators.ts'
import { UsualPanel } from './UsualPanel.tsx'
import { FREE_KINDS, byKind, faceOf } from './kinds.ts'

export function ActionsPlace(): ReactNode {
  const actions = useSiteActions()
  if (actions.error && !actions.data)
    return <Alert className="notice" type="error" showIcon title={problemWords(actions.error)} />
  if (!actions.data) return <p className="waiting">{common.loading}</p>
  return <Actions view={actions.data} />
}

function Actions({ view }: { view: SiteActionsView }): ReactNode {
  const { document, state } = useSiteDocument(view)
  const { part } = useParams()
  const simulators = useSimulators()
  const waiting = useAlarms().data?.waiting ?? 0
  return (
    <main className="actions-place">
      <header className="actions-head">
        <nav aria-label={msg.partsOfActions}>
          <NavLink to="/actions" end className="part">
            {msg.actions}
          </NavLink>
          <NavLink to="/actions/alarms" className="part">
            {msg.alarmsAndDeliveries}
            {waiting > 0 && ` (${waiting})`}
          </NavLink>
          <NavLink to="/actions/mail" className="part">
            {msg.mailAndPeople}
          </NavLink>
        </nav>
        <span className="grow" />
        {simulators && (
          <a href={simulators.pages} target="_blank" rel="noreferrer">
            {msg.simulators}
          </a>
        )}
        <SyncBar state={state} document={document} />
      </header>
      {state.conflict && <ConflictNote conflict={state.conflict} document={document} />}
      {part === 'alarms' ? (
        <AlarmList />
      ) : part === 'mail' ? (
        <MailAndPeople view={view} state={state} document={document} />
      ) : (
        <MatrixPart view={view} state={state} document={document} />
      )}
    </main>
  )
}

function MatrixPart({
  view,
  state,
  document
}: { view: SiteActionsView } & ReturnType<typeof useSiteDocument>): ReactNode {
  const [address, setAddress] = useSearchParams()
  const { timeZone, position } = view.site
  const [opened] = useState(Date.now)
  const hours = useMemo(
    () => new SiteHours(state.schedules, timeZone, position ?? undefined, opened),
    [state.schedules, timeZone, position, opened]
  )
  const outputs = useMemo(
    () => new Set(view.outputs.map((o) => `${o.device} ${o.token}`)),
    [view.outputs]
  )
  const missing = (endpoint: (typeof state.endpoints)[number]): Said | null =>
    missingOf(endpoint, { mail: view.mail.mail, people: state.people, outputs })
  const unset = view.outputs.filter(
    (o) =>
      !state.endpoints.some((e) => isOutput(e) && e.device === o.device && e.output === o.token)
  )
  const columns: Column[] = [
    ...[...state.endpoints].sort(byKind).map((endpoint) => ({
      id: endpoint.id,
      name: endpoint.name,
      endpoint,
      missing: missing(endpoint)
    })),
    ...unset.map((o) => ({
      id: `${o.device} ${o.token}`,
      name: o.name,
      endpoint: null,
      kind: o.kind
    }))
  ].sort((a, b) => Number(groupOf(a) !== 'outputs') - Number(groupOf(b) !== 'outputs'))
  const simulators = useSimulators()
  const chosenColumn = address.get('endpoint')
  const chosenRow =
    address.get('detection') !== null
      ? (state.detections.find(
          (d) =>
            d.detection.id === address.get('detection') &&
            (address.get('camera') === null || d.camera === address.get('camera'))
        ) ?? null)
      : null
  const endpoint = state.endpoints.find((e) => e.id === chosenColumn)
  const go = (next: Record<string, string>): void => setAddress(next, { replace: false })
  const cameraName = (id: string): string => view.site.cameras.find((c) => c.id === id)?.name ?? id
  const add = (
    kind: EndpointKind,
    output?: { device: string; token: string; name: string }
  ): void => {
    const made = newEndpoint(
      kind,
      state.endpoints.map((e) => e.name),
      simulators,
      output
    )
    document.editEndpoint(made, said('edits.new', made.name))
    go({ endpoint: made.id })
  }
  return (
    <div className="actions-body">
      <div className="matrix-side">
        <div className="row matrix-tools">
          <Dropdown
            trigger={['click']}
            menu={{
              items: FREE_KINDS.map((kind) => ({
                key: kind,
                icon: faceOf(kind).icon,
                label: faceOf(kind).name
              })),
              onClick: ({ key }) => add(key as EndpointKind)
            }}
          >
            <Button icon={<PlusOutlined aria-hidden />}>{msg.addAction}</Button>
          </Dropdown>
          {(endpoint || chosenRow) && <Button onClick={() => go({})}>{msg.defaultActions}</Button>}
        </div>
        {state.detections.length === 0 ? (
          <p className="waiting">
            {msg.noDetectionsYetDraw} <Link to="/bench">{emptyPlace.goToTheBench}</Link>
          </p>
        ) : columns.length === 0 ? (
          <p className="waiting">{msg.noActionsYetAdd}</p>
        ) : (
          <Matrix
            rows={state.detections}
            columns={columns}
            cameraName={cameraName}
            crossing={(row, column) =>
              column.endpoint
                ? crossingOf(
                    row.detection,
                    document.actionsOf(keyOf(row)),
                    column.endpoint,
                    column.missing,
                    hours
                  )
                : null
            }
            chosenRow={chosenRow ? keyOf(chosenRow) : null}
            chosenColumn={chosenColumn}
            onRow={(key) => {
              const [camera = '', detection = ''] = key.split('/')
              go({ camera, detection })
            }}
            onColumn={(id) => {
              const output = unset.find((o) => `${o.device} ${o.token}` === id)
              if (output) add(output.kind, output)
              else go({ endpoint: id })
            }}
            onLink={(crossings, linked) => {
              const names = state.endpoints
                .filter((e) => crossings.some((c) => c.endpoint === e.id))
                .map((e) => e.name)
              document.link(
                crossings,
                linked,
                said('edits.linkUnlink', linked, names.length, crossings.length, names)
              )
            }}
          />
        )}
      </div>
      <aside className="actions-right">
        {endpoint ? (
          <EndpointPanel
            key={endpoint.id}
            endpoint={endpoint}
            missing={missing(endpoint)}
            view={view}
            state={state}
            document={document}
            onRemoved={() => go({})}
          />
        ) : chosenRow ? (
          <AlarmPanel
            key={keyOf(chosenRow)}
            detection={chosenRow}
            cameraName={cameraName(chosenRow.camera)}
            state={state}
            document={document}
          />
        ) : (
          <UsualPanel state={state} document={document} />
        )}
      </aside>
    </div>
  )
}

const groupOf = (column: Column): string =>
  column.endpoint ? faceOf(column.endpoint.kind).group : 'outputs'

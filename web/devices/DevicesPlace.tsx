import { PlusOutlined, ReloadOutlined, SendOutlined } from '@ant-design/icons'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Alert, Button, Skeleton } from 'antd'
import { useState, type ReactNode } from 'react'
import type { DeviceDetection, DeviceState, DeviceView, SendResult } from '../../core/api.ts'
import { request } from '../api/client.ts'
import { AccountForm, AddDevice } from './AddDevice.tsx'
import { abilityWords, detectionWords, eventWords } from './words.ts'

const states: Record<DeviceState, { mark: string; words: string; bad: boolean }> = {
  unknown: { mark: '○', words: 'not asked yet', bad: false },
  online: { mark: '●', words: 'online', bad: false },
  'clock-off': { mark: '◐', words: 'online, its clock is off', bad: true },
  offline: { mark: '✕', words: 'cannot be reached', bad: true },
  'wrong-password': { mark: '✕', words: 'wrong password', bad: true },
  'no-account': { mark: '✕', words: 'asks for an account', bad: true },
  new: { mark: '◇', words: 'fresh from the box', bad: true },
  broken: { mark: '✕', words: 'answers wrongly', bad: true }
}

/** The devices of the site: how each stands, what it can do, and what on it differs from the plan. */
export function DevicesPlace(): ReactNode {
  const queries = useQueryClient()
  const devices = useQuery({ queryKey: ['devices'], queryFn: () => request<DeviceView[]>('GET', '/api/devices'), refetchInterval: 5000 })
  const [chosen, setChosen] = useState<string | null>(null)
  const [adding, setAdding] = useState(false)
  const refresh = (): void => void queries.invalidateQueries({ queryKey: ['devices'] })
  const list = devices.data ?? []
  const device = list.find((d) => d.id === chosen) ?? list[0]
  return (
    <main className="devices-place">
      <section aria-label="Devices">
        <header className="row">
          <h1>Devices</h1>
          <Button icon={<PlusOutlined />} onClick={() => setAdding(true)}>
            Add a device
          </Button>
        </header>
        {devices.isError && <Alert type="error" title={devices.error.message} />}
        {devices.isPending && <Skeleton active />}
        {devices.data?.length === 0 && <p className="quiet">No device yet. Add the first one by its address; Wardoptic reads what it can do.</p>}
        <ul>
          {list.map((d) => (
            <li key={d.id}>
              <button type="button" className={`device${d === device ? ' chosen' : ''}`} aria-pressed={d === device} onClick={() => setChosen(d.id)}>
                <strong>{d.name}</strong>
                <span className={states[d.state].bad ? 'failed' : 'quiet'}>
                  {states[d.state].mark} {states[d.state].words}
                </span>
                <span className="quiet">{summary(d)}</span>
              </button>
            </li>
          ))}
        </ul>
      </section>
      {device && <DeviceSheet key={device.id} device={device} onChanged={refresh} />}
      {adding && (
        <AddDevice
          onClose={() => setAdding(false)}
          onAdded={(added) => {
            setAdding(false)
            setChosen(added.id)
            refresh()
          }}
        />
      )}
    </main>
  )
}

const open = (d: DeviceView): DeviceDetection[] => d.detections.filter((x) => x.state === 'missing' || x.state === 'differs')

function summary(d: DeviceView): string {
  const count = open(d).length + d.strangers.length
  if (d.readAt === null) return d.address
  const unable = d.detections.filter((x) => x.state === 'unsupported').length
  const said = [count && `${count} ${count === 1 ? 'difference' : 'differences'} from the plan`, unable && `${unable} of the plan it cannot do`].filter(Boolean)
  return said.join(', ') || 'holds what the plan says'
}

function DeviceSheet({ device: d, onChanged }: { device: DeviceView; onChanged: () => void }): ReactNode {
  const [working, setWorking] = useState<'read' | 'send' | null>(null)
  const [results, setResults] = useState<SendResult[] | null>(null)
  const [error, setError] = useState<string | null>(null)
  const act = async (what: 'read' | 'send'): Promise<void> => {
    setWorking(what)
    setError(null)
    try {
      if (what === 'read') await request('POST', `/api/devices/${d.id}/read`)
      else setResults((await request<{ results: SendResult[] }>('POST', `/api/devices/${d.id}/send`)).results)
    } catch (problem) {
      setError((problem as Error).message)
    } finally {
      setWorking(null)
      onChanged()
    }
  }
  const state = states[d.state]
  const toSend = open(d).length + d.strangers.length
  return (
    <article aria-label={d.name}>
      <header className="row">
        <h2>{d.name}</h2>
        <span className="row">
          <Button icon={<ReloadOutlined />} loading={working === 'read'} onClick={() => void act('read')}>
            Read again
          </Button>
          <Button type="primary" icon={<SendOutlined />} loading={working === 'send'} disabled={toSend === 0 || (d.state !== 'online' && d.state !== 'clock-off')} onClick={() => void act('send')}>
            {toSend ? `Send ${toSend} ${toSend === 1 ? 'change' : 'changes'}` : 'Nothing to send'}
          </Button>
        </span>
      </header>
      <p className={state.bad ? 'failed' : ''}>
        {state.mark} {state.words}
        {d.trouble && `: ${d.trouble}`}
        {d.state === 'clock-off' && d.clockAhead !== null && ` by ${Math.round(Math.abs(d.clockAhead))} s (${d.clockAhead > 0 ? 'ahead' : 'behind'}); times of its events will be wrong by that`}
      </p>
      {error && <Alert type="error" title={error} />}
      {(d.state === 'new' || d.state === 'no-account' || d.state === 'wrong-password') && <AccountForm device={d} onDone={onChanged} />}
      <dl className="device-facts">
        <div>
          <dt>Address</dt>
          <dd className="figures">{d.address}</dd>
        </div>
        {d.information && (
          <div>
            <dt>Device</dt>
            <dd>
              {d.information.manufacturer} {d.information.model}, firmware {d.information.firmware}, serial <span className="figures">{d.information.serial}</span>
            </dd>
          </div>
        )}
        <div>
          <dt>It can</dt>
          <dd>{d.readAt === null ? 'not known before it has been read' : d.abilities.length === 0 ? 'do no analysis of its own' : d.abilities.map((a) => <span key={a.type} className="ability">{abilityWords(a)}</span>)}</dd>
        </div>
      </dl>
      <h3>Plan and device</h3>
      {d.detections.length === 0 && d.strangers.length === 0 && <p className="quiet">Nothing is drawn for this camera, and nothing is on the device.</p>}
      <ul className="device-detections">
        {d.detections.map((x) => (
          <li key={x.id} className={x.state}>
            <strong>{x.name}</strong> <span>{detectionWords(x)}</span>
            {x.differences.map((diff) => (
              <span key={diff.setting} className="difference">
                {diff.setting}: plan {diff.plan}, device {diff.device}
              </span>
            ))}
            {x.losses.map((loss) => (
              <span key={loss.setting} className="difference">
                {loss.setting} {loss.wanted}: {loss.nearest === null ? 'the device cannot hold it' : `the nearest is ${loss.nearest}`}
              </span>
            ))}
          </li>
        ))}
        {d.strangers.map((name) => (
          <li key={name} className="differs">
            <strong>{name}</strong> <span>is on the device and not in the plan; sending deletes it</span>
          </li>
        ))}
      </ul>
      <h3>Heard from it</h3>
      {d.events.length === 0 && <p className="quiet">Nothing yet. What its rules set off is shown here as it comes.</p>}
      <ol className="device-events">
        {d.events.slice(0, 8).map((e) => (
          <li key={e.id} className={e.topic === 'gap' ? 'failed' : ''}>
            <span className="figures">{new Date(e.receivedAt).toLocaleTimeString('en-GB')}</span>{' '}
            {e.topic === 'gap' ? `nobody listened for ${e.data.seconds} s; what happened then is not known` : `${d.detections.find((x) => x.id === e.rule)?.name ?? e.rule}: ${eventWords(e)}`}
          </li>
        ))}
      </ol>
      {results && (
        <div role="status" className="send-results">
          <h3>{results.some((r) => r.error) ? 'Sent, but not all of it' : results.length ? 'Sent and read back' : 'Nothing had to be sent'}</h3>
          <ul>
            {results.map((r) => (
              <li key={`${r.detection} ${r.what}`} className={r.error ? 'failed' : ''}>
                {r.error ? '✕' : '✓'} {d.detections.find((x) => x.id === r.detection)?.name ?? r.detection} {r.error ? `not ${r.what}: ${r.error}` : r.what}
              </li>
            ))}
          </ul>
        </div>
      )}
    </article>
  )
}

import { wordsOf } from '../../core/messages/words.ts'
import { problemWords } from '../../core/messages/errorWords.ts'
import { common } from '../../core/messages/en/common.ts'
import { upkeep } from '../../core/messages/en/upkeep.ts'
import { deviceSheet as msg } from '../../core/messages/en/devices.ts'
import './devices.css'
import { DeleteOutlined, ReloadOutlined, SendOutlined } from '@ant-design/icons'
import { Alert, Button, Popconfirm } from 'antd'
import { Suspense, useState, type ReactNode } from 'react'
import { isReachable, type DeviceView } from '../../core/devices/views.ts'
import { request } from '../api/client.ts'
import { AccountForm } from './AccountForm.tsx'
import type { Act } from './act.ts'
import { Certificate } from './Certificate.tsx'
import { ChannelSection } from './ChannelSection.tsx'
import { InputsAndOutputs } from './InputsAndOutputs.tsx'
import { Findings } from '../readiness/Findings.tsx'
import { useReadiness } from '../readiness/useReadiness.ts'
import { useDeviceEvents } from './useDevices.ts'
import { useClock } from '../words/useClock.ts'
import { Upkeep } from './Upkeep.tsx'
import { eventWords, states } from './words.tsx'
import { lazyPart } from '../lazyPart.tsx'

const Abilities = lazyPart(() => import('./Abilities.tsx'), 'Abilities')

export function DeviceSheet({
  device: d,
  changes,
  onSend,
  onChanged,
  onRemoved
}: {
  device: DeviceView
  changes: number
  onSend: () => Promise<void>
  onChanged: () => void
  onRemoved: () => void
}): ReactNode {
  const [working, setWorking] = useState<string | null>(null)
  const [error, setError] = useState<string | null>(null)
  const [trying, setTrying] = useState(false)
  const act: Act = async (what, work) => {
    setWorking(what)
    setError(null)
    try {
      await work()
    } catch (problem) {
      setError(problemWords(problem))
    } finally {
      setWorking(null)
      onChanged()
    }
  }
  const state = states[d.state]
  const findings = useReadiness().data?.findings.filter((f) => f.device === d.id) ?? []
  return (
    <article aria-label={d.name}>
      <header className="row">
        <h2>{d.name}</h2>
        <span className="row">
          <Popconfirm
            title={msg.remove(d.name)}
            description={msg.itsSettingsStayOnThe}
            okText={common.remove}
            cancelText={common.cancel}
            onConfirm={() =>
              act('remove', () => request('DELETE', `/devices/${d.id}`)).then(onRemoved)
            }
          >
            <Button
              type="text"
              icon={<DeleteOutlined aria-hidden />}
              aria-label={msg.removeTheDevice}
            />
          </Popconfirm>
          {d.readAt !== null && <Button onClick={() => setTrying(true)}>{upkeep.whatWorks}</Button>}
          <Button
            icon={<ReloadOutlined aria-hidden />}
            loading={working === 'read'}
            onClick={() => void act('read', () => request('POST', `/devices/${d.id}/read`))}
          >
            {msg.refresh}
          </Button>
          <Button
            type="primary"
            icon={<SendOutlined aria-hidden />}
            disabled={changes === 0 || d.busy || !isReachable(d.state)}
            onClick={() => void onSend()}
          >
            {changes ? msg.send(changes) : msg.noChangesToSend}
          </Button>
        </span>
      </header>
      <p className={state.bad ? 'failed' : ''}>
        {state.mark} {state.words}
        {d.trouble && `: ${wordsOf(d.trouble)}`}
        {d.state === 'clock-off' &&
          d.clockAhead !== null &&
          msg.sSetItsClock(Math.round(Math.abs(d.clockAhead)), d.clockAhead)}
      </p>
      {error && <Alert type="error" title={error} />}
      {(d.state === 'new' || d.state === 'no-account' || d.state === 'wrong-password') && (
        <AccountForm device={d} onDone={onChanged} />
      )}
      <dl className="device-facts">
        <div>
          <dt>{common.address}</dt>
          <dd className="figures">{d.address}</dd>
        </div>
        <Certificate device={d} act={act} working={working} />
        {d.information && (
          <div>
            <dt>{msg.device}</dt>
            <dd>
              {msg.firmwareSerial(
                d.information.manufacturer,
                d.information.model,
                d.information.firmware
              )}{' '}
              <span className="figures">{d.information.serial}</span>
            </dd>
          </div>
        )}
      </dl>
      {isReachable(d.state) && (
        <section aria-label={upkeep.clockAndNetwork}>
          <Upkeep device={d} act={act} working={working} />
        </section>
      )}
      {d.readAt === null && <p className="quiet">{msg.itsFeaturesAreUnknown}</p>}
      {d.channels.map((channel) => (
        <ChannelSection
          key={channel.token}
          device={d}
          channel={channel}
          named={d.channels.length > 1}
          act={act}
          working={working}
        />
      ))}
      {findings.length > 0 && (
        <section aria-label={msg.issues}>
          <h3>{msg.issues}</h3>
          <Findings findings={findings} />
        </section>
      )}
      <InputsAndOutputs device={d} act={act} working={working} />
      <HeardFrom device={d} />
      {trying && (
        <Suspense fallback={null}>
          <Abilities device={d} onClose={() => setTrying(false)} />
        </Suspense>
      )}
    </article>
  )
}

function HeardFrom({ device: d }: { device: DeviceView }): ReactNode {
  const events = useDeviceEvents(d.id).data ?? []
  const clock = useClock()
  const name = (rule: string): string =>
    d.channels.flatMap((c) => c.detections).find((x) => x.id === rule)?.name ?? rule
  return (
    <section aria-label={msg.deviceEvents}>
      <h3>{msg.deviceEvents}</h3>
      {events.length === 0 && <p className="quiet">{msg.noEventsYetThey}</p>}
      <ol className="device-events">
        {events.slice(0, 8).map((e) => (
          <li key={e.id} className={e.topic === 'gap' ? 'failed' : ''}>
            <span className="figures">{clock.time(e.receivedAt)}</span>{' '}
            {e.topic === 'gap'
              ? msg.notConnectedForS(e.data.seconds)
              : `${name(e.rule)}: ${eventWords(e)}`}
          </li>
        ))}
      </ol>
    </section>
  )
}

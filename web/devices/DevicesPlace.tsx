import { common } from '../../core/messages/en/common.ts'
import { problemWords } from '../../core/messages/errorWords.ts'
import { newPassword } from '../../core/messages/en/upkeep.ts'
import { devicesPlace as msg } from '../../core/messages/en/devices.ts'
import './devices.css'
import { PlusOutlined, SendOutlined } from '@ant-design/icons'
import { useQueryClient } from '@tanstack/react-query'
import { Alert, Button, Checkbox, Popconfirm, Skeleton } from 'antd'
import { useState, type ReactNode } from 'react'
import { useSearchParams } from 'react-router'
import { changesOfDevice as changes } from '../../core/devices/standing.ts'
import { isReachable, type DeviceView, type SendingView } from '../../core/devices/views.ts'
import { request } from '../api/client.ts'
import { AddDevice } from './AddDevice.tsx'
import { NewPassword } from './NewPassword.tsx'
import { DeviceSheet } from './DeviceSheet.tsx'
import { SendingPanel } from './SendingPanel.tsx'
import { useDevices } from './useDevices.ts'
import { states } from './words.tsx'

/** The devices of the site: how each stands, what it can do, and what on it differs from the plan. */
export function DevicesPlace(): ReactNode {
  const queries = useQueryClient()
  const devices = useDevices()
  // The device on show and the last sending are part of the address: a reload shows the same.
  const [address, setAddress] = useSearchParams()
  const [marked, setMarked] = useState<ReadonlySet<string>>(new Set())
  // Whoever comes from an empty site finds devices at once.
  const [adding, setAdding] = useState(address.has('add'))
  const [error, setError] = useState<string | null>(null)
  const [renewing, setRenewing] = useState(false)
  const refresh = (): void => void queries.invalidateQueries({ queryKey: ['devices'] })
  const put = (change: Record<string, string | null>): void =>
    setAddress((old) => {
      const next = new URLSearchParams(old)
      for (const [key, value] of Object.entries(change))
        if (value === null) next.delete(key)
        else next.set(key, value)
      return next
    })
  const list = devices.data ?? []
  const device = list.find((d) => d.id === address.get('device')) ?? list[0]
  const waiting = list.filter((d) => isReachable(d.state) && changes(d) > 0)
  const toSend = marked.size ? waiting.filter((d) => marked.has(d.id)) : waiting
  const send = async (ids: string[]): Promise<void> => {
    setError(null)
    try {
      put({ sending: (await request<SendingView>('POST', '/sendings', { devices: ids })).id })
    } catch (problem) {
      setError(problemWords(problem))
    }
  }
  const losses = toSend.flatMap((d) =>
    d.channels
      .filter((c) => c.used)
      .flatMap((c) => c.detections.flatMap((x) => x.losses.filter((loss) => !loss.elsewhere)))
  ).length
  return (
    <main className="devices-place">
      <section aria-label={msg.devices}>
        <header className="row">
          <h1>{msg.devices}</h1>
          <Button icon={<PlusOutlined aria-hidden />} onClick={() => setAdding(true)}>
            {msg.addDevice}
          </Button>
        </header>
        {devices.isError && <Alert type="error" title={problemWords(devices.error)} />}
        {error && <Alert type="error" title={error} />}
        {devices.isPending && <Skeleton active />}
        {devices.data?.length === 0 && <p className="quiet">{msg.noDeviceYetAddThe}</p>}
        {list.length > 1 && (
          <Popconfirm
            title={msg.sendTo(
              toSend.reduce((sum, d) => sum + changes(d), 0),
              toSend.length
            )}
            description={losses ? msg.willBeTheNearest(losses) : msg.allSettingsAreSupported}
            okText={msg.send}
            cancelText={common.cancel}
            disabled={!toSend.length}
            onConfirm={() => send(toSend.map(({ id }) => id))}
          >
            <Button type="primary" icon={<SendOutlined aria-hidden />} disabled={!toSend.length}>
              {!waiting.length
                ? msg.noChangesToSend
                : marked.size
                  ? msg.sendToSelected(toSend.length)
                  : msg.sendToAll(toSend.length)}
            </Button>
          </Popconfirm>
        )}
        {marked.size > 0 && (
          <Button onClick={() => setRenewing(true)}>{newPassword.changePassword}</Button>
        )}
        {address.get('sending') && (
          <SendingPanel
            id={address.get('sending')!}
            onClose={() => put({ sending: null })}
            onProgress={refresh}
          />
        )}
        <ul>
          {list.map((d) => (
            <li key={d.id} className="device-row">
              {list.length > 1 && (
                <Checkbox
                  aria-label={msg.select(d.name)}
                  checked={marked.has(d.id)}
                  onChange={(e) =>
                    setMarked(
                      (old) =>
                        new Set(
                          e.target.checked ? [...old, d.id] : [...old].filter((id) => id !== d.id)
                        )
                    )
                  }
                />
              )}
              <button
                type="button"
                className={`device${d === device ? ' chosen' : ''}`}
                aria-pressed={d === device}
                onClick={() => put({ device: d.id })}
              >
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
      {device && (
        <DeviceSheet
          key={device.id}
          device={device}
          changes={changes(device)}
          onSend={() => send([device.id])}
          onChanged={refresh}
          onRemoved={() => {
            put({ device: null })
            refresh()
          }}
        />
      )}
      {renewing && (
        <NewPassword
          devices={list.filter((d) => marked.has(d.id))}
          onClose={() => {
            setRenewing(false)
            refresh()
          }}
        />
      )}
      {adding && (
        <AddDevice
          onClose={() => {
            setAdding(false)
            put({ add: null })
          }}
          onAdded={(added) => {
            setAdding(false)
            put({ add: null, ...(added && { device: added.id }) })
            refresh()
          }}
        />
      )}
    </main>
  )
}

function summary(d: DeviceView): string {
  if (d.readAt === null) return d.address
  const detections = d.channels.filter((c) => c.used).flatMap((c) => c.detections)
  const drifted = detections.filter((x) => x.state === 'drifted').length
  const unable = detections.filter((x) => x.state === 'unsupported' && !x.elsewhere).length
  const count = changes(d)
  const said = [
    count && msg.toSend(count),
    drifted && msg.changedOnTheDevice(drifted),
    unable && msg.notSupported(unable)
  ].filter(Boolean)
  return said.join(', ') || msg.matchesThePlan
}

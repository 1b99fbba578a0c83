import { problemWords } from '../../core/messages/errorWords.ts'
import { common } from '../../core/messages/en/common.ts'
import { addDevice as msg } from '../../core/messages/en/devices.ts'
import './devices.css'
import { useQuery } from '@tanstack/react-query'
import { Alert, Button, Input, Modal, Select, Spin } from 'antd'
import { useState, type ReactNode } from 'react'
import type { DeviceView, FoundDevice } from '../../core/devices/views.ts'
import { request } from '../api/client.ts'
import { useSite } from '../api/queries.ts'

/** Adding a device in two steps: which one it is, and then its name, its camera and its account. */
export function AddDevice({
  onClose,
  onAdded
}: {
  onClose: () => void
  onAdded: (device: DeviceView) => void
}): ReactNode {
  const [chosen, setChosen] = useState<FoundDevice | 'by-hand' | null>(null)
  return (
    <Modal
      open
      title={chosen === null ? msg.addDeviceSelect : msg.addDeviceDetails}
      onCancel={onClose}
      footer={null}
      aria-label={msg.addDevice}
    >
      {chosen === null ? (
        <Find onChosen={setChosen} />
      ) : (
        <Describe
          found={chosen === 'by-hand' ? null : chosen}
          onBack={() => setChosen(null)}
          onAdded={onAdded}
        />
      )}
    </Modal>
  )
}

/** Asks the network, and lets an address be typed instead. */
function Find({ onChosen }: { onChosen: (chosen: FoundDevice | 'by-hand') => void }): ReactNode {
  const found = useQuery({
    queryKey: ['find-devices'],
    queryFn: () => request<FoundDevice[]>('POST', '/api/devices/find'),
    staleTime: 0,
    gcTime: 0,
    refetchOnWindowFocus: false
  })
  const list = [...(found.data ?? [])].sort((a, b) => Number(a.known) - Number(b.known))
  return (
    <div className="device-form">
      {/* Before what is found: whoever reaches for a button does not have it moved away. */}
      <div className="row">
        <Button onClick={() => void found.refetch()} disabled={found.isFetching}>
          {msg.searchAgain}
        </Button>
        <Button type="primary" onClick={() => onChosen('by-hand')}>
          {msg.enterAddress}
        </Button>
      </div>
      {found.isFetching && (
        <p className="quiet">
          <Spin size="small" /> {msg.searchingTheNetwork}
        </p>
      )}
      {found.isError && <Alert type="error" title={problemWords(found.error)} />}
      {found.data?.length === 0 && !found.isFetching && (
        <p className="quiet">{msg.noDevicesFoundAdd}</p>
      )}
      <ul className="found-devices">
        {list.map((device) => (
          <li key={device.address}>
            <Button block disabled={device.known} onClick={() => onChosen(device)}>
              <span className="found-device">
                <strong>{device.name || device.address}</strong>{' '}
                <span className="quiet figures">{device.address.replace(/^https?:\/\//, '')}</span>{' '}
                {device.known && <span className="quiet">{msg.addedAlready}</span>}
              </span>
            </Button>
          </li>
        ))}
      </ul>
    </div>
  )
}

function Describe({
  found,
  onBack,
  onAdded
}: {
  found: FoundDevice | null
  onBack: () => void
  onAdded: (device: DeviceView) => void
}): ReactNode {
  const site = useSite()
  const cameras = site.data?.cameras ?? []
  const [form, setForm] = useState({
    name: found?.name ?? '',
    address: found?.address ?? 'http://',
    camera: cameras.find((c) => found?.name.startsWith(c.name))?.id ?? '',
    username: '',
    password: ''
  })
  const [error, setError] = useState<string | null>(null)
  const [busy, setBusy] = useState(false)
  const set = (key: keyof typeof form) => (value: string) =>
    setForm((old) => ({ ...old, [key]: value }))
  const add = async (): Promise<void> => {
    setBusy(true)
    try {
      onAdded(
        await request<DeviceView>('POST', '/api/devices', {
          name: form.name,
          address: form.address,
          camera: form.camera || null,
          username: form.username || null,
          password: form.username ? form.password : null
        })
      )
    } catch (problem) {
      setError(problemWords(problem))
    } finally {
      setBusy(false)
    }
  }
  const field = (
    key: 'name' | 'address' | 'username' | 'password',
    label: string,
    placeholder: string
  ): ReactNode => (
    <label className="field">
      <span>{label}</span>
      <Input
        type={key === 'password' ? 'password' : 'text'}
        value={form[key]}
        placeholder={placeholder}
        autoComplete="off"
        onChange={(e) => set(key)(e.target.value)}
        onPressEnter={() => void add()}
      />
    </label>
  )
  return (
    <div className="device-form">
      {field('address', common.address, msg.addressSuchAs)}
      {field('name', common.name, msg.slipwayCamera)}
      <label className="field">
        <span>{common.camera}</span>
        <Select
          value={form.camera}
          options={[
            { value: '', label: msg.noneOrARecorder },
            ...cameras.map((c) => ({ value: c.id, label: c.name }))
          ]}
          onChange={set('camera')}
        />
      </label>
      {field('username', common.userName, msg.leaveEmptyForA)}
      {field('password', common.password, '')}
      {error && <Alert type="error" title={error} />}
      <div className="row">
        <Button onClick={onBack}>{msg.back}</Button>
        <Button type="primary" loading={busy} onClick={() => void add()}>
          {common.add}
        </Button>
      </div>
    </div>
  )
}

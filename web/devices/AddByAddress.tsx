import { problemWords } from '../../core/messages/errorWords.ts'
import { common } from '../../core/messages/en/common.ts'
import { addDevice as msg } from '../../core/messages/en/devices.ts'
import './devices.css'
import { Alert, Button, Input, Select } from 'antd'
import { useState, type ReactNode } from 'react'
import type { DeviceView } from '../../core/devices/views.ts'
import { request } from '../api/client.ts'
import { useSite } from '../api/queries.ts'
import { hostOf } from './words.tsx'

/** No id of a camera has a star. */
const NEW = '*new'

/** One device by its address, and which camera of the site it is. */
export function AddByAddress({
  onBack,
  onAdded
}: {
  onBack: () => void
  onAdded: (device: DeviceView) => void
}): ReactNode {
  const cameras = useSite().data?.cameras ?? []
  const [form, setForm] = useState({
    address: 'http://',
    name: '',
    camera: NEW,
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
        await request<DeviceView>('POST', '/devices', {
          // What it is called can be said later; its address tells it from others until then.
          name: form.name.trim() || hostOf(form.address) || form.address,
          address: form.address,
          camera: form.camera === NEW ? null : form.camera || null,
          makeCameras: form.camera === NEW,
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
        autoFocus={key === 'address'}
        onChange={(e) => set(key)(e.target.value)}
        onPressEnter={() => void add()}
      />
    </label>
  )
  return (
    <div className="device-form">
      {field('address', common.address, msg.addressSuchAs)}
      {field('name', common.name, msg.nameSuchAs)}
      <label className="field">
        <span>{msg.cameras}</span>
        <Select
          value={form.camera}
          options={[
            { value: NEW, label: msg.newCameras },
            ...cameras.map((c) => ({ value: c.id, label: c.name })),
            { value: '', label: msg.none }
          ]}
          onChange={set('camera')}
        />
      </label>
      {field('username', common.userName, '')}
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

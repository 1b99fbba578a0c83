import { Alert, Button, Input, Modal, Select } from 'antd'
import { useState, type ReactNode } from 'react'
import type { DeviceView } from '../../core/api.ts'
import { request } from '../api/client.ts'
import { useSite } from '../api/queries.ts'

/** Adding a device: where it is, which camera of the site it is, and its account. */
export function AddDevice({ onClose, onAdded }: { onClose: () => void; onAdded: (device: DeviceView) => void }): ReactNode {
  const site = useSite()
  const [form, setForm] = useState({ name: '', address: 'http://', camera: '', username: '', password: '' })
  const [error, setError] = useState<string | null>(null)
  const [busy, setBusy] = useState(false)
  const set = (key: keyof typeof form) => (value: string) => setForm((old) => ({ ...old, [key]: value }))
  const add = async (): Promise<void> => {
    setBusy(true)
    try {
      onAdded(await request<DeviceView>('POST', '/api/devices', { name: form.name, address: form.address, camera: form.camera || null, username: form.username || null, password: form.username ? form.password : null }))
    } catch (problem) {
      setError((problem as Error).message.replace(/^\$\.?/, ''))
    } finally {
      setBusy(false)
    }
  }
  const field = (key: 'name' | 'address' | 'username' | 'password', label: string, placeholder: string): ReactNode => (
    <label className="field">
      <span>{label}</span>
      <Input type={key === 'password' ? 'password' : 'text'} value={form[key]} placeholder={placeholder} autoComplete="off" onChange={(e) => set(key)(e.target.value)} onPressEnter={() => void add()} />
    </label>
  )
  return (
    <Modal open title="Add a device" onCancel={onClose} footer={null}>
      <div className="device-form">
        {field('address', 'Address', 'http://192.168.1.20')}
        {field('name', 'Name', 'Slipway camera')}
        <label className="field">
          <span>Camera of the site</span>
          <Select value={form.camera} options={[{ value: '', label: 'None yet' }, ...(site.data?.cameras ?? []).map((c) => ({ value: c.id, label: c.name }))]} onChange={set('camera')} />
        </label>
        {field('username', 'User name', 'left empty for a device fresh from the box')}
        {field('password', 'Password', '')}
        {error && <Alert type="error" title={error} />}
        <div className="row">
          <Button onClick={onClose}>Leave</Button>
          <Button type="primary" loading={busy} onClick={() => void add()}>
            Add and read it
          </Button>
        </div>
      </div>
    </Modal>
  )
}

/** The account of a device: its first one, or the right one. */
export function AccountForm({ device, onDone }: { device: DeviceView; onDone: () => void }): ReactNode {
  const first = device.state === 'new'
  const [username, setUsername] = useState(device.username ?? 'admin')
  const [password, setPassword] = useState('')
  const [error, setError] = useState<string | null>(null)
  const [busy, setBusy] = useState(false)
  const say = async (): Promise<void> => {
    setBusy(true)
    try {
      await request('POST', `/api/devices/${device.id}/account`, { username, password, first })
      setError(null)
      onDone()
    } catch (problem) {
      setError((problem as Error).message.replace(/^\$\.?/, ''))
    } finally {
      setBusy(false)
    }
  }
  return (
    <section className="account-form" aria-label="Account">
      <p>{first ? 'Give it its first account. From then on it answers nobody without it.' : 'Say the account under which it may be spoken with.'}</p>
      <div className="row">
        <Input aria-label="User name" value={username} autoComplete="off" onChange={(e) => setUsername(e.target.value)} />
        <Input.Password aria-label="Password" value={password} autoComplete="new-password" onChange={(e) => setPassword(e.target.value)} onPressEnter={() => void say()} />
        <Button type="primary" loading={busy} onClick={() => void say()}>
          {first ? 'Make the account' : 'Use it'}
        </Button>
      </div>
      {error && <Alert type="error" title={error} />}
    </section>
  )
}

import { Alert, Button, Input } from 'antd'
import { useState, type ReactNode } from 'react'
import type { DeviceView } from '../../core/devices/views.ts'
import { request } from '../api/client.ts'

/** The account of a device: its first one, or the right one. */
export function AccountForm({
  device,
  onDone
}: {
  device: DeviceView
  onDone: () => void
}): ReactNode {
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
      <p>
        {first
          ? 'Give it its first account. From then on it answers nobody without it.'
          : 'Say the account under which it may be spoken with.'}
      </p>
      <div className="row">
        <Input
          aria-label="User name"
          value={username}
          autoComplete="off"
          onChange={(e) => setUsername(e.target.value)}
        />
        <Input.Password
          aria-label="Password"
          value={password}
          autoComplete="new-password"
          onChange={(e) => setPassword(e.target.value)}
          onPressEnter={() => void say()}
        />
        <Button type="primary" loading={busy} onClick={() => void say()}>
          {first ? 'Make the account' : 'Use it'}
        </Button>
      </div>
      {error && <Alert type="error" title={error} />}
    </section>
  )
}

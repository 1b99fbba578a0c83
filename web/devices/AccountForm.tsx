import { problemWords } from '../../core/messages/errorWords.ts'
import { common } from '../../core/messages/en/common.ts'
import { accountForm as msg } from '../../core/messages/en/devices.ts'
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
      await request('POST', `/devices/${device.id}/account`, { username, password, first })
      setError(null)
      onDone()
    } catch (problem) {
      setError(problemWords(problem))
    } finally {
      setBusy(false)
    }
  }
  return (
    <section className="account-form" aria-label={common.account}>
      <p>{first ? msg.giveItItsFirstAccount : msg.enterTheDevicesUser}</p>
      <div className="row">
        <Input
          aria-label={common.userName}
          value={username}
          autoComplete="off"
          onChange={(e) => setUsername(e.target.value)}
        />
        <Input.Password
          aria-label={common.password}
          value={password}
          autoComplete="new-password"
          onChange={(e) => setPassword(e.target.value)}
          onPressEnter={() => void say()}
        />
        <Button type="primary" loading={busy} onClick={() => void say()}>
          {first ? msg.createAccount : common.save}
        </Button>
      </div>
      {error && <Alert type="error" title={error} />}
    </section>
  )
}

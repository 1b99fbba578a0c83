import { wordsOf } from '../../core/messages/words.ts'
import { problemWords } from '../../core/messages/errorWords.ts'
import { common } from '../../core/messages/en/common.ts'
import { newPassword as msg } from '../../core/messages/en/upkeep.ts'
import { Alert, Input, Modal } from 'antd'
import { useState, type ReactNode } from 'react'
import type { PasswordResult } from '../../core/devices/upkeep.ts'
import { request } from '../api/client.ts'
import { Failed, Passed } from '../words/signs.tsx'

/** One new password for the accounts of several devices. */
export function NewPassword({
  devices,
  onClose
}: {
  devices: readonly { id: string; name: string }[]
  onClose: () => void
}): ReactNode {
  const [password, setPassword] = useState('')
  const [again, setAgain] = useState('')
  const [working, setWorking] = useState(false)
  const [error, setError] = useState<string | null>(null)
  const [results, setResults] = useState<PasswordResult[] | null>(null)
  const differs = again !== '' && again !== password
  const change = async (): Promise<void> => {
    setWorking(true)
    setError(null)
    try {
      setResults(
        await request<PasswordResult[]>('POST', '/devices/password', {
          devices: devices.map(({ id }) => id),
          password
        })
      )
    } catch (problem) {
      setError(problemWords(problem, { password: msg.newPassword }))
    } finally {
      setWorking(false)
    }
  }
  return (
    <Modal
      open
      width={440}
      title={msg.title(devices.length)}
      cancelText={common.cancel}
      okText={results ? common.close : msg.change}
      cancelButtonProps={results ? { style: { display: 'none' } } : {}}
      okButtonProps={{ disabled: !results && (password.length < 8 || again !== password) }}
      confirmLoading={working}
      onOk={() => (results ? onClose() : void change())}
      onCancel={onClose}
    >
      {results ? (
        <ul className="password-results">
          {results.map((r) => (
            <li key={r.device} className={r.error === null ? '' : 'failed'}>
              {r.error === null ? <Passed /> : <Failed />} {r.name}:{' '}
              {r.error === null ? msg.changed : wordsOf(r.error)}
            </li>
          ))}
        </ul>
      ) : (
        <form
          className="password-form"
          onSubmit={(e) => {
            e.preventDefault()
            if (password.length >= 8 && again === password) void change()
          }}
        >
          <p className="quiet">{devices.map(({ name }) => name).join(', ')}</p>
          <label className="field">
            <span className="field-name">{msg.newPassword}</span>
            <Input.Password
              autoFocus
              autoComplete="new-password"
              value={password}
              onChange={(e) => setPassword(e.target.value)}
            />
          </label>
          <label className="field">
            <span className="field-name">{msg.again}</span>
            <Input.Password
              autoComplete="new-password"
              status={differs ? 'error' : ''}
              value={again}
              onChange={(e) => setAgain(e.target.value)}
            />
          </label>
          {differs && <p className="failed">{msg.differs}</p>}
          {error && <Alert type="error" title={error} />}
          <button type="submit" hidden />
        </form>
      )}
    </Modal>
  )
}

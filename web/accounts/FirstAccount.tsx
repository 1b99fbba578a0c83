import { problemWords } from '../../core/messages/errorWords.ts'
import { common } from '../../core/messages/en/common.ts'
import { firstAccount as msg } from '../../core/messages/en/accounts.ts'
import './accounts.css'
import { useQueryClient } from '@tanstack/react-query'
import { Alert, Button, Input } from 'antd'
import { useState, type ReactNode } from 'react'
import { MIN_PASSWORD, type AccountView } from '../../core/accounts/accounts.ts'
import { request } from '../api/client.ts'
import { Mark } from '../shell/Mark.tsx'
import { setSession } from './useSession.ts'

const names: Record<string, string> = {
  code: msg.code,
  username: common.userName,
  name: msg.yourName,
  password: common.password
}

/**
 * The first account of a new installation, for who holds the code that the start printed. What was
 * typed stays when it was wrong.
 */
export function FirstAccount(): ReactNode {
  const queries = useQueryClient()
  const [form, setForm] = useState({ code: '', username: '', name: '', password: '' })
  const [error, setError] = useState<string | null>(null)
  const [sending, setSending] = useState(false)
  const set = (change: Partial<typeof form>): void => setForm({ ...form, ...change })
  const make = async (): Promise<void> => {
    setSending(true)
    try {
      setSession(queries, await request<AccountView>('POST', '/api/first-account', form))
    } catch (problem) {
      setError(problemWords(problem, names))
    } finally {
      setSending(false)
    }
  }
  return (
    <main className="sign-in">
      <form
        onSubmit={(e) => {
          e.preventDefault()
          void make()
        }}
      >
        <h1>
          <Mark /> {common.wardoptic}
        </h1>
        <p className="quiet">{msg.noAccountsYetCreate}</p>
        <label className="field">
          <span className="field-name">{msg.code}</span>
          <Input
            autoFocus
            autoComplete="off"
            spellCheck={false}
            className="figures"
            placeholder={msg.codeSuchAs}
            value={form.code}
            maxLength={40}
            onChange={(e) => set({ code: e.target.value })}
          />
        </label>
        <label className="field">
          <span className="field-name">{msg.yourName}</span>
          <Input
            autoComplete="name"
            value={form.name}
            maxLength={80}
            onChange={(e) => set({ name: e.target.value })}
          />
        </label>
        <label className="field">
          <span className="field-name">{common.userName}</span>
          <Input
            autoComplete="username"
            value={form.username}
            maxLength={40}
            onChange={(e) => set({ username: e.target.value })}
          />
        </label>
        <label className="field">
          <span className="field-name">{msg.passwordAtLeastCharacters(MIN_PASSWORD)}</span>
          <Input.Password
            autoComplete="new-password"
            value={form.password}
            maxLength={128}
            onChange={(e) => set({ password: e.target.value })}
          />
        </label>
        {error && <Alert type="error" title={error} />}
        <Button
          type="primary"
          htmlType="submit"
          loading={sending}
          disabled={!form.code || !form.username || !form.name || !form.password}
        >
          {msg.createAccount}
        </Button>
      </form>
    </main>
  )
}

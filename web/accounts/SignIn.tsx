import { problemWords } from '../../core/messages/errorWords.ts'
import { common } from '../../core/messages/en/common.ts'
import { signIn as msg } from '../../core/messages/en/accounts.ts'
import './accounts.css'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Alert, Button, Input } from 'antd'
import { useState, type ReactNode } from 'react'
import type { AccountView, EntranceView } from '../../core/accounts/accounts.ts'
import { request } from '../api/client.ts'
import { FirstAccount } from './FirstAccount.tsx'
import { setSession } from './useSession.ts'
import { Mark } from '../shell/Mark.tsx'

/** The way in: signing in, or on a new installation its first account. */
export function SignIn(): ReactNode {
  const entrance = useQuery({
    queryKey: ['session', 'entrance'],
    queryFn: () => request<EntranceView>('GET', '/api/entrance'),
    staleTime: Infinity
  })
  if (entrance.isPending) return null
  return entrance.data?.first ? <FirstAccount /> : <SignInForm />
}

/** What was typed stays when it was wrong. */
function SignInForm(): ReactNode {
  const queries = useQueryClient()
  const [username, setUsername] = useState('')
  const [password, setPassword] = useState('')
  const [error, setError] = useState<string | null>(null)
  const [sending, setSending] = useState(false)
  const signIn = async (): Promise<void> => {
    setSending(true)
    try {
      const account = await request<AccountView>('POST', '/api/session', { username, password })
      setSession(queries, account)
    } catch (problem) {
      setError(problemWords(problem))
    } finally {
      setSending(false)
    }
  }
  return (
    <main className="sign-in">
      <form
        onSubmit={(e) => {
          e.preventDefault()
          void signIn()
        }}
      >
        <h1>
          <Mark /> {common.wardoptic}
        </h1>
        <label className="field">
          <span className="field-name">{common.userName}</span>
          <Input
            autoFocus
            autoComplete="username"
            value={username}
            maxLength={40}
            onChange={(e) => setUsername(e.target.value)}
          />
        </label>
        <label className="field">
          <span className="field-name">{common.password}</span>
          <Input.Password
            autoComplete="current-password"
            value={password}
            maxLength={128}
            onChange={(e) => setPassword(e.target.value)}
          />
        </label>
        {error && <Alert type="error" title={error} />}
        <Button
          type="primary"
          htmlType="submit"
          loading={sending}
          disabled={!username || !password}
        >
          {msg.signIn}
        </Button>
        <p className="quiet">{msg.noAccountAskYourInstaller}</p>
      </form>
    </main>
  )
}

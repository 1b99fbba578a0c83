import { useQueryClient } from '@tanstack/react-query'
import { Alert, App, Button, Dropdown, Input, Modal } from 'antd'
import { Suspense, lazy, useState, type ReactNode } from 'react'
import type { AccountView } from '../../core/accounts/accounts.ts'
import { request } from '../api/client.ts'
import { setSession } from './useSession.ts'

const AccountList = lazy(() => import('./AccountList.tsx').then((m) => ({ default: m.AccountList })))

const initials = (name: string): string => name.split(/\s+/).map((word) => word[0]).slice(0, 2).join('')

/** Who is signed in; the own password, the accounts, the way out. */
export function UserMenu({ account }: { account: AccountView }): ReactNode {
  const queries = useQueryClient()
  const [open, setOpen] = useState<'password' | 'accounts' | null>(null)
  const signOut = async (): Promise<void> => {
    await request('DELETE', '/api/session').catch(() => {})
    setSession(queries, null)
  }
  return (
    <>
      <Dropdown
        trigger={['click']}
        menu={{
          items: [
            { key: 'who', label: `${account.name}, ${account.role}`, disabled: true },
            { key: 'password', label: 'Change the password …', onClick: () => setOpen('password') },
            ...(account.role === 'installer' ? [{ key: 'accounts', label: 'Accounts …', onClick: () => setOpen('accounts') }] : []),
            { key: 'out', label: 'Sign out', onClick: () => void signOut() }
          ]
        }}
      >
        <button type="button" className="user" aria-label={`${initials(account.name)}: ${account.name}, ${account.role}`}>
          {initials(account.name)}
        </button>
      </Dropdown>
      <Modal open={open === 'password'} title="Change the password" footer={null} onCancel={() => setOpen(null)} destroyOnHidden width={380}>
        <OwnPassword onDone={() => setOpen(null)} />
      </Modal>
      <Modal open={open === 'accounts'} title="Accounts" footer={null} onCancel={() => setOpen(null)} destroyOnHidden width={720}>
        <Suspense fallback={null}>
          <AccountList me={account.id} />
        </Suspense>
      </Modal>
    </>
  )
}

function OwnPassword({ onDone }: { onDone: () => void }): ReactNode {
  const { message } = App.useApp()
  const [old, setOld] = useState('')
  const [password, setPassword] = useState('')
  const [error, setError] = useState<string | null>(null)
  const change = async (): Promise<void> => {
    try {
      await request('PUT', '/api/session/password', { old, password })
      void message.success('Changed; other places where you were signed in are signed out')
      onDone()
    } catch (problem) {
      setError((problem as Error).message.replace(/^\$\.old: /, 'The old one ').replace(/^\$\.password: /, 'The new one '))
    }
  }
  return (
    <form className="account-form" onSubmit={(e) => { e.preventDefault(); void change() }}>
      <label className="field">
        <span className="field-name">Old</span>
        <Input.Password autoComplete="current-password" value={old} onChange={(e) => setOld(e.target.value)} />
      </label>
      <label className="field">
        <span className="field-name">New, at least 10 characters</span>
        <Input.Password autoComplete="new-password" value={password} onChange={(e) => setPassword(e.target.value)} />
      </label>
      {error && <Alert type="error" title={error} />}
      <Button type="primary" htmlType="submit">
        Change it
      </Button>
    </form>
  )
}

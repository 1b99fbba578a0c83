import { problemWords } from '../../core/messages/errorWords.ts'
import { roles, userMenu as msg } from '../../core/messages/en/accounts.ts'
import './accounts.css'
import { useQueryClient } from '@tanstack/react-query'
import { Alert, App, Button, Dropdown, Input, Modal } from 'antd'
import { Suspense, useState, type ReactNode } from 'react'
import { MIN_PASSWORD, type AccountView } from '../../core/accounts/accounts.ts'
import { request } from '../api/client.ts'
import { setSession, useSession } from './useSession.ts'
import { lazyPart } from '../lazyPart.tsx'

const SessionList = lazyPart(() => import('./SessionList.tsx'), 'SessionList')
const AuditList = lazyPart(() => import('./AuditList.tsx'), 'AuditList')
const RetentionForm = lazyPart(() => import('../retention/RetentionForm.tsx'), 'RetentionForm')
const AccountList = lazyPart(() => import('./AccountList.tsx'), 'AccountList')

const initials = (name: string): string =>
  name
    .split(/\s+/)
    .map((word) => word[0])
    .slice(0, 2)
    .join('')

/** Who is signed in; the own password, the accounts, the way out. */
export function UserMenu({ account }: { account: AccountView }): ReactNode {
  const queries = useQueryClient()
  // Of the whole installation, so not for somebody with a role at one site only.
  const administers = useSession().data?.role === 'installer'
  const [open, setOpen] = useState<
    'password' | 'sessions' | 'accounts' | 'audit' | 'storage' | null
  >(null)
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
            {
              key: 'who',
              label: account.role ? msg.who(account.name, roles[account.role]) : account.name,
              disabled: true
            },
            { key: 'password', label: msg.changePassword, onClick: () => setOpen('password') },
            { key: 'sessions', label: msg.sessions, onClick: () => setOpen('sessions') },
            ...(administers
              ? [
                  { key: 'accounts', label: msg.accounts, onClick: () => setOpen('accounts') },
                  { key: 'audit', label: msg.auditLog, onClick: () => setOpen('audit') },
                  { key: 'storage', label: msg.storage, onClick: () => setOpen('storage') }
                ]
              : []),
            { key: 'out', label: msg.signOut, onClick: () => void signOut() }
          ]
        }}
      >
        <button
          type="button"
          className="user"
          aria-label={
            account.role
              ? msg.whoIs(initials(account.name), account.name, roles[account.role])
              : account.name
          }
        >
          {initials(account.name)}
        </button>
      </Dropdown>
      <Modal
        open={open === 'password'}
        title={msg.changePassword2}
        footer={null}
        onCancel={() => setOpen(null)}
        destroyOnHidden
        width={380}
      >
        <OwnPassword onDone={() => setOpen(null)} />
      </Modal>
      <Modal
        open={open === 'sessions'}
        title={msg.yourSessions}
        footer={null}
        onCancel={() => setOpen(null)}
        destroyOnHidden
        width={760}
      >
        <Suspense fallback={null}>
          <SessionList />
        </Suspense>
      </Modal>
      <Modal
        open={open === 'accounts'}
        title={msg.accounts2}
        footer={null}
        onCancel={() => setOpen(null)}
        destroyOnHidden
        width={720}
      >
        <Suspense fallback={null}>
          <AccountList me={account.id} />
        </Suspense>
      </Modal>
      <Modal
        open={open === 'audit'}
        title={msg.auditList2}
        footer={null}
        onCancel={() => setOpen(null)}
        destroyOnHidden
        width={900}
      >
        <Suspense fallback={null}>
          <AuditList />
        </Suspense>
      </Modal>
      <Modal
        open={open === 'storage'}
        title={msg.storage2}
        footer={null}
        onCancel={() => setOpen(null)}
        destroyOnHidden
        width={680}
      >
        <Suspense fallback={null}>
          <RetentionForm />
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
      void message.success(msg.passwordChangedYourOtherSessions)
      onDone()
    } catch (problem) {
      setError(problemWords(problem, { old: msg.currentPassword, password: msg.newPassword }))
    }
  }
  return (
    <form
      className="account-form"
      onSubmit={(e) => {
        e.preventDefault()
        void change()
      }}
    >
      <label className="field">
        <span className="field-name">{msg.currentPassword}</span>
        <Input.Password
          autoComplete="current-password"
          value={old}
          onChange={(e) => setOld(e.target.value)}
        />
      </label>
      <label className="field">
        <span className="field-name">{msg.newPasswordAtLeastCharacters(MIN_PASSWORD)}</span>
        <Input.Password
          autoComplete="new-password"
          value={password}
          onChange={(e) => setPassword(e.target.value)}
        />
      </label>
      {error && <Alert type="error" title={error} />}
      <Button type="primary" htmlType="submit">
        {msg.changePassword2}
      </Button>
    </form>
  )
}

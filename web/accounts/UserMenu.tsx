import { roles, userMenu as msg } from '../../core/messages/en/accounts.ts'
import './accounts.css'
import { useQueryClient } from '@tanstack/react-query'
import { Dropdown } from 'antd'
import { Suspense, useState, type ReactNode } from 'react'
import type { AccountView } from '../../core/accounts/accounts.ts'
import { request } from '../api/client.ts'
import { setSession, useSession } from './useSession.ts'
import type { AccountDialog } from './AccountDialogs.tsx'
import { lazyPart } from '../lazyPart.tsx'

const AccountDialogs = lazyPart(() => import('./AccountDialogs.tsx'), 'AccountDialogs')

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
  const [open, setOpen] = useState<AccountDialog | null>(null)
  // Of the code of the dialogs, from the first of them on.
  const [asked, setAsked] = useState(false)
  if (open && !asked) setAsked(true)
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
      {asked && (
        <Suspense fallback={null}>
          <AccountDialogs open={open} me={account.id} onClose={() => setOpen(null)} />
        </Suspense>
      )}
    </>
  )
}

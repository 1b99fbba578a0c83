import { problemWords } from '../../core/messages/errorWords.ts'
import { userMenu as msg } from '../../core/messages/en/accounts.ts'
import './accounts.css'
import { Alert, App, Button, Input, Modal } from 'antd'
import { Suspense, useState, type ReactNode } from 'react'
import { MIN_PASSWORD } from '../../core/accounts/accounts.ts'
import { request } from '../api/client.ts'
import { lazyPart } from '../lazyPart.tsx'

const SessionList = lazyPart(() => import('./SessionList.tsx'), 'SessionList')
const AuditList = lazyPart(() => import('./AuditList.tsx'), 'AuditList')
const RetentionForm = lazyPart(() => import('../retention/RetentionForm.tsx'), 'RetentionForm')
const AccountList = lazyPart(() => import('./AccountList.tsx'), 'AccountList')

export type AccountDialog = 'password' | 'sessions' | 'accounts' | 'audit' | 'storage'

const dialogs: Record<AccountDialog, { title: string; width: number }> = {
  password: { title: msg.changePassword2, width: 380 },
  sessions: { title: msg.yourSessions, width: 760 },
  accounts: { title: msg.accounts2, width: 720 },
  audit: { title: msg.auditList2, width: 900 },
  storage: { title: msg.storage2, width: 680 }
}

/** What the menu of who is signed in opens. @param open null: it has been closed @param me the id of who it is */
export function AccountDialogs({
  open,
  me,
  onClose
}: {
  open: AccountDialog | null
  me: number
  onClose: () => void
}): ReactNode {
  // While it fades away it still shows what it showed.
  const [shown, setShown] = useState<AccountDialog>(open ?? 'password')
  if (open && open !== shown) setShown(open)
  const contents: Record<AccountDialog, ReactNode> = {
    password: <OwnPassword onDone={onClose} />,
    sessions: <SessionList />,
    accounts: <AccountList me={me} />,
    audit: <AuditList />,
    storage: <RetentionForm />
  }
  return (
    <Modal
      open={open !== null}
      {...dialogs[shown]}
      footer={null}
      onCancel={onClose}
      destroyOnHidden
    >
      <Suspense fallback={null}>{contents[shown]}</Suspense>
    </Modal>
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

import { findDialog as msg } from '../../core/messages/en/find.ts'
import { SearchOutlined } from '@ant-design/icons'
import { Button, Tooltip } from 'antd'
import { Suspense, useEffect, useState, type ReactNode } from 'react'
import type { Role } from '../../core/accounts/accounts.ts'
import { lazyPart } from '../lazyPart.tsx'

const FindDialog = lazyPart(() => import('./FindDialog.tsx'), 'FindDialog')
/** Once the place is there the dialog is fetched: what somebody types at once must not be lost. */
const FETCH_MS = 3000

/** Opens the search from every place: by this button, or Ctrl+K wherever somebody is. */
export function FindButton({ role }: { role: Role }): ReactNode {
  const [open, setOpen] = useState(false)
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (!(event.ctrlKey || event.metaKey) || event.shiftKey || event.altKey) return
      if (event.key.toLowerCase() !== 'k') return
      // Browsers open their own search by it.
      event.preventDefault()
      setOpen(true)
    }
    window.addEventListener('keydown', onKey)
    const timer = setTimeout(() => void FindDialog.fetchCode().catch(() => {}), FETCH_MS)
    return () => {
      window.removeEventListener('keydown', onKey)
      clearTimeout(timer)
    }
  }, [])
  return (
    <>
      <Tooltip title={msg.search}>
        <Button
          type="text"
          icon={<SearchOutlined aria-hidden />}
          aria-label={msg.search}
          aria-keyshortcuts="Control+K"
          onClick={() => setOpen(true)}
        />
      </Tooltip>
      {open && (
        <Suspense fallback={null}>
          <FindDialog role={role} onClose={() => setOpen(false)} />
        </Suspense>
      )}
    </>
  )
}

import { serverNote as msg } from '../../core/messages/en/shell.ts'
import './shell.css'
import type { ReactNode } from 'react'
import { useServerState } from '../api/serverState.ts'

/** Says across the page that the server cannot do its work now: what is shown may be old, and nothing can be saved. */
export function ServerNote(): ReactNode {
  const wrong = useServerState()
  if (wrong === null) return null
  return (
    <p className="server-note" role="alert">
      <strong>{wrong}</strong> {msg.whatYouSeeMayBe}
    </p>
  )
}

import { conflictNote as msg } from '../../core/messages/en/sync.ts'
import './sync.css'
import { Alert, Button } from 'antd'
import type { ReactNode } from 'react'
import { useClock } from '../words/useClock.ts'
import type { Conflict } from './document.ts'

/** Somebody saved a newer version in another window; a person decides, and nothing is lost until then. */
export function ConflictNote({
  conflict,
  document
}: {
  conflict: Conflict
  document: { resolveConflict(whose: 'mine' | 'theirs'): void }
}): ReactNode {
  const clock = useClock()
  const deleted = conflict.theirs === null && /^(detection|camera):/.test(conflict.key)
  return (
    <Alert
      className="conflict"
      type="warning"
      showIcon
      title={msg.wasInAnotherWindow(conflict.name, clock.time(conflict.changedAt), deleted)}
      action={
        <>
          <Button size="small" type="primary" onClick={() => document.resolveConflict('mine')}>
            {msg.saveMine}
          </Button>
          <Button size="small" onClick={() => document.resolveConflict('theirs')}>
            {msg.useTheirs}
          </Button>
        </>
      }
    />
  )
}

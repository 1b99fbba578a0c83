import './sync.css'
import { RedoOutlined, UndoOutlined } from '@ant-design/icons'
import { Button, Tooltip } from 'antd'
import type { ReactNode } from 'react'
import type { SyncState } from './document.ts'

const words: Record<SyncState['status'], string> = {
  saved: 'All changes saved',
  saving: 'Saving …',
  waiting: 'Unsaved changes'
}

/** Whether all changes are saved. */
export const SyncStatus = ({ status, error }: Pick<SyncState, 'status' | 'error'>): ReactNode => (
  <span role="status" className={`sync-status ${status}`} title={error ?? undefined}>
    {error ? `Not saved: ${error}` : words[status]}
  </span>
)

/** Undo and redo, each with what it would do. */
export const UndoButtons = ({
  undo,
  redo,
  document
}: Pick<SyncState, 'undo' | 'redo'> & {
  document: { undo(): void; redo(): void }
}): ReactNode => (
  <>
    <Tooltip title={undo ? `Undo: ${undo}` : 'Nothing to undo'}>
      <Button
        type="text"
        aria-label="Undo"
        icon={<UndoOutlined />}
        disabled={!undo}
        onClick={() => document.undo()}
      />
    </Tooltip>
    <Tooltip title={redo ? `Redo: ${redo}` : 'Nothing to redo'}>
      <Button
        type="text"
        aria-label="Redo"
        icon={<RedoOutlined />}
        disabled={!redo}
        onClick={() => document.redo()}
      />
    </Tooltip>
  </>
)

/** Whether all is saved, and undo. */
export const SyncBar = ({
  state,
  document
}: {
  state: SyncState
  document: { undo(): void; redo(): void }
}): ReactNode => (
  <span className="sync-bar">
    <SyncStatus status={state.status} error={state.error} />
    <UndoButtons undo={state.undo} redo={state.redo} document={document} />
  </span>
)

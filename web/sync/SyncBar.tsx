import { wordsOf } from '../../core/messages/words.ts'
import { common } from '../../core/messages/en/common.ts'
import { syncBar as msg } from '../../core/messages/en/sync.ts'
import './sync.css'
import { RedoOutlined, UndoOutlined } from '@ant-design/icons'
import { Button, Tooltip } from 'antd'
import type { ReactNode } from 'react'
import type { SyncState } from './document.ts'

const words: Record<SyncState['status'], string> = {
  saved: msg.allChangesSaved,
  saving: msg.saving,
  waiting: msg.unsavedChanges
}

/** Whether all changes are saved. */
export const SyncStatus = ({ status, error }: Pick<SyncState, 'status' | 'error'>): ReactNode => (
  <span role="status" className={`sync-status ${status}`} title={error ?? undefined}>
    {error ? msg.notSaved(error) : words[status]}
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
    <Tooltip title={undo ? msg.undo(wordsOf(undo)) : msg.nothingToUndo}>
      <Button
        type="text"
        aria-label={common.undo}
        icon={<UndoOutlined aria-hidden />}
        disabled={!undo}
        onClick={() => document.undo()}
      />
    </Tooltip>
    <Tooltip title={redo ? msg.redo(wordsOf(redo)) : msg.nothingToRedo}>
      <Button
        type="text"
        aria-label={common.redo}
        icon={<RedoOutlined aria-hidden />}
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

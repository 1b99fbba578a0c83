import { RedoOutlined, UndoOutlined } from '@ant-design/icons'
import { Button, Tooltip } from 'antd'
import type { ReactNode } from 'react'
import type { KeepingState } from './things.ts'

const words: Record<KeepingState['keeping'], string> = {
  kept: 'All changes kept',
  keeping: 'Keeping …',
  waiting: 'Not kept yet'
}

/** Whether all is kept, and undo. */
export function KeepingBar({
  state,
  document
}: {
  state: KeepingState
  document: { undo(): void; redo(): void }
}): ReactNode {
  return (
    <span className="keeping-bar">
      <span role="status" className={`keeping ${state.keeping}`} title={state.trouble ?? undefined}>
        {state.trouble ? `Not kept: ${state.trouble}` : words[state.keeping]}
      </span>
      <Tooltip title={state.undo ? `Undo: ${state.undo}` : 'Nothing to undo'}>
        <Button
          type="text"
          aria-label="Undo"
          icon={<UndoOutlined />}
          disabled={!state.undo}
          onClick={() => document.undo()}
        />
      </Tooltip>
      <Tooltip title={state.redo ? `Do again: ${state.redo}` : 'Nothing to do again'}>
        <Button
          type="text"
          aria-label="Do again"
          icon={<RedoOutlined />}
          disabled={!state.redo}
          onClick={() => document.redo()}
        />
      </Tooltip>
    </span>
  )
}

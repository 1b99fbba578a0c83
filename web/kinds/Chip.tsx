import './kinds.css'
import { Popover } from 'antd'
import { Later } from '../bench/Later.tsx'
import { useRef, useState, type KeyboardEvent, type ReactNode } from 'react'

export interface ChipProps {
  /** What the chip sets, for screen readers and as the heading of its editor. */
  what: string
  children: string
  editor: (close: () => void) => ReactNode
  /** Its editor is open from the start, and this is told when it closes. */
  onClosed?: () => void
}

/** An editable part of the sentence. No `button` element: that would not break over lines like the words around it. */
export function Chip({ what, children, editor, onClosed }: ChipProps): ReactNode {
  const [open, setOpen] = useState(onClosed !== undefined)
  const chip = useRef<HTMLSpanElement>(null)
  const show = (wanted: boolean): void => {
    setOpen(wanted)
    if (!wanted) onClosed?.()
  }
  const onKey = (event: KeyboardEvent): void => {
    // Escape leaves the editor, not what is selected on the Bench.
    if (event.key === 'Escape' && open) {
      show(false)
      chip.current?.focus()
    } else if ((event.key === 'Enter' || event.key === ' ') && event.target === event.currentTarget)
      show(!open)
    else return
    event.preventDefault()
    event.stopPropagation()
  }
  const leave = (event: KeyboardEvent): void => {
    if (event.key === 'Escape') onKey(event)
  }
  return (
    <Popover
      trigger="click"
      open={open}
      onOpenChange={show}
      placement="bottomRight"
      title={what}
      destroyOnHidden
      content={
        <div className="chip-editor" onKeyDown={leave}>
          <Later>{editor(() => show(false))}</Later>
        </div>
      }
    >
      <span
        ref={chip}
        role="button"
        tabIndex={0}
        className="chip"
        aria-label={`${what}: ${children}`}
        aria-expanded={open}
        onKeyDown={onKey}
      >
        {children}
      </span>
    </Popover>
  )
}

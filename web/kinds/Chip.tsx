import './kinds.css'
import { Popover } from 'antd'
import { useRef, useState, type KeyboardEvent, type ReactNode } from 'react'

export interface ChipProps {
  /** What the chip sets, for screen readers and as the heading of its editor. */
  what: string
  children: string
  editor: (close: () => void) => ReactNode
}

/** An editable part of the sentence. No `button` element: that would not break over lines like the words around it. */
export function Chip({ what, children, editor }: ChipProps): ReactNode {
  const [open, setOpen] = useState(false)
  const chip = useRef<HTMLSpanElement>(null)
  const onKey = (event: KeyboardEvent): void => {
    // Escape leaves the editor, not what is selected on the Bench.
    if (event.key === 'Escape' && open) {
      setOpen(false)
      chip.current?.focus()
    } else if ((event.key === 'Enter' || event.key === ' ') && event.target === event.currentTarget)
      setOpen(!open)
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
      onOpenChange={setOpen}
      placement="bottomRight"
      title={what}
      destroyOnHidden
      content={
        <div className="chip-editor" onKeyDown={leave}>
          {editor(() => setOpen(false))}
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

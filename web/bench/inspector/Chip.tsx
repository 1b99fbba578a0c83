import { Popover } from 'antd'
import { useState, type ReactNode } from 'react'

export interface ChipProps {
  /** What the chip sets, for screen readers and as the heading of its editor. */
  what: string
  children: ReactNode
  editor: (close: () => void) => ReactNode
}

/** An editable part of the sentence. */
export function Chip({ what, children, editor }: ChipProps): ReactNode {
  const [open, setOpen] = useState(false)
  return (
    <Popover trigger="click" open={open} onOpenChange={setOpen} placement="bottomRight" title={what} destroyOnHidden content={<div className="chip-editor">{editor(() => setOpen(false))}</div>}>
      <button type="button" className="chip" aria-label={`${what}: ${typeof children === 'string' ? children : ''}`} aria-expanded={open}>
        {children}
      </button>
    </Popover>
  )
}

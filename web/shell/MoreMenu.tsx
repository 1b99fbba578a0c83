import { Button, Dropdown, type DropdownProps, type MenuProps } from 'antd'
import { useState, type ReactNode } from 'react'

/** A button with a menu that is made when it is first opened: lists have one on each of their items. */
export function MoreMenu({
  label,
  icon,
  items,
  placement,
  className,
  type
}: {
  label: string
  icon: ReactNode
  items: MenuProps['items']
  placement?: DropdownProps['placement']
  className?: string
  type?: 'text'
}): ReactNode {
  const [open, setOpen] = useState<boolean | null>(null)
  const button = (
    <Button
      size="small"
      icon={icon}
      type={type}
      className={className}
      aria-label={label}
      aria-haspopup="menu"
      onClick={open === null ? () => setOpen(true) : undefined}
    />
  )
  if (open === null) return button
  return (
    <Dropdown
      trigger={['click']}
      open={open}
      onOpenChange={setOpen}
      placement={placement}
      menu={{ items, onClick: () => setOpen(false) }}
    >
      {button}
    </Dropdown>
  )
}

import { findDialog as msg } from '../../core/messages/en/find.ts'
import './find.css'
import { Input, Modal } from 'antd'
import { useDeferredValue, useState, type KeyboardEvent, type ReactNode } from 'react'
import { useNavigate } from 'react-router'
import type { Role } from '../../core/accounts/accounts.ts'
import { find } from '../../core/find/rank.ts'
import { useFindables, type Target } from './useFindables.ts'

const MOST = 12

/** Finds anything of the site by its name, and opens it. */
export function FindDialog({ role, onClose }: { role: Role; onClose: () => void }): ReactNode {
  const navigate = useNavigate()
  const all = useFindables(role)
  const [typed, setTyped] = useState('')
  const [at, setAt] = useState(0)
  const asked = useDeferredValue(typed.trim())
  const shown: Target[] = find(all, asked, MOST)
  // What people have written about alarms is found by the server.
  if (asked)
    shown.push({
      key: 'comments',
      kind: 'alarm',
      name: msg.comments(asked),
      to: `/watch/search?words=${encodeURIComponent(asked)}`
    })
  const selected = Math.min(at, shown.length - 1)
  const open = (target: Target | undefined): void => {
    if (!target) return
    onClose()
    void navigate(target.to)
  }
  const onKey = (event: KeyboardEvent): void => {
    const steps: Readonly<Record<string, number>> = { ArrowDown: 1, ArrowUp: -1 }
    const step = steps[event.key]
    if (step !== undefined && shown.length) {
      event.preventDefault()
      const next = (selected + step + shown.length) % shown.length
      setAt(next)
      document.getElementById(`found-${next}`)?.scrollIntoView({ block: 'nearest' })
    }
    if (event.key === 'Enter') open(shown[selected])
  }
  return (
    <Modal
      open
      title={msg.title}
      footer={<p className="quiet find-help">{msg.help}</p>}
      onCancel={onClose}
      className="find-dialog"
    >
      <Input
        autoFocus
        value={typed}
        placeholder={msg.placeholder}
        maxLength={80}
        role="combobox"
        aria-label={msg.title}
        aria-expanded
        aria-controls="found"
        aria-activedescendant={shown.length ? `found-${selected}` : undefined}
        onChange={(event) => {
          setTyped(event.target.value)
          setAt(0)
        }}
        onKeyDown={onKey}
      />
      {asked && shown.length === 1 && <p className="quiet">{msg.nothing(asked)}</p>}
      <ul id="found" role="listbox" aria-label={msg.results} className="found">
        {shown.map((target, i) => (
          <li
            key={target.key}
            id={`found-${i}`}
            role="option"
            aria-selected={i === selected}
            onPointerMove={() => setAt(i)}
            onClick={() => open(target)}
          >
            <span>{target.name}</span>
            <span className="found-kind">{msg.kinds[target.kind]}</span>
          </li>
        ))}
      </ul>
    </Modal>
  )
}

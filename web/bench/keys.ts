import { useEffect, useLayoutEffect, useRef } from 'react'

/** What a key does; returns false when it does nothing here, so that the browser has the key. */
export type KeyAction = (event: KeyboardEvent) => boolean | void

const ownKeys =
  'input, textarea, select, [contenteditable], [role=slider], [role=combobox], [role=switch], [role=radio], .ant-popover, .ant-modal-wrap, .ant-select-dropdown'
const pressed = 'button, a, summary, [role=button]'

/**
 * Keys of the Bench, by `event.key` (letters in lower case; `ctrl+z`, `ctrl+shift+z`). Fields and
 * dialogs keep theirs.
 */
export function useKeys(actions: Record<string, KeyAction>): void {
  const current = useRef(actions)
  // Before anything else can be pressed.
  useLayoutEffect(() => {
    current.current = actions
  })
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      const element = event.target instanceof Element ? event.target : null
      if (element?.closest(ownKeys) || event.altKey) return
      // Enter and Space press the button that has the focus.
      if (element?.closest(pressed) && (event.key === 'Enter' || event.key === ' ')) return
      const key = event.key.length === 1 ? event.key.toLowerCase() : event.key
      const name =
        event.ctrlKey || event.metaKey ? `ctrl+${event.shiftKey ? 'shift+' : ''}${key}` : key
      const action = current.current[name]
      if (action && action(event) !== false) event.preventDefault()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [])
}

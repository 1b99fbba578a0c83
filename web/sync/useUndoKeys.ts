import { useEffect } from 'react'

/** Ctrl+Z and Ctrl+Shift+Z undo and redo, but where somebody types. */
export function useUndoKeys(document: { undo(): void; redo(): void }): void {
  useEffect(() => {
    const keys = (e: KeyboardEvent): void => {
      const typing =
        e.target instanceof HTMLElement && /^(INPUT|TEXTAREA|SELECT)$/.test(e.target.tagName)
      if (typing || !(e.ctrlKey || e.metaKey) || e.key.toLowerCase() !== 'z') return
      e.preventDefault()
      if (e.shiftKey) document.redo()
      else document.undo()
    }
    window.addEventListener('keydown', keys)
    return () => window.removeEventListener('keydown', keys)
  }, [document])
}

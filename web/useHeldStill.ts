import { useEffect, useState } from 'react'

/** A click follows the end of its press at once, of a finger a moment later. */
const SETTLED_MS = 100
/** Whoever presses for longer than this is not about to click. */
const LONGEST_MS = 10_000

/**
 * A value that stays as it is while somebody presses on what shows it: what moves away between press and release is
 * not clicked, or something else is.
 *
 * @returns the value to show, and what to call as a press begins
 */
export function useHeldStill<T>(value: T): [T, () => void] {
  const [held, setHeld] = useState<{ value: T } | null>(null)
  useEffect(() => {
    if (!held) return
    const release = (): void => setHeld(null)
    const timers = [setTimeout(release, LONGEST_MS)]
    const settle = (): void => void timers.push(setTimeout(release, SETTLED_MS))
    window.addEventListener('pointerup', settle)
    window.addEventListener('pointercancel', settle)
    window.addEventListener('blur', settle)
    return () => {
      timers.forEach(clearTimeout)
      window.removeEventListener('pointerup', settle)
      window.removeEventListener('pointercancel', settle)
      window.removeEventListener('blur', settle)
    }
  }, [held])
  const shown = held ? held.value : value
  return [shown, () => setHeld({ value: shown })]
}

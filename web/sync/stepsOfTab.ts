import type { StepMemory, Steps } from './steps.ts'

/** What can be undone in a place, kept for as long as this tab is open. */
export function stepsOfTab<V>(place: string): StepMemory<V> {
  const key = `wardoptic.undo.${place}`
  return {
    load: () => {
      try {
        return JSON.parse(sessionStorage.getItem(key) ?? 'null') as Steps<V> | null
      } catch {
        return null
      }
    },
    save: (steps) => {
      try {
        sessionStorage.setItem(key, JSON.stringify(steps))
      } catch {
        // More than the browser keeps: undo then ends with the page.
        sessionStorage.removeItem(key)
      }
    }
  }
}

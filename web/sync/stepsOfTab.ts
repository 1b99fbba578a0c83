import { here } from '../api/here.ts'
import type { StepMemory, Steps } from './steps.ts'

/** What can be undone in a place of the site shown, kept for as long as this tab is open. */
export function stepsOfTab<V>(place: string): StepMemory<V> {
  // One tab may go from site to site.
  const key = `wardoptic.undo.${here() ?? ''}.${place}`
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

import type { Step, StepMemory } from '../document.ts'

/** What can be undone on a camera, kept for as long as this tab is open. */
export function stepsOfTab(camera: string): StepMemory {
  const key = `wardoptic.steps.${camera}`
  return {
    load: () => {
      try {
        return JSON.parse(sessionStorage.getItem(key) ?? 'null') as { undoable: Step[]; redoable: Step[] } | null
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

import { canonical } from '../../core/history/states.ts'
import type { Key, Value } from './contents.ts'

export interface Change {
  key: Key
  before: Value | null
  after: Value | null
}

export interface Step {
  label: string
  changes: Change[]
}

/** What can be undone and done again, the next one last. */
export interface Steps {
  undoable: Step[]
  redoable: Step[]
}

/** Where what can be undone outlives the page. */
export interface StepMemory {
  load(): Steps | null
  save(steps: Steps): void
}

/**
 * What could be undone before the page was reloaded, as far as it still fits what is kept now. A last step that was not
 * kept any more is one that can be done again.
 */
export function stepsThatFit(held: Steps, values: ReadonlyMap<Key, Value>): Steps {
  const fits = (now: ReadonlyMap<Key, Value>, { changes }: Step, side: 'before' | 'after'): boolean => changes.every((c) => canonical(now.get(c.key) ?? null) === canonical(c[side]))
  /** The longest run of steps, from the last one back, each of which fits what the ones after it leave. */
  const lasting = (steps: readonly Step[], side: 'before' | 'after', other: 'before' | 'after'): Step[] => {
    const now = new Map(values)
    let first = steps.length
    while (first > 0 && fits(now, steps[first - 1], side)) {
      first--
      for (const { key, [other]: value } of steps[first].changes)
        if (value === null) now.delete(key)
        else now.set(key, value)
    }
    return steps.slice(first)
  }
  const undoable = [...held.undoable]
  const redoable = [...held.redoable]
  const last = (): Step => undoable[undoable.length - 1]
  while (undoable.length && !fits(values, last(), 'after') && fits(values, last(), 'before')) redoable.push(undoable.pop()!)
  return { undoable: lasting(undoable, 'after', 'before'), redoable: lasting(redoable, 'before', 'after') }
}

import type { Said } from '../../core/messages/said.ts'
import { canonical } from '../../core/history/states.ts'

export interface Change<V = unknown> {
  key: string
  before: V | null
  after: V | null
}

export interface Step<V = unknown> {
  label: Said
  changes: Change<V>[]
}

/** What can be undone and done again, the next one last. */
export interface Steps<V = unknown> {
  undoable: Step<V>[]
  redoable: Step<V>[]
}

/** Where what can be undone outlives the page. */
export interface StepMemory<V = unknown> {
  load(): Steps<V> | null
  save(steps: Steps<V>): void
}

/**
 * What could be undone before the page was reloaded, as far as it still fits what is kept now. A last step that was not
 * kept any more is one that can be done again.
 */
export function stepsThatFit<V>(held: Steps<V>, values: ReadonlyMap<string, V>): Steps<V> {
  const fits = (
    now: ReadonlyMap<string, V>,
    { changes }: Step<V>,
    side: 'before' | 'after'
  ): boolean => changes.every((c) => canonical(now.get(c.key) ?? null) === canonical(c[side]))
  /** The longest run of steps, from the last one back, each of which fits what the ones after it leave. */
  const lasting = (
    steps: readonly Step<V>[],
    side: 'before' | 'after',
    other: 'before' | 'after'
  ): Step<V>[] => {
    const now = new Map(values)
    let first = steps.length
    while (first > 0 && fits(now, steps[first - 1]!, side)) {
      first--
      for (const { key, [other]: value } of steps[first]!.changes)
        if (value === null) now.delete(key)
        else now.set(key, value)
    }
    return steps.slice(first)
  }
  const undoable = [...held.undoable]
  const redoable = [...held.redoable]
  const last = (): Step<V> => undoable[undoable.length - 1]!
  while (undoable.length && !fits(values, last(), 'after') && fits(values, last(), 'before'))
    redoable.push(undoable.pop()!)
  return {
    undoable: lasting(undoable, 'after', 'before'),
    redoable: lasting(redoable, 'before', 'after')
  }
}

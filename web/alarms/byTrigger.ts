import type { DeliveryView } from '../../core/api.ts'
import { timeOf } from '../actions/words.ts'

export const marks: Record<DeliveryView['state'], { mark: string; words: string }> = { pending: { mark: '…', words: 'on its way' }, sent: { mark: '✓', words: 'done' }, failed: { mark: '✕', words: 'given up' }, held: { mark: '–', words: 'held back' } }

/** Deliveries of each trigger, the newest trigger first, each in the order of its links; then what no trigger set off. */
export function byTrigger(deliveries: readonly DeliveryView[]): [number | null, DeliveryView[]][] {
  const groups = new Map<number | null, DeliveryView[]>()
  for (const d of deliveries) groups.set(d.trigger, [d, ...(groups.get(d.trigger) ?? [])])
  return [...groups].sort(([a], [b]) => Number(a === null) - Number(b === null))
}

/** What deliveries that are not shown one by one are of, and what became of them. */
export function groupWords(trigger: number | null, deliveries: readonly DeliveryView[]): { at: string; words: string } {
  const of = trigger !== null ? 'an earlier trigger' : deliveries.every((d) => d.does === 'off') ? 'switched off again' : 'acknowledging'
  const states = (['sent', 'pending', 'failed', 'held'] as const).flatMap((state) => {
    const n = deliveries.filter((d) => d.state === state).length
    return n ? `${n} ${marks[state].words}` : []
  })
  return { at: timeOf(deliveries[0].createdAt), words: `${of}: ${states.join(', ')}` }
}

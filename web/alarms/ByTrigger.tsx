import { byTrigger as msg } from '../../core/messages/en/alarms.ts'
import { Fragment, type ReactNode } from 'react'
import type { DeliveryView } from '../../core/api.ts'
import { useClock } from '../words/useClock.ts'
import { marks } from './marks.tsx'

/**
 * Deliveries of each trigger, the newest trigger first, each in the order of its links; then what
 * no trigger ran.
 */
function byTrigger(deliveries: readonly DeliveryView[]): [number | null, DeliveryView[]][] {
  const groups = new Map<number | null, DeliveryView[]>()
  for (const d of deliveries) groups.set(d.trigger, [d, ...(groups.get(d.trigger) ?? [])])
  return [...groups].sort(([a], [b]) => Number(a === null) - Number(b === null))
}

const summary = (deliveries: readonly DeliveryView[]): string =>
  (['sent', 'pending', 'failed', 'held'] as const)
    .flatMap((state) => {
      const n = deliveries.filter((d) => d.state === state).length
      return n ? `${n} ${marks[state].words}` : []
    })
    .join(', ')

/** The actions of an alarm's triggers: of the newest one all, of the others what became of them, and all on request. */
export const ByTrigger = ({
  deliveries,
  show
}: {
  deliveries: readonly DeliveryView[]
  show: (ofOne: readonly DeliveryView[]) => ReactNode
}): ReactNode => {
  const clock = useClock()
  return byTrigger(deliveries).map(([trigger, ofOne], i) =>
    i === 0 ? (
      <Fragment key={trigger}>{show(ofOne)}</Fragment>
    ) : (
      <details key={trigger}>
        <summary>
          <span className="figures">{clock.time(ofOne[0]!.createdAt)}</span>{' '}
          {trigger !== null
            ? msg.anEarlierTrigger
            : ofOne.every((d) => d.does === 'off')
              ? msg.switchedOffAgain
              : msg.acknowledging}
          : {summary(ofOne)}
        </summary>
        {show(ofOne)}
      </details>
    )
  )
}

import { heardLive as msg } from '../../../core/messages/en/bench/live.ts'
import './live.css'
import '../bench.css'
import type { ReactNode } from 'react'
import { eventWords } from '../../devices/words.tsx'
import { useClock } from '../../words/useClock.ts'
import type { Placed } from '../document.ts'
import type { Heard } from './useLive.ts'

/** What the camera's device says as it comes: its own detections, as they were sent to it. */
export function HeardLive({
  heard,
  placed
}: {
  heard: readonly Heard[]
  placed: readonly Placed[]
}): ReactNode {
  const clock = useClock()
  return (
    <section className="timeline heard-live" aria-label={msg.liveEvents}>
      <p className="quiet">{heard.length ? msg.eventsFromItsDevice : msg.noEventsYetTriggers}</p>
      <ol>
        {heard.map((h) => {
          const detection = placed.find((p) => p.detection.id === h.rule)?.detection
          return (
            <li key={h.key}>
              <span className="figures">{clock.time(h.at)}</span>{' '}
              <strong>{detection?.name ?? h.rule}</strong> {eventWords(h, detection)}
            </li>
          )
        })}
      </ol>
    </section>
  )
}

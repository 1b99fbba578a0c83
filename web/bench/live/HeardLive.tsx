import './live.css'
import '../bench.css'
import type { ReactNode } from 'react'
import { eventWords } from '../../devices/words.ts'
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
  return (
    <section className="timeline heard-live" aria-label="Heard live">
      <p className="quiet">
        {heard.length
          ? 'What its device says, by the settings that were sent to it:'
          : 'Nothing heard yet. What its device sets off, by the settings that were sent to it, is shown here as it comes. Choose a clip to try what is drawn.'}
      </p>
      <ol>
        {heard.map((h) => {
          const detection = placed.find((p) => p.detection.id === h.rule)?.detection
          return (
            <li key={h.key}>
              <span className="figures">{new Date(h.at).toLocaleTimeString('en-GB')}</span>{' '}
              <strong>{detection?.name ?? h.rule}</strong> {eventWords(h, detection)}
            </li>
          )
        })}
      </ol>
    </section>
  )
}

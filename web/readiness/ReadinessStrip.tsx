import { readinessStrip as msg } from '../../core/messages/en/readiness.ts'
import './readiness.css'
import type { ReactNode } from 'react'
import type { ReadinessStep, ReadinessSteps } from '../../core/readiness/index.ts'

const words: Record<ReadinessStep, string> = {
  done: msg.done,
  open: msg.notFinished,
  failed: msg.blocked,
  empty: msg.notStarted
}
const names: Record<keyof ReadinessSteps, string> = {
  drawn: msg.drawn,
  armed: msg.scheduled,
  linked: msg.linked,
  sent: msg.onDevice,
  proven: msg.proven
}

/** A camera's readiness as notches: filled when done, half when something is left, broken when something blocks. */
export function ReadinessStrip({ steps }: { steps: ReadinessSteps }): ReactNode {
  return (
    <span className="readiness-strip">
      {(Object.keys(names) as (keyof ReadinessSteps)[]).map((key) => (
        <span key={key} className={`notch ${steps[key]}`}>
          <i aria-hidden="true" />
          {names[key]}
          <span className="notch-words"> {words[steps[key]]}</span>
        </span>
      ))}
    </span>
  )
}

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

/**
 * A camera's readiness as notches: filled when done, half when something is left, broken when something blocks.
 *
 * @param onStep makes a button of each step, which opens what is missing for it @param chosen the one that is open
 */
export function ReadinessStrip({
  steps,
  onStep,
  chosen = null
}: {
  steps: ReadinessSteps
  onStep?: (step: keyof ReadinessSteps) => void
  chosen?: keyof ReadinessSteps | null
}): ReactNode {
  return (
    <span className="readiness-strip">
      {(Object.keys(names) as (keyof ReadinessSteps)[]).map((key) => {
        const inside = (
          <>
            <i aria-hidden="true" />
            {names[key]}
            <span className="notch-words"> {words[steps[key]]}</span>
          </>
        )
        const of = `notch ${steps[key]}`
        return onStep ? (
          <button
            key={key}
            type="button"
            className={of}
            aria-expanded={chosen === key}
            onClick={() => onStep(key)}
          >
            {inside}
          </button>
        ) : (
          <span key={key} className={of}>
            {inside}
          </span>
        )
      })}
    </span>
  )
}

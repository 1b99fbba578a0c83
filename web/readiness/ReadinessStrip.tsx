import type { ReactNode } from 'react'
import type { Notch, Notches } from '../../core/readiness/index.ts'

const words: Record<Notch, string> = {
  done: 'done',
  open: 'something left',
  failed: 'blocked',
  empty: 'nothing yet'
}
const names: Record<keyof Notches, string> = {
  drawn: 'Drawn',
  armed: 'Armed',
  linked: 'Linked',
  sent: 'Sent',
  proven: 'Proven'
}

/** A camera's readiness as notches: filled when done, half when something is left, broken when something blocks. */
export function ReadinessStrip({ notches }: { notches: Notches }): ReactNode {
  return (
    <span className="readiness-strip">
      {(Object.keys(names) as (keyof Notches)[]).map((key) => (
        <span key={key} className={`notch ${notches[key]}`}>
          <i aria-hidden="true" />
          {names[key]}
          <span className="notch-words"> {words[notches[key]]}</span>
        </span>
      ))}
    </span>
  )
}

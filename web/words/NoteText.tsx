import { noteText as msg } from '../../core/messages/en/bench/inspector.ts'
import type { ReactNode } from 'react'
import type { DetectionNote } from '../../core/kinds/parts.ts'
import { useClock } from './useClock.ts'

/** Why a detection is set as it is, with author and date. */
export function NoteText({ note: { text, by, at } }: { note: DetectionNote }): ReactNode {
  const clock = useClock()
  return (
    <div className="note-text">
      <p>{text}</p>
      {by !== undefined && at !== undefined && (
        <p className="quiet">{msg.byAt(by, clock.dateAndTime(at))}</p>
      )}
    </div>
  )
}

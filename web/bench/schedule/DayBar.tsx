import './schedule.css'
import type { ReactNode } from 'react'
import { parseSpanEnd } from '../../../core/formats/spanEnd.ts'
import type { Schedule } from '../../../core/formats/plan.ts'

/** Ends tied to the sun are drawn at their yearly mean, with a soft edge. */
const meanOf = { sunrise: 6 * 60, sunset: 18 * 60 }

const place = (text: string): number => {
  const end = parseSpanEnd(text)
  if (!end) return 0
  return 'minutes' in end ? end.minutes : meanOf[end.sun] + end.offset
}

/** A day's armed spans on a bar of 24 hours. */
export function DayBar({ spans }: { spans: Schedule['week']['mon'] }): ReactNode {
  return (
    <svg className="day-bar" viewBox="0 0 1440 100" preserveAspectRatio="none" aria-hidden="true">
      {spans.map(([from, to]) => (
        <rect
          key={`${from} ${to}`}
          x={place(from)}
          y="0"
          width={Math.max(0, place(to) - place(from))}
          height="100"
          fill="var(--accent)"
          opacity={/sun/.test(from + to) ? 0.6 : 1}
        />
      ))}
      {[360, 720, 1080].map((x) => (
        <line key={x} x1={x} x2={x} y1="0" y2="100" stroke="var(--hairline)" strokeWidth="6" />
      ))}
    </svg>
  )
}

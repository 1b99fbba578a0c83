import { bodyShare as msg } from '../../core/messages/en/kinds/parts.ts'
import { useId, type ReactNode } from 'react'

/** A figure filled from the right to the share of the body that must be over. */
export function BodyShare({ share }: { share: number }): ReactNode {
  const clip = useId()
  const width = 40
  const body =
    'M20 2a8 8 0 1 1 0 16a8 8 0 1 1 0-16M10 22h20q4 0 4 4v22h-5v32h-7V52h-4v28h-7V48H6V26q0-4 4-4Z'
  const edge = width * (1 - share)
  return (
    <svg
      width={width}
      height="84"
      viewBox={`0 0 ${width} 84`}
      role="img"
      aria-label={msg.overLine(share)}
    >
      <clipPath id={clip}>
        <rect x={edge} y="0" width={width} height="84" />
      </clipPath>
      <path d={body} fill="var(--hairline)" />
      <path d={body} fill="var(--accent)" clipPath={`url(#${clip})`} />
      <line x1={edge} x2={edge} y1="0" y2="84" stroke="var(--ink)" strokeWidth="1.5" />
    </svg>
  )
}

import type { ReactNode } from 'react'

/** The project's mark: an angle of view, and what is seen in it. */
export const Mark = (): ReactNode => (
  <svg width="22" height="22" viewBox="0 0 24 24" aria-hidden="true">
    <path
      d="M3 5l9 14 9-14"
      fill="none"
      stroke="var(--accent)"
      strokeWidth="3.2"
      strokeLinecap="round"
      strokeLinejoin="round"
    />
    <circle cx="12" cy="5.5" r="2.5" fill="currentColor" />
  </svg>
)

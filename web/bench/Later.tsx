import { common } from '../../core/messages/en/common.ts'
import { Suspense, type ReactNode } from 'react'

/** Room for a part whose code is loaded only when it is wanted. */
export function Later({ children }: { children: ReactNode }): ReactNode {
  return <Suspense fallback={<p className="quiet">{common.loading}</p>}>{children}</Suspense>
}

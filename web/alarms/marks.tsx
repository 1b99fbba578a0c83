import { marks as msg } from '../../core/messages/en/alarms.ts'
import type { ReactNode } from 'react'
import type { DeliveryView } from '../../core/api.ts'
import { Failed, Passed, Pending, Skipped } from '../words/signs.tsx'

/** How each state of a delivery is shown. */
export const marks: Record<DeliveryView['state'], { mark: ReactNode; words: string }> = {
  pending: { mark: <Pending />, words: msg.pending },
  sent: { mark: <Passed />, words: msg.delivered },
  failed: { mark: <Failed />, words: msg.failed },
  held: { mark: <Skipped />, words: msg.skipped }
}

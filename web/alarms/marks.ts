import { marks as msg } from '../../core/messages/en/alarms.ts'
import type { DeliveryView } from '../../core/api.ts'

export const marks: Record<DeliveryView['state'], { mark: string; words: string }> = {
  pending: { mark: '…', words: msg.pending },
  sent: { mark: '✓', words: msg.delivered },
  failed: { mark: '✕', words: msg.failed },
  held: { mark: '–', words: msg.skipped }
}

import { common } from '../../core/messages/en/common.ts'
import { marks as msg } from '../../core/messages/en/alarms.ts'
import type { DeliveryView } from '../../core/api.ts'

export const marks: Record<DeliveryView['state'], { mark: string; words: string }> = {
  pending: { mark: '…', words: common.onItsWay },
  sent: { mark: '✓', words: 'done' },
  failed: { mark: '✕', words: msg.givenUp },
  held: { mark: '–', words: msg.heldBack }
}

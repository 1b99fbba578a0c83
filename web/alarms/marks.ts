import type { DeliveryView } from '../../core/api.ts'

export const marks: Record<DeliveryView['state'], { mark: string; words: string }> = {
  pending: { mark: '…', words: 'on its way' },
  sent: { mark: '✓', words: 'done' },
  failed: { mark: '✕', words: 'given up' },
  held: { mark: '–', words: 'held back' }
}

import { messages } from '../../messages.ts'

export const words = messages({
  motion: 'Motion',
  of: (threshold: string, d: string) => `: ${threshold} of ${d}`,
  allMovement: 'All movement'
})

export const sentence = messages({
  motion: 'Motion'
})

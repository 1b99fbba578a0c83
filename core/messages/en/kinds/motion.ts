import { messages } from '../../messages.ts'

export const words = messages({
  motion: 'Motion',
  motionIn: 'Motion, ',
  of: (threshold: string, cells: string) => `: ${threshold} of ${cells}`,
  allMovement: 'All movement'
})

export const sentence = messages({
  motion: 'Motion'
})

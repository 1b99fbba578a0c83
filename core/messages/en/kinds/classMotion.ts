import { messages } from '../../messages.ts'

export const words = messages({
  motionByClass: 'Motion by class',
  inMotion: (d: string) => `${d} in motion, `,
  of: (threshold: string, d: string) => `: ${threshold} of ${d}`,
  peopleMoving: 'People moving'
})

export const sentence = messages({
  a: 'A',
  inMotion: 'in motion'
})

import { messages } from '../../messages.ts'

export const words = messages({
  motionByClass: 'Motion by class',
  inMotion: (who: string) => `${who} in motion, `,
  of: (threshold: string, cells: string) => `: ${threshold} of ${cells}`,
  peopleMoving: 'People moving'
})

export const sentence = messages({
  whoInMotion: '{who} in motion'
})

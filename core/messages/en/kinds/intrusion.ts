import { messages } from '../../messages.ts'

export const words = messages({
  isIn: 'is in',
  intrusion: 'Intrusion',
  aTargetIsInside: 'a target is inside for as long as the dwell'
})

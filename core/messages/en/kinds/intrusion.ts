import { messages } from '../../messages.ts'

export const words = messages({
  isIn: 'is in',
  intrusion: 'Intrusion',
  somebodyIsInItFor: 'somebody is in it for as long as the dwell'
})

import { messages } from '../../messages.ts'

export const words = messages({
  zoneEntry: 'Zone entry',
  somebodyComesInFromOutside: 'somebody comes in from outside'
})

import { messages } from '../../messages.ts'

export const words = messages({
  zoneExit: 'Zone exit',
  somebodyWhoWasInIt: 'somebody who was in it goes out'
})

export const sentence = messages({
  outOf: 'out of'
})

import { messages } from '../../messages.ts'

export const words = messages({
  zoneExit: 'Zone exit',
  aTargetThatWas: 'a target that was inside goes out',
  leaves: 'leaves'
})

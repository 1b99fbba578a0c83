import { messages } from '../../messages.ts'

export const words = messages({
  zoneEntry: 'Zone entry',
  aTargetComesIn: 'a target comes in from outside',
  enters: 'enters'
})

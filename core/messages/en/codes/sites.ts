import { messages } from '../../messages.ts'

export const sites = messages({
  onlyOne: 'This is the only site. Add another one first.'
})

import { messages } from '../../messages.ts'

export const mailbox = messages({
  mustBeAMessageOf: 'must be a message of the mailbox'
})

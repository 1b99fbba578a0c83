import { messages } from '../messages.ts'

export const client = messages({
  theDatabaseDoesNotAnswer: 'The database does not answer.'
})

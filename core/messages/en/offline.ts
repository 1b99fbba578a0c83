import { messages } from '../messages.ts'

/** What an installed page says while its server can't be reached. */
export const offline = messages({
  title: 'Wardoptic can’t be reached',
  notHere:
    'No live pictures, alarms or walk tests until this device reaches the server again. The server goes on recording alarms.',
  tryAgain: 'Try again'
})

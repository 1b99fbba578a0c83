import { messages } from '../../messages.ts'

export const runPanel = messages({
  running: 'Running',
  finished: 'Finished',
  stopped: 'Stopped',
  notSent: 'not sent',
  heldBack: 'held back',
  runAsLive: 'Run as live',
  noTriggerSoFar: 'No trigger so far.',
  nothingTriggered: 'Nothing triggered.',
  setsOffNothing: 'sets off nothing',
  attempt: (error: string, attempts: number) =>
    ` (${error}${attempts ? `; attempt ${attempts}` : ''})`,
  openTheMailbox: 'Open the mailbox'
})

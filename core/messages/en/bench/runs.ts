import { messages } from '../../messages.ts'

export const runPanel = messages({
  running: 'Running',
  finished: 'Finished',
  stopped: 'Stopped',
  failed: 'Failed. See the server log.',
  runAsLive: 'Replay as live',
  noTriggerSoFar: 'No triggers so far.',
  nothingTriggered: 'No triggers.',
  setsOffNothing: 'no actions',
  attempt: (error: string, attempts: number) =>
    ` (${error}${attempts ? `; attempt ${attempts}` : ''})`,
  openTheMailbox: 'Open mailbox'
})

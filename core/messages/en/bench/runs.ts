import { messages } from '../../messages.ts'

export const runPanel = messages({
  running: 'Running',
  finished: 'Finished',
  stopped: 'Stopped',
  failed: 'Failed. See the server log.',
  replayAsLive: 'Replay as live',
  noTriggerSoFar: 'No triggers so far.',
  noTriggers: 'No triggers.',
  noActions: 'no actions',
  attempt: (error: string, attempts: number) =>
    ` (${error}${attempts ? `; attempt ${attempts}` : ''})`,
  openTheMailbox: 'Open mailbox'
})

export const realActions = messages({
  runRealActionsIn: 'Run real actions in this replay?',
  triggersOfThisReplay: 'Triggers of this replay would run actions that are not simulated:',
  kinds: {
    strobe: 'switches a strobe',
    speaker: 'plays on a speaker',
    relay: 'switches a relay',
    buzzer: 'sounds a buzzer',
    email: 'sends e-mail',
    station: 'reports to the monitoring station',
    webhook: 'calls a web address',
    popup: 'shows a pop-up',
    recording: 'records',
    snapshots: 'takes snapshots'
  },
  replayWithThemHeld: 'Replay with them held',
  run: 'Replay and run them'
})

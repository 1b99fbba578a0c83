import { messages } from '../messages.ts'

export const operators = messages({
  aTest: ' (a test)',
  fromAClip: ' (from a clip)',
  closePopUps: (open: number) => `Close ${open} pop-ups`,
  closeThePopUp: 'Close pop-up',
  waiting: (waiting: number) => `${waiting} new`
})

export const marks = messages({
  pending: 'pending',
  delivered: 'delivered',
  failed: 'failed',
  skipped: 'skipped'
})

export const byTrigger = messages({
  anEarlierTrigger: 'an earlier trigger',
  switchedOffAgain: 'switched off',
  acknowledging: 'acknowledging'
})

export const alarmList = messages({
  noAlarmYetATrigger:
    'No alarms yet. A trigger raises one: live, from a clip replayed as live, or by hand in Actions.',
  theLast: (triggers: string, lastAt: string) => ` · ${triggers}, last ${lastAt}`,
  priority: (priority: string) => `, ${priority} priority`,
  for: (whose: string) => ` · for ${whose}`,
  fromAClip: ' · from a clip',
  acknowledgedBy: 'acknowledged by',
  at: (acknowledgedAt: string) => `at ${acknowledgedAt}`,
  nothingWasSetOff: 'No actions:',
  linkSomething: 'add actions',
  notTriedYet: 'Not sent yet.',
  after: 'after',
  byThe: (by: string) => `by the ${by}`,
  triedNext: (attempts: string, nextAt: string) => `; ${attempts} so far, next ${nextAt}`,
  tried: (attempts: string) => `${attempts} so far`,
  historyOf: (name: string) => `History of ${name}`,
  history: 'History',
  comment: 'Comment',
  whatWasFoundNeeded: 'Comment (required)',
  whatWasFound: 'Comment',
  yesIHaveLookedAnd: 'I have checked and dealt with this alarm',
  acknowledge: 'Acknowledge',
  acknowledge2: 'Acknowledge…'
})

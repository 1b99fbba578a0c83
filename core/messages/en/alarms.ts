import { messages } from '../messages.ts'

export const operators = messages({
  theDatabaseDoesNotAnswer: 'The database does not answer.',
  aTest: ' (a test)',
  fromAClip: ' (from a clip)',
  closePopUps: (open: number) => `Close ${open} pop-ups`,
  closeThePopUp: 'Close the pop-up',
  waiting: (waiting: number) => `${waiting} waiting`
})

export const marks = messages({
  givenUp: 'given up',
  heldBack: 'held back'
})

export const byTrigger = messages({
  anEarlierTrigger: 'an earlier trigger',
  switchedOffAgain: 'switched off again',
  acknowledging: 'acknowledging'
})

export const alarmList = messages({
  readingTheAlarms: 'Reading the alarms …',
  noAlarmYetATrigger:
    'No alarm yet. A trigger of a detection makes one: live, from a clip run as live, or set off once beside the matrix.',
  theLast: (triggers: string, lastAt: string) => ` · ${triggers}, the last ${lastAt}`,
  priority: (priority: string) => `, ${priority} priority`,
  for: (whose: string) => ` · for ${whose}`,
  fromAClip: ' · from a clip',
  acknowledgedBy: 'acknowledged by',
  at: (acknowledgedAt: string) => `at ${acknowledgedAt}`,
  nothingWasSetOff: 'Nothing was set off:',
  linkSomething: 'link something',
  notTriedYet: 'Not tried yet.',
  after: 'after',
  byThe: (by: string) => `by the ${by}`,
  triedNext: (attempts: string, nextAt: string) => `; tried ${attempts}, next ${nextAt}`,
  tryAgain: 'Try again',
  tried: (attempts: string) => `Tried ${attempts}`,
  historyOf: (name: string) => `History of ${name}`,
  history: 'History',
  comment: 'Comment',
  whatWasFoundNeeded: 'What was found (needed)',
  whatWasFound: 'What was found',
  yesIHaveLookedAnd: 'Yes, I have looked, and it is dealt with',
  acknowledge: 'Acknowledge',
  acknowledge2: 'Acknowledge …'
})

import { count } from '../format.ts'
import { messages } from '../messages.ts'

/** What is said of an alarm wherever one is shown. */
export const alarm = messages({
  states: { waiting: 'new', acknowledged: 'acknowledged', closed: 'closed' },
  priorities: { low: 'low', normal: 'normal', high: 'high' },
  severity: (severity: string, priority: string | null) =>
    priority === null ? severity : `${severity}, ${priority} priority`,
  triggers: (n: number) => count(n, 'trigger'),
  last: (n: number, lastAt: string) => `${count(n, 'trigger')}, last ${lastAt}`,
  forPeople: (names: string) => `for ${names}`,
  assignedTo: (name: string) => `assigned to ${name}`,
  fromAClip: 'from a clip',
  comment: 'Comment',
  commentRequired: 'Comment (required)',
  checked: 'I have checked and dealt with this alarm',
  acknowledge: 'Acknowledge'
})

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
  acknowledgedBy: (name: string, at: string, comment: string) =>
    `acknowledged by ${name} at ${at}${comment && `: “${comment}”`}`,
  noActions: 'No actions:',
  addActions: 'add actions',
  notTriedYet: 'Not sent yet.',
  after: (state: string, duration: string) => `${state} after ${duration}`,
  byTheServer: 'by the server',
  byTheCamera: 'by the camera',
  soFarNextAt: (n: number, nextAt: string) => `${count(n, 'attempt')} so far, next at ${nextAt}`,
  soFar: (n: number) => `${count(n, 'attempt')} so far`,
  historyOf: (name: string) => `History of ${name}`,
  history: 'History',
  acknowledge: 'Acknowledge…'
})

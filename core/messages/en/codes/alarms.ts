import { messages } from '../../messages.ts'

export const alarms = messages({
  needsComment: 'Enter a comment: this alarm requires one.',
  needsConfirmation: 'Confirm that you have dealt with this alarm.',
  mustBeWaitingAcknowledgedClosed: 'must be waiting, acknowledged, closed or open',
  onlyWhatWasGivenUp: 'Only a failed delivery can be retried.',
  isSwitchedOff: (name: string) => `${name} is switched off.`,
  somebodyHasAcknowledgedThisAlarm: 'This alarm is already acknowledged.',
  thisAlarmHasBeenClosed: 'This alarm is closed.',
  thisAlarmHasNotBeen: 'Acknowledge this alarm first.',
  thisAlarmHasBeenClosed2: 'This alarm is already closed.',
  anAlarm: 'an alarm'
})

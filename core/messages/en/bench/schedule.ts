import { messages } from '../../messages.ts'

export const hoursEditor = messages({
  timesOnTheSitesClock:
    'Site time: 00:00 to 06:30, 18:30 to 24:00, or by the sun: sunset-00:30 to 24:00. Empty: not armed that day.',
  always: 'Always',
  editItsWeek: 'Edit week',
  addSchedule: 'Add schedule',
  openInArming: 'Open in Arming',
  detectionsOfThisCamera: (users: number) =>
    `${users} detections of this camera use this schedule.`,
  hoursOf: (day: string) => `Hours of ${day}`,
  notArmed: 'not armed',
  toAllDays: 'To all days'
})

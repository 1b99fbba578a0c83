import { messages } from '../../messages.ts'

export const hoursEditor = messages({
  changeTheArmingHours: 'Change the arming hours',
  hours: (n: number) => `Hours ${n}`,
  always: 'Always',
  editItsWeek: 'Edit its week',
  newHours: 'New hours',
  openInArming: 'Open in Arming',
  renameTheHours: (name: string) => `Rename the hours ${name}`,
  detectionsOfThisCamera: (users: number) =>
    `${users} detections of this camera share these hours.`,
  changeOf: (day: string, name: string) => `Change ${day} of ${name}`,
  copyToAllDays: (day: string) => `Copy ${day} to all days`,
  timesOnTheSitesClock:
    'Times on the site’s clock, such as 00:00 to 06:30, 18:30 to 24:00. An end may follow the sun: sunset-00:30 to 24:00. Empty: not armed that day.',
  hoursOf: (day: string) => `Hours of ${day}`,
  notArmed: 'not armed',
  toAllDays: 'To all days'
})

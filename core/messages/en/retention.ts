import { messages } from '../messages.ts'

export const retentionForm = messages({
  gb: (e9: string) => `${e9} GB`,
  mb: (e6: number) => `${e6} MB`,
  closedAlarms: 'Closed alarms',
  evidenceAndPictures: 'Evidence and pictures',
  usedFreeOnThe: (evidenceBytes: string, freeBytes: string) =>
    `${evidenceBytes} used, ${freeBytes} free on the disk`,
  deviceEvents: 'Device events',
  historyOfEdits: 'Edit history',
  auditList: 'Audit log',
  saved: 'Saved',
  whatIsOlderGoesIn: 'Older data is deleted gradually. Data of open alarms is kept.'
})

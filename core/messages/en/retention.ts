import { messages } from '../messages.ts'

export const retentionForm = messages({
  gb: (e9: string) => `${e9} GB`,
  mb: (e6: number) => `${e6} MB`,
  closedAlarms: 'Closed alarms',
  evidenceAndPictures: 'Evidence and pictures',
  usedFreeOnThe: (evidenceBytes: string, freeBytes: string) =>
    `${evidenceBytes} used, ${freeBytes} free on the disk`,
  deviceEvents: 'Device events',
  historyOfEdits: 'History of edits',
  auditList: 'Audit list',
  saved: 'Saved',
  whatIsOlderGoesIn: 'What is older goes in small steps. Nothing goes that an open alarm needs.',
  save: 'Save'
})

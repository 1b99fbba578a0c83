import { byteSize, count } from '../format.ts'
import { messages } from '../messages.ts'

export const retentionForm = messages({
  closedAlarms: 'Closed alarms',
  evidenceAndPictures: 'Evidence and pictures',
  usedFreeOnThe: (evidence: number, free: number) =>
    `${byteSize(evidence)} used, ${byteSize(free)} free on the disk`,
  alarmsNow: (alarms: number, triggers: number, deliveries: number) =>
    `${count(alarms, 'alarm')}, ${count(triggers, 'trigger')}, ${count(deliveries, 'delivery', 'deliveries')}`,
  eventsNow: (n: number) => count(n, 'event'),
  editsNow: (n: number) => count(n, 'edit'),
  entriesNow: (n: number) => count(n, 'entry', 'entries'),
  days: 'days',
  gigabytes: 'GB',
  inUnit: (name: string, unit: string) => `${name}, ${unit}`,
  deviceEvents: 'Device events',
  historyOfEdits: 'Edit history',
  auditLog: 'Audit log',
  saved: 'Saved',
  olderDataIsDeleted: 'Older data is deleted gradually. Data of open alarms is kept.'
})

import { messages } from '../../messages.ts'

/** Places of errors that are not fields: the subject of the sentence. */
export const places = messages({
  frame: 'the frame',
  event: 'the event',
  answer: 'the answer',
  metadata: 'the metadata',
  tracks: 'the tracks',
  armingHours: 'the arming hours',
  activeCells: 'the active cells',
  packedCells: 'the packed cells',
  message: 'the message',
  probe: 'the probe',
  archive: 'archive',
  calendar: 'the calendar',
  address: 'the address',
  backup: 'the backup',
  deviceClock: 'the device’s clock',
  deviceAnswer: 'the device’s answer',
  user: 'the user',
  duration: 'the duration',
  rule: 'the rule',
  ruleOf: (name: string) => `rule ${name}`,
  pullPoint: 'pull point',
  recordingStream: 'recording',
  picture: 'picture'
})

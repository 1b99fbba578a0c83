import { messages } from '../messages.ts'

/** A target by its class and number: `person 5`. */
export const { targetName } = messages({ targetName: (cls: string, id: number) => `${cls} ${id}` })

export const momentPicker = messages({ dateAndTime: 'Date and time' })

/** Units beside a field. */
export const units = messages({
  s: 's',
  min: 'min',
  m: 'm',
  metresPerSecond: 'm/s',
  spacedS: ' s',
  spacedM: ' m'
})

/** Words that many screens share. */
export const common = messages({
  extendPath:
    'Click the ground to extend the path. Drag a point to move it; double-click to remove it.',
  userName: 'User name',
  password: 'Password',
  wardoptic: 'Wardoptic',
  loading: 'Loading…',
  sending: 'Sending…',
  theDatabaseDoesNot: 'The database does not answer.',
  remove: 'Remove',
  address: 'Address',
  who: 'Who',
  width: 'width',
  height: 'height',
  of: 'Of',
  from: 'From',
  name: 'Name',
  messages: 'Messages',
  undo: 'Undo',
  account: 'Account',
  contact: 'Contact',
  zone: 'Zone',
  face: 'Face',
  camera: 'Camera',
  close: 'Close',
  testIt: 'Test',
  pending: 'pending',
  off: ', off',
  delete: 'Delete',
  class: 'Class',
  ignoreAreas: 'Ignore areas',
  direction: 'Direction',
  overlap: 'Overlap',
  dwell: 'Dwell',
  mask: 'Mask',
  delay: 'Delay',
  reTriggerDelay: 'Re-trigger delay',
  live: 'Live',
  confirmTime: 'Confirmation time',
  armingSchedule: 'Arming schedule',
  mustNotTrigger: 'Must not trigger',
  none: 'None',
  expected: 'Expected',
  all: 'All',
  stop: 'Stop',
  duplicate: 'Duplicate',
  space: 'Space',
  sensitivity: 'Sensitivity',
  sensitivityOf: (n: number) => `sensitivity ${n}`,
  sizeLimits: 'Size limits',
  classes: 'Classes',
  severity: 'Severity',
  save: 'Save',
  cancel: 'Cancel',
  add: 'Add',
  edit: 'Edit',
  retry: 'Retry',
  redo: 'Redo',
  for: ', for'
})

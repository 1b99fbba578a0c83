import { messages } from '../../messages.ts'

export const templates = messages({
  nights: 'Nights',
  aLineAlongTheWater:
    'A line along the water: a person who crosses it either way, seen for 0.3 s, with 40 % of the body over.',
  water: 'Water',
  land: 'Land',
  fenceLine: 'Fence line',
  doorwayInAndOut: 'Doorway, in and out',
  aZoneJustBehindThe:
    'A zone just behind the door: two detections, for who comes in and for who goes out.',
  comesIn: 'Comes in',
  goesOut: 'Goes out',
  waitingCar: 'Waiting car',
  noGoAreaAtNight: 'No-go area at night',
  aZoneInWhichNobody:
    'A zone in which nobody must be at night: people, cycles and vehicles, after 2 s, not again within 10 s.',
  noGoArea: 'No-go area',
  nothingToDrawTamperWith:
    'Nothing to draw: tamper with every cause after 3 s, and no picture for 5 s, at all hours.',
  cameraCare: 'Camera care',
  pictureLost: 'Picture lost'
})

export const bulkPanel = messages({
  detectionDetections: (marked: number) => `${marked} ${marked === 1 ? 'detection' : 'detections'}`,
  of: (label: string, count: string) => `${label} of ${count}`,
  linkUnlinkOf: (linked: boolean, name: string, count: string) =>
    `${linked ? 'Link' : 'Unlink'} ${name} of ${count}`,
  severalAtOnce: 'Several at once',
  markDetectionsAbove: 'Mark detections above',
  for: (count: string) => `For ${count}`,
  sensitivityForAllMarked: 'Sensitivity for all marked',
  setTheSensitivity: 'Set the sensitivity',
  setSensitivity: 'Set sensitivity',
  classesForAllMarked: 'Classes for all marked',
  setTheClasses: 'Set the classes …',
  setTheClasses2: 'Set the classes',
  hoursForAllMarked: 'Hours for all marked',
  setTheArmingHours: 'Set the arming hours …',
  always: 'Always',
  setTheHours: 'Set the hours',
  actionForAllMarked: 'Action for all marked',
  action: 'Action …',
  link: 'Link',
  unlink: 'Unlink',
  use: 'Use',
  inUse: 'In use',
  switchOff: 'Switch off',
  off: 'Off',
  delete: (count: string) => `Delete ${count}`,
  done: 'Done'
})

export const newButtons = messages({
  line: 'Line',
  l: 'L',
  z: 'Z',
  ignoreArea: 'Ignore area',
  i: 'I',
  newDetectionOfAnotherKind: 'New detection of another kind',
  fromACommonNeed: 'From a common need'
})

export const railItem = messages({
  mark: (name: string) => `Mark ${name}`,
  switchedOff: 'switched off',
  parkedOneMinuteADay: 'parked: one minute a day, no area',
  trigger: 'trigger',
  triggers: 'triggers',
  nearMissMisses: (near: number) => `${near} near ${near === 1 ? 'miss' : 'misses'}`,
  hiddenOnThePicture: 'Hidden on the picture',
  locked: 'Locked',
  moreFor: (name: string) => `More for ${name}`,
  moveUp: 'Move up',
  moveDown: 'Move down',
  showOnThePicture: 'Show on the picture',
  hideOnThePicture: 'Hide on the picture',
  unlockTheShape: 'Unlock the shape',
  lockTheShape: 'Lock the shape',
  inUse: (name: string) => `${name} in use`
})

export const railReadiness = messages({
  readiness: 'Readiness'
})

export const rail = messages({
  changeTheOrder: 'Change the order',
  useSwitchOff: (enabled: boolean, name: string) => `${enabled ? 'Use' : 'Switch off'} ${name}`,
  detections: 'Detections',
  nothingDrawnYet: 'Nothing drawn yet',
  detectionDetections: (placed: number) => `${placed} ${placed === 1 ? 'detection' : 'detections'}`,
  several: 'Several …',
  drawALineWhereSomebody:
    'Draw a line where somebody must not cross unseen, or a zone where nobody must be. What the clip triggers shows at once.',
  whatIsDrawn: 'What is drawn',
  ignoreArea: (value: number) => `Ignore area ${value}`,
  deleteIgnoreArea: (value: number) => `Delete ignore area ${value}`
})

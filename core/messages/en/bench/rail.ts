import { count } from '../../format.ts'
import { messages } from '../../messages.ts'

export const templates = messages({
  watersEdge: 'Water’s edge',
  aLineOnTheFence:
    'A line on the fence: a person with part of the body over it, re-trigger delay 5 s.',
  aZoneForWaiting: 'A zone: a vehicle that stays for 2 min, grace time 10 s.',
  nights: 'Nights',
  aLineAPerson:
    'A line: a person who crosses it either way. Confirmation time and overlap depend on the surroundings.',
  water: 'Water',
  land: 'Land',
  fenceLine: 'Fence line',
  doorwayInAndOut: 'Doorway, in and out',
  aZoneJustBehindThe: 'A zone behind the door: one detection for entry, one for exit.',
  comesIn: 'Comes in',
  goesOut: 'Goes out',
  waitingCar: 'Waiting car',
  noGoAreaAtNight: 'No-go area at night',
  aZonePeopleCycles:
    'A zone: people, cycles and vehicles at night, after 2 s, re-trigger delay 10 s.',
  noGoArea: 'No-go area',
  noDrawingEveryTamper:
    'No drawing: every tamper cause after 3 s, and video loss after 5 s, always.',
  cameraHealth: 'Camera health',
  videoLoss: 'Video loss'
})

export const bulkPanel = messages({
  detectionDetections: (marked: number) => `${count(marked, 'detection')}`,
  editSeveral: 'Edit several',
  markDetectionsAbove: 'Select detections above',
  for: (count: string) => `For ${count}`,
  sensitivityForAllMarked: 'Sensitivity for all selected',
  setSensitivity: 'Set sensitivity',
  classesForAllMarked: 'Classes for all selected',
  setTheClasses: 'Set classes…',
  scheduleForAllSelected: 'Schedule for all selected',
  setSchedule: 'Set schedule…',
  always: 'Always',
  actionForAllMarked: 'Action for all selected',
  action: 'Action…',
  link: 'Link',
  unlink: 'Unlink',
  on: 'On',
  off: 'Off',
  done: 'Done'
})

export const newButtons = messages({
  pictureFirst: 'Add a clip or show the live picture first. Shapes are drawn on it.',
  line: 'Line',
  l: 'L',
  z: 'Z',
  ignoreArea: 'Ignore area',
  i: 'I',
  otherKinds: 'Other kinds',
  templates: 'Templates'
})

export const railItem = messages({
  mark: (name: string) => `Mark ${name}`,
  switchedOff: 'switched off',
  parkedKeepsItsPlace: 'parked: keeps its place, detects nothing',
  triggers: (n: number) => count(n, 'trigger'),
  near: (near: number) => `${near} near ${near === 1 ? 'miss' : 'misses'}`,
  issues: (n: number) => count(n, 'issue'),
  hidden: 'Hidden',
  locked: 'Locked',
  moreFor: (name: string) => `More for ${name}`,
  moveUp: 'Move up',
  moveDown: 'Move down',
  showOnThePicture: 'Show on picture',
  hideOnThePicture: 'Hide on picture',
  unlockTheShape: 'Unlock shape',
  lockTheShape: 'Lock shape',
  inUse: (name: string) => `${name} on`
})

export const railReadiness = messages({
  readiness: 'Readiness',
  issues: (n: number, blocking: number) =>
    `${count(n, 'issue')}${blocking ? `, ${blocking} blocking` : ''}`,
  nothingMissing: 'Nothing is missing here.',
  nothingMissingSee: 'Nothing is missing here. See {place}.',
  places: { armed: 'Arming', linked: 'Actions', sent: 'Devices', proven: 'Prove' }
})

export const rail = messages({
  detections: 'Detections',
  noDetections: 'No detections',
  detectionDetections: (placed: number) => `${count(placed, 'detection')}`,
  several: 'Select several',
  drawALineOr: 'Draw a line or zone. Triggers in this clip appear at once.',
  ignoreArea: (value: number) => `Ignore area ${value}`,
  deleteIgnoreArea: (value: number) => `Delete ignore area ${value}`
})

import { count, list, number } from '../format.ts'
import { messages } from '../messages.ts'

export const todaysTriggers = messages({
  todaysTriggers: 'Today’s triggers',
  noTriggerToday: 'No triggers today',
  today: (total: number) => `${count(total, 'trigger')} today`,
  showAll: 'Show all'
})

export const sitePlace = messages({
  noPictureYet: 'No picture yet',
  cameras: (cameras: number, timeZone: string) => `${count(cameras, 'camera')} · ${timeZone}`,
  noCameras: 'No cameras. Find devices on the network, or add a camera that works with clips only.',
  findDevices: 'Find devices',
  addCamera: 'Add camera',
  exportSite: 'Export site',
  exportSays: 'Export site: one file with all settings, without passwords',
  editSite: 'Edit site…',
  moreFor: (camera: string) => `More for ${camera}`,
  edit: 'Edit…',
  moveEarlier: 'Move earlier',
  moveLater: 'Move later',
  delete: 'Delete…',
  noDetections: 'No detections',
  drawn: (detections: number) => `${count(detections, 'detection')} drawn`,
  issues: 'Issues',
  noIssuesFound: 'No issues found',
  blocking: (findings: number, blocking: number) =>
    `${count(findings, 'issue')}${blocking ? `, ${blocking} blocking` : ''}`,
  checking: 'Checking…',
  showFewer: 'Show fewer',
  showMore: (more: number) => `Show ${more} more`
})

export const surroundings = messages({
  outdoors: 'Outdoors',
  indoors: 'Indoors',
  roofed: 'Outdoors, under a roof'
})

export const siteForm = messages({
  setUpYourSite: 'Set up your site',
  belongsToASite:
    'Cameras, schedules and alarms belong to a site. You can change all of this later.',
  editSite: 'Edit site',
  siteName: 'Site name',
  nearestPlace: 'Nearest place',
  selectAPlace: 'Type to search',
  placeSets: 'Sets the time zone and the position.',
  timeZone: 'Time zone',
  latitude: 'Latitude',
  longitude: 'Longitude',
  positionIsFor: 'The position is for schedules that follow sunrise and sunset.',
  surroundings: 'Most cameras are',
  setUp: 'Set up site',
  placeIn: (place: string, country: string) => `${place}, ${country}`
})

export const cameraDialog = messages({
  addCamera: 'Add camera',
  editCamera: 'Edit camera',
  surroundings: 'Surroundings',
  asTheSite: (site: string) => `As the site (${site.toLowerCase()})`,
  deleteTitle: (camera: string) => `Delete ${camera}?`,
  goesWithIt: (detections: number, clips: number) =>
    detections + clips === 0
      ? 'Its alarms stay. You can undo this.'
      : `${list([
          ...(detections ? [count(detections, 'detection')] : []),
          ...(clips ? [count(clips, 'clip')] : [])
        ])} will be deleted with it. Its alarms stay. You can undo this.`
})

/** What cameras reported, and for how long it is kept. */
export const lookBackForm = messages({
  title: 'Look back',
  says: 'What cameras report is kept, with small pictures, so that drawings are answered by the last days.',
  days: 'Days kept',
  daysUnit: 'days',
  size: 'Most of the disk, GB',
  sizeUnit: 'GB',
  nothing: 'nothing kept yet',
  used: (size: string, since: string) => `${size} since ${since}`,
  none: 'None',
  without: 'Cameras of which nothing is kept',
  analysed: 'Cameras whose pictures Wardoptic analyses',
  analysedSays: (most: number) =>
    `For cameras whose devices don’t report targets. This machine can analyse ${most === 1 ? 'one camera' : `${most} cameras`} at once.`,
  analyses: {
    running: (rate: number) => `analysed, ${number(Math.round(rate * 10) / 10)} pictures a second`,
    starting: 'starts with the next pictures',
    waiting: 'waiting: this machine cannot analyse more cameras at once',
    reports: 'its device reports targets, which are kept',
    away: 'no device that can be reached shows it',
    noStream: 'its device gives single pictures only, too few to follow anything',
    failed: (why: string) => `cannot be analysed: ${why}`
  },
  goes: (cameras: number) =>
    `What was kept of ${cameras === 1 ? 'this camera' : `these ${cameras} cameras`} is deleted when you save.`,
  save: 'Save look back'
})

export const nuisances = messages({
  title: 'Nuisances',
  inDays: (days: number) => `Nuisances in the last ${days} days`,
  aDay: (perDay: number, wanted: number) =>
    `${perDay < 0.1 ? 'under 0.1' : perDay.toFixed(1)} a day, ${wanted} wanted`,
  tune: 'Tune'
})

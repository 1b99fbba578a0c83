import { count } from '../format.ts'
import { messages } from '../messages.ts'

export const alarmEvidence = messages({
  evidence: 'Evidence',
  of: (name: string, createdAt: string) => `${name} of ${createdAt}`,
  theDeviceStill: (name: string, secondsLeft: number) =>
    `${name}: recording on the device, ${secondsLeft} s left`,
  readingFromTheDevice: (name: string) => `${name}: reading from the device…`,
  couldNotBeRead: (name: string, words: string) =>
    `${name} could not be read from the device: ${words}`,
  theWayOfTheTarget: (at: string) => `Path of the target, from ${at} s before the trigger`,
  pathFromSBefore: (at: string) => `Path from ${at} s before the trigger`,
  toSAfterIt: (at: string) => ` to ${at} s after it`,
  thisTarget: 'this target',
  workingOutThePath: 'Working out the path…',
  settingsAtTheTime: 'Settings at the time',
  at: (name: string, at: string) => `${name} at ${at}`
})

export const alarmDesk = messages({
  wasIt: 'Was this alarm wanted?',
  markKeys: { wanted: 'W', nuisance: 'N' },
  log: {
    acknowledged: (by: string, words: string) => `${by} acknowledged${words && `: “${words}”`}`,
    comment: (by: string, words: string) => `${by} commented: “${words}”`,
    handed: (by: string, words: string) => `${by} assigned it to ${words}`,
    closed: (by: string, words: string) => `${by} closed it${words && `: “${words}”`}`
  },
  alarm: (name: string) => `Alarm ${name}`,
  closeIt: 'Close alarm',
  addComment: 'Add comment',
  assignedTo: (name: string) => `Assigned to ${name}`,
  assignTo: 'Assign to',
  whoDidWhat: 'Log',
  triggered: 'triggered',
  actions: 'Actions',
  noActions: 'No actions.',
  deliveredAfter: (duration: string) => `delivered after ${duration}`,
  skipped: (error: null | string) => `skipped${error === null ? '' : `: ${error}`}`,
  failed: (error: null | string) => `failed${error === null ? '' : `: ${error}`}`
})

export const searchPart = messages({
  search: 'Search',
  kind: 'Kind',
  stillWaits: 'New',
  acknowledged: 'Acknowledged',
  before: 'Before',
  csv: 'CSV',
  triggers: (n: number) => count(n, 'trigger'),
  triggersLabel: 'Triggers',
  leftToRight: 'left → right',
  rightToLeft: 'right → left',
  noResultsRemoveA: 'No results. Remove a filter or widen the period.',
  noTriggerYet: 'No triggers yet.',
  showEarlier: 'Show earlier',
  commentContains: 'Comment contains',
  noPictureOfIt: 'No picture',
  stillWaits2: 'new'
})

export const watchPlace = messages({
  livePictures: 'Live pictures',
  partsOfWatch: 'Parts of Watch',
  search: 'Search',
  waiting: (waiting: number) => `${waiting} new`,
  noActiveAlarms: 'No active alarms',
  allCameras: 'All cameras',
  oneLarge: 'One large',
  alarms: 'Alarms',
  noAlarmYet: 'No alarms yet.'
})

export const alarmQueue = messages({
  filters: 'Filters',
  cameras: 'Cameras',
  anyCamera: 'All cameras',
  lowest: 'Lowest severity',
  anySeverity: 'Any severity',
  from: (severity: string) => `${severity} and above`,
  openOnly: 'Without closed ones',
  hidden: (n: number, active: number) =>
    active > 0
      ? `${count(n, 'alarm')} hidden, ${active} of them active`
      : `${count(n, 'alarm')} hidden`,
  showAll: 'Show all',
  nothingLeft: 'No alarm passes the filters.',
  earlier: (n: number, from: string, to: string) =>
    `${n} earlier, ${from === to ? from : `${from} to ${to}`}`,
  also: (n: number) => `Also the ${count(n, 'earlier alarm')} of this detection`
})

export const shift = messages({
  signedIn: (names: string) => `Signed in: ${names}`,
  since: (name: string, time: string) => `${name} since ${time}`,
  title: 'Shift note',
  write: 'Hand over shift',
  from: (by: string, at: string) => `From ${by}, ${at}`,
  markAsRead: 'Mark as read',
  readBy: (by: string, at: string) => `${by} read it at ${at}.`,
  lastNote: 'Last shift note',
  counts: (since: string, alarms: number, closed: number, nuisance: number) =>
    `Since ${since}: ${count(alarms, 'alarm')}, ${closed} closed${nuisance ? `, ${nuisance} nuisance` : ''}.`,
  active: (n: number) => (n ? `${count(n, 'alarm')} still active.` : 'No alarm is active.'),
  whatTheNextNeeds: 'What the next shift must know',
  example: 'For example: contractor on the pontoon until 02:00, badge seen.',
  save: 'Save note',
  saved: 'Shift note saved'
})

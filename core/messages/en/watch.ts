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

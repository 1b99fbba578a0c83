import { messages } from '../messages.ts'

export const alarmEvidence = messages({
  evidence: 'Evidence',
  of: (value: string) => `${value} of`,
  of2: (name: string, createdAt: string) => `${name} of ${createdAt}`,
  theDeviceStill: (name: string, secondsLeft: number) =>
    `${name}: recording on the device, ${secondsLeft} s left`,
  itIsBeing: (name: string) => `${name}: reading from the device…`,
  couldNotBeRead: (name: string, words: string) =>
    `${name} could not be read from the device: ${words}`,
  theWayOfTheTarget: (at: string) => `Path of the target, from ${at} s before the trigger`,
  whereItWalkedFromS: (at: string) => `Path from ${at} s before the trigger`,
  toSAfterIt: (at: string) => ` to ${at} s after it`,
  thisTarget: 'this target',
  whereItWalkedIsBeing: 'Working out the path…',
  settingsAsTheyWere: 'Settings at the time',
  at: (name: string, at: string) => `${name} at ${at}`
})

export const alarmDesk = messages({
  handedTo: 'assigned to',
  theComment: 'The comment ',
  alarm: (name: string) => `Alarm ${name}`,
  theLast: (triggers: string, lastAt: string) => ` · ${triggers}, the last ${lastAt}`,
  priority: (priority: string) => `, ${priority} priority`,
  for: (forNames: string) => ` · for ${forNames}`,
  with: (assignee: string) => ` · assigned to ${assignee}`,
  comment: 'Comment',
  whatWasFoundNeeded: 'Comment (required)',
  whatWasFound: 'Comment',
  yesIHaveLookedAnd: 'I have checked and dealt with this alarm',
  acknowledge: 'Acknowledge',
  closeIt: 'Close alarm',
  onlyWrite: 'Add comment',
  handedTo2: (name: string) => `Assigned to ${name}`,
  handTo: 'Assign to',
  whoDidWhat: 'Log',
  triggered: 'triggered',
  whatItSetOff: 'Actions',
  nothingIsLinkedToIt: 'No actions.',
  doneAfterS: (value: string) => `delivered after ${value} s`,
  heldBack: (error: null | string) => `held back, ${error}`,
  givenUp: (error: null | string) => `given up, ${error}`
})

export const searchPart = messages({
  search: 'Search',
  kind: 'Kind',
  stillWaits: 'New',
  acknowledged: 'Acknowledged',
  before: 'Before',
  csv: 'CSV',
  trigger: 'trigger',
  triggers: 'triggers',
  nothingWasFoundTakeA: 'No results. Remove a filter or widen the period.',
  noTriggerYet: 'No triggers yet.',
  earlierOnes: 'Show earlier',
  wordsOfComments: 'Comment contains',
  noPictureOfIt: 'No picture',
  stillWaits2: 'new',
  fromAClip: 'from a clip'
})

export const watchPlace = messages({
  livePictures: 'Live pictures',
  partsOfWatch: 'Parts of Watch',
  search: 'Search',
  waiting: (waiting: number) => `${waiting} waiting`,
  noAlarmWaits: 'No active alarms',
  allCameras: 'All cameras',
  oneLarge: 'One large',
  alarms: 'Alarms',
  noAlarmYet: 'No alarms yet.',
  fromAClip: ', from a clip',
  priority: (priority: string) => `, ${priority} priority`,
  triggers: (triggers: number) => ` · ${triggers} triggers`,
  with: (assignee: string) => ` · assigned to ${assignee}`
})

import { messages } from '../messages.ts'

export const alarmEvidence = messages({
  evidence: 'Evidence',
  of: (value: string) => `${value} of`,
  of2: (name: string, createdAt: string) => `${name} of ${createdAt}`,
  theDeviceStill: (name: string, secondsLeft: number) =>
    `${name}: the device still records, ${secondsLeft} s left`,
  itIsBeing: (name: string) => `${name}: it is being read from the device …`,
  couldNotBeRead: (name: string, words: string) =>
    `✕ ${name} could not be read from the device: ${words}`,
  theWayOfTheTarget: (at: string) => `The way of the target, from ${at} s before the trigger`,
  whereItWalkedFromS: (at: string) => `Where it walked: from ${at} s before the trigger`,
  toSAfterIt: (at: string) => ` to ${at} s after it`,
  thisTarget: 'this target',
  whereItWalkedIsBeing: 'Where it walked is being written down …',
  settingsAsTheyWere: 'Settings as they were',
  at: (name: string, at: string) => `${name} at ${at}`
})

export const alarmDesk = messages({
  handedTo: 'handed to',
  theComment: 'The comment ',
  alarm: (name: string) => `Alarm ${name}`,
  theLast: (triggers: string, lastAt: string) => ` · ${triggers}, the last ${lastAt}`,
  priority: (priority: string) => `, ${priority} priority`,
  for: (forNames: string) => ` · for ${forNames}`,
  with: (assignee: string) => ` · with ${assignee}`,
  comment: 'Comment',
  whatWasFoundNeeded: 'What was found (needed)',
  whatWasFound: 'What was found',
  yesIHaveLookedAnd: 'Yes, I have looked, and it is dealt with',
  acknowledge: 'Acknowledge',
  closeIt: 'Close it',
  onlyWrite: 'Only write',
  handedTo2: (name: string) => `Handed to ${name}`,
  handTo: 'Hand to …',
  whoDidWhat: 'Who did what',
  triggered: 'triggered',
  whatItSetOff: 'What it set off',
  nothingIsLinkedToIt: 'Nothing is linked to it.',
  doneAfterS: (value: string) => `done after ${value} s`,
  heldBack: (error: null | string) => `held back, ${error}`,
  givenUp: (error: null | string) => `given up, ${error}`
})

export const searchPart = messages({
  search: 'Search',
  kind: 'Kind',
  stillWaits: 'Still waits',
  acknowledged: 'Acknowledged',
  before: 'Before',
  csv: 'CSV',
  trigger: 'trigger',
  triggers: 'triggers',
  nothingWasFoundTakeA: 'Nothing was found. Take a filter away, or widen the time.',
  noTriggerYet: 'No trigger yet.',
  earlierOnes: 'Earlier ones',
  wordsOfComments: 'Words of comments',
  noPictureOfIt: 'No picture of it',
  stillWaits2: 'still waits',
  fromAClip: 'from a clip'
})

export const watchPlace = messages({
  openingTheCameras: 'Opening the cameras …',
  livePictures: 'Live pictures',
  partsOfWatch: 'Parts of Watch',
  search: 'Search',
  waiting: (waiting: number) => `${waiting} waiting`,
  noAlarmWaits: 'No alarm waits',
  allCameras: 'All cameras',
  oneLarge: 'One large',
  alarms: 'Alarms',
  noAlarmYet: 'No alarm yet.',
  fromAClip: ', from a clip',
  priority: (priority: string) => `, ${priority} priority`,
  triggers: (triggers: number) => ` · ${triggers} triggers`,
  with: (assignee: string) => ` · with ${assignee}`
})

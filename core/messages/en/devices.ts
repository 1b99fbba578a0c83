import { messages } from '../messages.ts'

export const addDevice = messages({
  addADeviceWhichOne: 'Add a device: which one?',
  addADeviceWhatIt: 'Add a device: what it is here',
  addADevice: 'Add a device',
  askAgain: 'Ask again',
  typeItsAddress: 'Type its address',
  askingWhoIsOnThe: 'Asking who is on the network …',
  nobodyAnsweredADeviceIn:
    'Nobody answered. A device in another network, or one that does not let itself be found, is added by its address.',
  addedAlready: 'added already',
  slipwayCamera: 'Slipway camera',
  cameraOfTheSite: 'Camera of the site',
  noneYetOrARecorder: 'None yet, or a recorder',
  leftEmptyForADevice: 'left empty for a device fresh from the box',
  back: 'Back',
  addAndReadIt: 'Add and read it'
})

export const accountForm = messages({
  giveItItsFirstAccount: 'Give it its first account. From then on it answers nobody without it.',
  sayTheAccountUnderWhich: 'Say the account under which it may be spoken with.',
  makeTheAccount: 'Make the account',
  useIt: 'Use it'
})

export const words = messages({
  notAskedYet: 'not asked yet',
  onlineItsClockIsOff: 'online, its clock is off',
  cannotBeReached: 'cannot be reached',
  wrongPassword: 'wrong password',
  asksForAnAccount: 'asks for an account',
  freshFromTheBox: 'fresh from the box',
  answersWrongly: 'answers wrongly',
  upTo: (most: number) => `up to ${most}`,
  sensitivityInSteps: (value: number) => `sensitivity in ${value} steps`,
  dwellUpToS: (max: number) => `dwell up to ${max} s`,
  noClasses: 'no classes',
  ownArmingHours: 'own arming hours',
  parkedOneMinuteADay: 'parked: one minute a day, no area',
  asInThePlan: 'as in the plan',
  wasChangedInThePlan: 'was changed in the plan since it was sent',
  isNotOnTheDevice: 'is not on the device yet',
  wasChangedOnTheDevice: 'was changed on the device since it was sent',
  theDeviceCannotDoThis: 'the device cannot do this kind',
  switchedOffAndNotOn: 'switched off, and not on the device',
  notKnownBeforeTheDevice: 'not known before the device has been read',
  noRuleOfADevice: 'no rule of a device: Wardoptic keeps watch of it',
  onlyThrough: (setting: string, wanted: string, elsewhere: string) =>
    `${setting} ${wanted}: only through ${elsewhere}`,
  theDeviceCannot: (setting: string, wanted: string, nearest: string | null) =>
    `${setting} ${wanted}: ${nearest === null ? 'the device cannot hold it' : `the nearest is ${nearest}`}`,
  theLineWasCrossed: 'the line was crossed',
  somebodyIsInside: 'somebody is inside',
  somebodyLingers: 'somebody lingers',
  somebodyCameIn: 'somebody came in',
  somebodyLeft: 'somebody left',
  becameActive: 'became active',
  isAtRestAgain: 'is at rest again',
  target: (value: string) => `, target ${value}`
})

export const channelSection = messages({
  itsPicture: 'Its picture',
  cameraOf: (name: string) => `Camera of ${name}`,
  noneOfTheSite: 'None of the site',
  sendThePlanThroughHere: 'send the plan through here',
  itCan: 'It can',
  doNoAnalysisHere: 'do no analysis here',
  detectionsInAll: (mostRules: number) => `${mostRules} detections in all`,
  analysis: 'Analysis',
  analysisModeOf: (name: string) => `Analysis mode of ${name}`,
  noneRuns: 'None runs',
  sayWhichCameraOfThe: 'Say which camera of the site this is.',
  nothingIsDrawnForThis: 'Nothing is drawn for this camera, and nothing is on the device.',
  planAndDevice: 'Plan and device',
  onTheDeviceAnd: (kind: string) => `${kind}on the device and not in the plan; sending deletes it`,
  takeItIntoThePlan: 'Take it into the plan',
  itWasSeenTo: (switchesBack: string) =>
    `✕ It was seen to switch ${switchesBack} on again by itself. Park such a detection: one minute a day, no area.`,
  wouldDoNothingNow: (idle: string) => `${idle} would do nothing now`,
  takeOverIntoThePlan: 'Take over into the plan',
  planDevice: (setting: string, plan: string, device: string) =>
    `${setting}: plan ${plan}, device ${device}`
})

export const inputsAndOutputs = messages({
  inputsAndOutputs: 'Inputs and outputs',
  notHeardFromYet: 'not heard from yet',
  active: 'active',
  activeNow: 'active now',
  atRest: 'at rest',
  neverTested: ', never tested',
  tested: (testedAt: string) => `, tested ${testedAt}`,
  testFor3S: 'Test for 3 s'
})

export const deviceSheet = messages({
  remove: (name: string) => `Remove ${name}?`,
  itsSettingsStayOnThe: 'Its settings stay on the device; what was heard from it goes.',
  remove2: 'Remove',
  removeTheDevice: 'Remove the device',
  readAgain: 'Read again',
  sendChangeChanges: (changes: number) => `Send ${changes} ${changes === 1 ? 'change' : 'changes'}`,
  nothingToSend: 'Nothing to send',
  bySAhead: (clockAhead: number, clockAhead2: number) =>
    ` by ${clockAhead} s (${clockAhead2 > 0 ? 'ahead' : 'behind'}); times of its events will be wrong by that`,
  device: 'Device',
  firmwareSerial: (manufacturer: string, model: string, firmware: string) =>
    `${manufacturer} ${model}, firmware ${firmware}, serial`,
  whatItCanDoIs: 'What it can do is not known before it has been read.',
  whatIsMissing: 'What is missing',
  heardFromIt: 'Heard from it',
  nothingYetWhatItsRules: 'Nothing yet. What its rules set off is shown here as it comes.',
  nobodyListenedForSWhat: (seconds: string | undefined) =>
    `nobody listened for ${seconds} s; what happened then is not known`
})

export const sendingPanel = messages({
  itHoldsTheNewOne: 'it holds the new one all the same',
  itHoldsWhatItHeld: 'it holds what it held before',
  itHoldsNothingOfIt: 'it holds nothing of it',
  sending: 'Sending',
  sending2: 'Sending …',
  sentButNotAllOf: 'Sent, but not all of it',
  sentAndReadBack: 'Sent and read back',
  nothingHadToBeSent: 'Nothing had to be sent',
  nothingHadToBeSent2: 'nothing had to be sent',
  not: (what: string, error: string, holdsWords: string) => `not ${what}: ${error}; ${holdsWords}`
})

export const devicesPlace = messages({
  devices: 'Devices',
  addADevice: 'Add a device',
  noDeviceYetAddThe:
    'No device yet. Add the first one: Wardoptic looks for what is on the network and reads what it can do.',
  sendTo: (sum: string, length: string) => `Send ${sum} to ${length}?`,
  willBeTheNearest: (losses: string) =>
    `${losses} will be the nearest that the devices can hold; each sheet says which.`,
  everythingCanBeHeldAs: 'Everything can be held as it is wanted.',
  send: 'Send',
  notNow: 'Not now',
  nothingToSend: 'Nothing to send',
  sendToMarked: (toSend: number) => `Send to ${toSend} marked`,
  sendToAllThatWait: (toSend: number) => `Send to all ${toSend} that wait`,
  mark: (name: string) => `Mark ${name}`,
  fromThePlan: (count: string) => `${count} from the plan`,
  changedOnTheDevice: (drifted: number) => `${drifted} changed on the device`,
  ofThePlanIt: (unable: number) => `${unable} of the plan it cannot do`,
  holdsWhatThePlanSays: 'holds what the plan says'
})

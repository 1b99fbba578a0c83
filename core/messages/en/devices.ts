import { messages } from '../messages.ts'

export const addDevice = messages({
  addADeviceWhichOne: 'Add device: select',
  addADeviceWhatIt: 'Add device: details',
  addADevice: 'Add device',
  askAgain: 'Search again',
  typeItsAddress: 'Enter address',
  askingWhoIsOnThe: 'Searching the network…',
  nobodyAnsweredADeviceIn: 'No devices found. Add one by address.',
  addedAlready: 'added already',
  slipwayCamera: 'Slipway camera',
  noneYetOrARecorder: 'None, or a recorder',
  leftEmptyForADevice: 'leave empty for a device without an account',
  back: 'Back'
})

export const accountForm = messages({
  giveItItsFirstAccount: 'Create its first account. The device then asks for it.',
  sayTheAccountUnderWhich: 'Enter the device’s user name and password.',
  makeTheAccount: 'Create account'
})

export const words = messages({
  online: 'online',
  motion: 'motion',
  tamper: 'tamper',
  aFace: 'a face',
  notAskedYet: 'not contacted yet',
  onlineItsClockIsOff: 'online, clock wrong',
  cannotBeReached: 'not reachable',
  wrongPassword: 'wrong password',
  asksForAnAccount: 'account required',
  freshFromTheBox: 'no account yet',
  answersWrongly: 'invalid response',
  sentThrough: (route: string) => `not supported here, sent through ${route}`,
  upTo: (most: number) => `up to ${most}`,
  sensitivityInSteps: (value: number) => `sensitivity in ${value} steps`,
  dwellUpToS: (max: number) => `dwell up to ${max} s`,
  noClasses: 'no classes',
  ownArmingHours: 'schedules on device',
  parkedOneMinuteADay: 'parked: keeps its place, detects nothing',
  asInThePlan: 'matches the plan',
  wasChangedInThePlan: 'changed in the plan',
  isNotOnTheDevice: 'not on the device',
  wasChangedOnTheDevice: 'changed on device',
  theDeviceCannotDoThis: 'not supported by the device',
  switchedOffAndNotOn: 'switched off, not on the device',
  notKnownBeforeTheDevice: 'unknown until the device is read',
  noRuleOfADevice: 'monitored by Wardoptic',
  onlyThrough: (setting: string, wanted: string, elsewhere: string) =>
    `${setting} ${wanted}: only through ${elsewhere}`,
  theDeviceCannot: (setting: string, wanted: string, nearest: string | null) =>
    `${setting} ${wanted}: ${nearest === null ? 'not supported' : `the nearest is ${nearest}`}`,
  theLineWasCrossed: 'line crossed',
  somebodyIsInside: 'target inside',
  somebodyLingers: 'target loitering',
  somebodyCameIn: 'target entered',
  somebodyLeft: 'target left',
  becameActive: 'active',
  isAtRestAgain: 'at rest',
  target: (value: string) => `, target ${value}`
})

export const channelSection = messages({
  itsPicture: 'Picture',
  cameraOf: (name: string) => `Camera of ${name}`,
  sendThePlanThroughHere: 'Send the plan through this channel',
  itCan: 'Supports',
  doNoAnalysisHere: 'do not run here',
  detectionsInAll: (mostRules: number) => `${mostRules} detections in total`,
  analysis: 'Analysis',
  analysisModeOf: (name: string) => `Analysis mode of ${name}`,
  sayWhichCameraOfThe: 'Select the camera.',
  nothingIsDrawnForThis: 'No detections drawn, and none on the device.',
  planAndDevice: 'Plan and device',
  onTheDeviceAnd: (kind: string) => `${kind}on the device, not in the plan; sending deletes it`,
  takeItIntoThePlan: 'Import from device',
  itWasSeenTo: (switchesBack: string) =>
    `The device switched ${switchesBack} back on by itself. Park it instead: it then keeps its place and detects nothing.`,
  wouldDoNothingNow: (idle: string) => `${idle} would not run`,
  takeOverIntoThePlan: 'Import from device',
  planDevice: (setting: string, plan: string, device: string) =>
    `${setting}: plan ${plan}, device ${device}`
})

export const inputsAndOutputs = messages({
  inputsAndOutputs: 'Inputs and outputs',
  notHeardFromYet: 'no state yet',
  active: 'active',
  activeNow: 'active now',
  atRest: 'at rest',
  neverTested: ', not tested',
  tested: (testedAt: string) => `, tested ${testedAt}`,
  testFor3S: 'Test output (3 s)'
})

export const deviceSheet = messages({
  remove: (name: string) => `Remove ${name}?`,
  itsSettingsStayOnThe: 'Its settings stay on the device. Its events are deleted.',
  removeTheDevice: 'Remove device',
  readAgain: 'Refresh',
  sendChangeChanges: (changes: number) => `Send ${changes} ${changes === 1 ? 'change' : 'changes'}`,
  nothingToSend: 'No changes to send',
  bySAhead: (clockAhead: number, clockAhead2: number) =>
    `: ${clockAhead} s ${clockAhead2 > 0 ? 'fast' : 'slow'}. Set its clock.`,
  device: 'Device',
  firmwareSerial: (manufacturer: string, model: string, firmware: string) =>
    `${manufacturer} ${model}, firmware ${firmware}, serial`,
  whatItCanDoIs: 'Its features are unknown until it is read.',
  whatIsMissing: 'Issues',
  heardFromIt: 'Device events',
  nothingYetWhatItsRules: 'No events yet. They appear here as they arrive.',
  nobodyListenedForSWhat: (seconds: string | undefined) =>
    `not connected for ${seconds} s; events in that time are unknown`
})

export const sendingPanel = messages({
  unknown: 'the device has the old or the new settings; refresh it to see',
  itHoldsTheNewOne: 'the device has the new settings',
  itHoldsWhatItHeld: 'the device keeps its old settings',
  itHoldsNothingOfIt: 'it is not on the device',
  sending: 'Sending',
  sending2: 'Sending…',
  sentButNotAllOf: 'Partly sent',
  sentAndReadBack: 'Sent and verified',
  nothingHadToBeSent: 'No changes to send',
  nothingHadToBeSent2: 'nothing to send',
  not: (what: string, error: string, holdsWords: string) => `not ${what}: ${error}; ${holdsWords}`
})

export const devicesPlace = messages({
  devices: 'Devices',
  addADevice: 'Add device',
  noDeviceYetAddThe:
    'No devices yet. Add the first one: Wardoptic searches the network and reads its features.',
  sendTo: (sum: string, length: string) => `Send ${sum} to ${length}?`,
  willBeTheNearest: (losses: string) =>
    `${losses} will be set to the nearest supported value; see each device.`,
  everythingCanBeHeldAs: 'All settings are supported.',
  send: 'Send',
  nothingToSend: 'No changes to send',
  sendToMarked: (toSend: number) => `Send to ${toSend} selected`,
  sendToAllThatWait: (toSend: number) => `Send to all ${toSend}`,
  mark: (name: string) => `Select ${name}`,
  fromThePlan: (count: string) => `${count} to send`,
  changedOnTheDevice: (drifted: number) => `${drifted} changed on device`,
  ofThePlanIt: (unable: number) => `${unable} not supported`,
  holdsWhatThePlanSays: 'matches the plan'
})

import { count, list } from '../format.ts'
import { messages } from '../messages.ts'

export const addDevice = messages({
  addressSuchAs: 'http://192.168.1.20',
  addDevices: 'Add devices',
  addByAddress: 'Add a device by address',
  searchAgain: 'Search again',
  enterAddress: 'Enter address',
  searchingTheNetwork: 'Searching the network…',
  noDevicesFoundAdd: 'No devices found. Enter an address.',
  simulator: 'simulator',
  selectAll: 'Select all',
  added: 'added',
  adding: 'adding…',
  addedWith: (cameras: number) =>
    cameras === 0 ? 'added, no pictures' : `added, ${count(cameras, 'camera')}`,
  addedBut: (why: string) => `added, but ${why}`,
  account: 'Their account',
  accountHelp:
    'Used for all selected devices. A device without an account gets this one as its first.',
  add: (n: number) => (n === 0 ? 'Add devices' : `Add ${count(n, 'device')}`),
  retry: (n: number) => `Retry ${count(n, 'device')}`,
  done: 'Done',
  cameras: 'Cameras',
  newCameras: 'New, one per picture',
  none: 'None',
  nameSuchAs: 'Such as Yard camera',
  needsAccount: 'it has no account yet: enter one',
  back: 'Back'
})

export const accountForm = messages({
  giveItItsFirstAccount: 'Create its first account. The device then asks for it.',
  enterTheDevicesUser: 'Enter the device’s user name and password.',
  createAccount: 'Create account'
})

export const words = messages({
  online: 'online',
  motion: 'motion',
  tamper: 'tamper',
  aFace: 'a face',
  notAskedYet: 'not contacted yet',
  onlineClockWrong: 'online, clock wrong',
  notReachable: 'not reachable',
  wrongPassword: 'wrong password',
  accountRequired: 'account required',
  noAccountYet: 'no account yet',
  otherCertificate: 'another certificate',
  invalidResponse: 'invalid response',
  sentThrough: (route: string) => `not supported here, sent through ${route}`,
  upTo: (most: number) => `up to ${most}`,
  sensitivityInSteps: (value: number) => `sensitivity in ${value} steps`,
  dwellUpToS: (max: number) => `dwell up to ${max} s`,
  noClasses: 'no classes',
  schedulesOnDevice: 'schedules on device',
  parkedKeepsItsPlace: 'parked: keeps its place, detects nothing',
  asInThePlan: 'matches the plan',
  wasChangedInThePlan: 'changed in the plan',
  isNotOnTheDevice: 'not on the device',
  changedOnDevice: 'changed on device',
  notSupportedByThe: 'not supported by the device',
  switchedOffAndNotOn: 'switched off, not on the device',
  unknownUntilTheDevice: 'unknown until the device is read',
  monitoredByWardoptic: 'monitored by Wardoptic',
  onlyThrough: (setting: string, wanted: string, elsewhere: string) =>
    `${setting} ${wanted}: only through ${elsewhere}`,
  theDeviceCannot: (setting: string, wanted: string, nearest: string | null) =>
    `${setting} ${wanted}: ${nearest === null ? 'not supported' : `the nearest is ${nearest}`}`,
  lineCrossed: 'line crossed',
  targetInside: 'target inside',
  targetLoitering: 'target loitering',
  targetEntered: 'target entered',
  targetLeft: 'target left',
  active: 'active',
  atRest: 'at rest',
  target: (value: string) => `, target ${value}`
})

export const certificate = messages({
  certificate: 'Certificate',
  certificateNow: 'Now shows',
  trustCertificate: 'Trust new certificate',
  trustItQuestion: 'Trust this certificate?',
  trustOnlyIf:
    'Only if it was renewed. Compare it with the certificate on the device’s own page: if they differ, something else answers in its place.'
})

export const channelSection = messages({
  picture: 'Picture',
  cameraOf: (name: string) => `Camera of ${name}`,
  sendThePlanThroughHere: 'Send the plan through this channel',
  supports: 'Supports',
  doNotRunHere: 'do not run here',
  detectionsInTotal: (mostRules: number) => `${mostRules} detections in total`,
  analysis: 'Analysis',
  analysisModeOf: (name: string) => `Analysis mode of ${name}`,
  selectTheCamera: 'Select the camera.',
  noDetectionsDrawnAnd: 'No detections drawn, and none on the device.',
  planAndDevice: 'Plan and device',
  surroundings: 'Surroundings',
  surroundingsAsInThePlan: (held: string) => `${held}, as in the plan`,
  surroundingsDiffer: (wanted: string, held: string) => `plan ${wanted}, device ${held}`,
  surroundingsNotOffered: (held: string) => `${held}; the device has no switch for the camera’s`,
  onTheDeviceAnd: (kind: string) => `${kind}on the device, not in the plan; sending deletes it`,
  importFromDevice: 'Import from device',
  theDeviceSwitchedBack: (types: readonly string[]) =>
    `The device has switched ${list(types)} back on. Park it instead: it then keeps its place and detects nothing.`,
  modes: (runs: string | null, idle: string | null) =>
    [runs !== null && `runs ${runs}`, idle !== null && `${idle} would not run`]
      .filter(Boolean)
      .join('; '),
  planDevice: (setting: string, plan: string, device: string) =>
    `${setting}: plan ${plan}, device ${device}`
})

export const inputsAndOutputs = messages({
  inputsAndOutputs: 'Inputs and outputs',
  noStateYet: 'no state yet',
  active: 'active',
  activeNow: 'active now',
  atRest: 'at rest',
  notTested: 'not tested',
  tested: (testedAt: string) => `tested ${testedAt}`,
  testOutput3S: 'Test output (3 s)'
})

export const deviceSheet = messages({
  remove: (name: string) => `Remove ${name}?`,
  itsSettingsStayOnThe: 'Its settings stay on the device. Its events are deleted.',
  removeTheDevice: 'Remove device',
  refresh: 'Refresh',
  send: (changes: number) => `Send ${count(changes, 'change')}`,
  noChangesToSend: 'No changes to send',
  sSetItsClock: (clockAhead: number, clockAhead2: number) =>
    `: ${clockAhead} s ${clockAhead2 > 0 ? 'fast' : 'slow'}. Set its clock.`,
  device: 'Device',
  firmwareSerial: (manufacturer: string, model: string, firmware: string) =>
    `${manufacturer} ${model}, firmware ${firmware}, serial`,
  itsFeaturesAreUnknown: 'Its features are unknown until it is read.',
  issues: 'Issues',
  deviceEvents: 'Device events',
  noEventsYetThey: 'No events yet. They appear here as they arrive.',
  notConnectedForS: (seconds: string | undefined) =>
    `not connected for ${seconds} s; events in that time are unknown`
})

export const sendingPanel = messages({
  theDeviceHasThe: 'the device has the old or the new settings; refresh it to see',
  theDeviceHasTheNew: 'the device has the new settings',
  theDeviceKeepsIts: 'the device keeps its old settings',
  itIsNotOn: 'it is not on the device',
  sending: 'Sending',
  sending2: 'Sending…',
  partlySent: 'Partly sent',
  sentAndVerified: 'Sent and verified',
  noChangesToSend: 'No changes to send',
  nothingToSend: 'nothing to send',
  not: (what: string, error: string, holdsWords: string) => `not ${what}: ${error}; ${holdsWords}`
})

export const devicesPlace = messages({
  devices: 'Devices',
  addDevice: 'Add device',
  noDeviceYetAddThe:
    'No devices yet. Add the first one: Wardoptic searches the network and reads its features.',
  sendTo: (changes: number, devices: number) =>
    `Send ${count(changes, 'change')} to ${count(devices, 'device')}?`,
  willBeTheNearest: (losses: number) =>
    `${count(losses, 'setting')} will be set to the nearest supported value; see each device.`,
  allSettingsAreSupported: 'All settings are supported.',
  send: 'Send',
  noChangesToSend: 'No changes to send',
  sendToSelected: (toSend: number) => `Send to ${toSend} selected`,
  sendToAll: (toSend: number) => `Send to all ${toSend}`,
  select: (name: string) => `Select ${name}`,
  toSend: (n: number) => `${count(n, 'difference')} to send`,
  changedOnTheDevice: (drifted: number) => `${drifted} changed on device`,
  notSupported: (unable: number) => `${unable} not supported`,
  matchesThePlan: 'matches the plan'
})

/** What the outputs of devices are. */
export const outputNames = messages({
  strobe: 'strobe',
  speaker: 'speaker',
  relay: 'relay',
  buzzer: 'buzzer'
})

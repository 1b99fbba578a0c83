import { messages } from '../../messages.ts'

export const fields = messages({
  isNotA: (text: string) => `"${text}" is not a number`
})

export const alarmPanel = messages({
  useTheUsualActions: 'Add default actions',
  linkEverything: 'Link all',
  unlinkEverything: 'Unlink all',
  setOffOnce: (name: string) => `Trigger ${name} now?`,
  asIfItHadTriggered: 'All linked actions run, as after a real trigger.',
  setItOff: 'Trigger',
  setItOffOnce: 'Trigger now…',
  openItOnTheBench: 'Open on the Bench',
  itsHoursInArming: 'Open its schedule',
  itsSeverityIsSetWith: 'Set the severity with the detection, on the Bench.',
  priority: 'Priority',
  everybodys: 'everyone',
  whoseAlarmItIs: 'Assigned to',
  oneAlarmOfTriggersWithin: 'Group triggers within',
  whileNobodyHasAcknowledgedIt: 'until acknowledged; 0: one alarm per trigger',
  afterActingActAgainOnly: 'Pause actions for',
  triggersInBetweenAreKept: 'triggers in the pause are recorded and counted',
  acknowledging: 'Acknowledging',
  needsAComment: 'Require comment',
  isAskedOnceMore: 'Require confirmation',
  acknowledgingSwitches: 'On acknowledge',
  switchesNothing: 'no output',
  switchesOff: (name: string) => `switch ${name} off`,
  switchesOn: (name: string) => `switch ${name} on`
})

export const endpointPanel = messages({
  on: (deviceName: string) => `on ${deviceName}`,
  delete: (name: string) => `Delete ${name}?`,
  detectionDoesDetections: (users: number) =>
    `${users} ${users === 1 ? 'detection uses' : 'detections use'} it. Undo brings it back.`,
  undoBringsItBack: 'Undo brings it back.',
  delete3: (name: string) => `Delete ${name}`,
  itDoesNothingAsIt: (missing: string) => `Not ready: ${missing}.`,
  itsOwnHours: 'Schedule',
  atAnyTime: 'always',
  itsWeekInArming: 'Open in Arming',
  seeTheMailbox: 'Open mailbox',
  seeItAtTheStandIn: 'Open simulator',
  testFailed: (at: string, error: string) => `${at}: ${error}`,
  tested: (testedAt: string) => `tested ${testedAt}`,
  neverTestedAsItIs: 'Not tested with these settings.',
  setOffBy: 'Triggered by',
  noDetectionYetLinkIt: 'No detections. Link one in the matrix.',
  linkToAll2: 'Link to all',
  unlinkFromAll2: 'Unlink from all',
  byTheCameraItself: 'by the camera itself',
  byTheServer: 'by the server',
  onceItIsSentThe:
    'Once on the device, the camera starts it itself, even while the server is down.',
  sendIt: 'Send'
})

export const mailAndPeople = messages({
  starttlsUsuallyPort587: 'STARTTLS (usually port 587)',
  tlsUsuallyPort465: 'TLS (usually port 465)',
  mailServer: 'Mail server',
  withoutAMailServerNo: 'Without a mail server, no e-mail is sent.',
  server: 'Server',
  isTheMailbox: (host: string) =>
    `“${host}” is Wardoptic’s own mailbox: e-mails stay on this machine.`,
  port: 'Port',
  encryption: 'Encryption',
  keptSealed: 'saved, encrypted',
  sender: 'Sender',
  keptEachEMailsTest: 'Saved. Test each e-mail to be sure.',
  peopleAndGroups: 'People and groups',
  nobodyYetAlarmsAreEverybodys:
    'No people yet. Alarms are for everyone, and e-mails go to the addresses they name.',
  eMail: 'E-mail',
  none: 'none',
  members: 'Members',
  membersOf: (name: string) => `Members of ${name}`,
  takeOut: (name: string) => `Remove ${name}`,
  newName: 'New name',
  person: 'Person',
  group: 'Group'
})

export const matrix = messages({
  groups: { outputs: 'Outputs', messages: 'Messages', records: 'Records' },
  whatDetectionsSetOff: 'Actions of detections',
  notSetUp: 'not set up',
  notLinked: 'not linked',
  linkedAndNeverActs: (never: string) => `linked, but never runs: ${never}`,
  linkedAndTheDetectionIs: 'linked, but the detection is never armed',
  linkedInAllOfThe: 'linked, on for all armed time',
  linkedAndNeverInThe: 'linked, but off for all armed time',
  linkedInOfThe: (percent: number) => `linked, on for ${percent}% of armed time`
})

export const usualPanel = messages({
  usualActionsOfTheSite: 'Default actions',
  givenToADetectionWith:
    'Added to a detection with one click. Actions it already has do not change.',
  usualActions: 'Default actions',
  giveThemToThatSet: (without: number) => `Add to ${without} without actions`,
  everyDetectionSetsSomethingOff: 'Every detection has actions',
  actsInAllOfThe: 'on for all armed time',
  inAPartOfThem: 'on for part of it',
  never: 'never',
  clickACrossingToLink:
    'Click a cell to link it; drag, or hold Shift, for a block. Select a name to edit it.'
})

export const actionsPlace = messages({
  partsOfActions: 'Parts of Actions',
  whatSetsOffWhat: 'Actions',
  alarmsAndDeliveries: 'Alarms and deliveries',
  mailAndPeople: 'Mail and people',
  standIns: 'Simulators',
  newMessageOrRecord: 'Add action',
  usualActions: 'Default actions',
  noDetectionHasBeenDrawn: 'No detections yet. Draw one on the Bench, then link its actions here.',
  nothingCanBeSetOff: 'No actions yet. Add one, or add a device with outputs.'
})

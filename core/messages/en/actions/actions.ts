import { count } from '../../format.ts'
import { messages } from '../../messages.ts'

export const fields = messages({
  isNotA: (text: string) => `"${text}" is not a number`
})

export const alarmPanel = messages({
  addDefaultActions: 'Add default actions',
  linkAll: 'Link all',
  unlinkAll: 'Unlink all',
  triggerNow: (name: string) => `Trigger ${name} now?`,
  allLinkedActionsRun: 'All linked actions run, as after a real trigger.',
  trigger: 'Trigger',
  setItOffOnce: 'Trigger now…',
  openItOnTheBench: 'Open on the Bench',
  openItsSchedule: 'Open its schedule',
  itsSeverityIsSetWith: 'Set the severity with the detection, on the Bench.',
  priority: 'Priority',
  everyone: 'everyone',
  assignedTo: 'Assigned to',
  groupTriggersWithin: 'Group triggers within',
  untilAcknowledged0One: 'until acknowledged; 0: one alarm per trigger',
  pauseActionsFor: 'Pause actions for',
  triggersInThePause: 'triggers in the pause are recorded and counted',
  acknowledging: 'Acknowledging',
  requireComment: 'Require comment',
  requireConfirmation: 'Require confirmation',
  onAcknowledge: 'On acknowledge',
  noOutput: 'no output',
  switchesOff: (name: string) => `switch ${name} off`,
  switchesOn: (name: string) => `switch ${name} on`
})

export const endpointPanel = messages({
  on: (deviceName: string) => `on ${deviceName}`,
  delete: (name: string) => `Delete ${name}?`,
  itUndoBringsIt: (users: number) =>
    `${count(users, 'detection uses', 'detections use')} it. Undo brings it back.`,
  undoBringsItBack: 'Undo brings it back.',
  delete3: (name: string) => `Delete ${name}`,
  notReady: (missing: string) => `Not ready: ${missing}.`,
  schedule: 'Schedule',
  always: 'always',
  openInArming: 'Open in Arming',
  openMailbox: 'Open mailbox',
  openSimulator: 'Open simulator',
  testFailed: (at: string, error: string) => `${at}: ${error}`,
  tested: (testedAt: string) => `tested ${testedAt}`,
  notTestedWithThese: 'Not tested with these settings.',
  triggeredBy: 'Triggered by',
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
  serverSuchAs: 'mail.example.org',
  senderSuchAs: 'alarms@example.org',
  starttlsUsuallyPort587: 'STARTTLS (usually port 587)',
  tlsUsuallyPort465: 'TLS (usually port 465)',
  mailServer: 'Mail server',
  withoutAMailServerNo: 'Without a mail server, no e-mail is sent.',
  server: 'Server',
  isWardopticsOwnMailbox: (host: string) =>
    `“${host}” is Wardoptic’s own mailbox: e-mails stay on this machine.`,
  port: 'Port',
  encryption: 'Encryption',
  savedEncrypted: 'saved, encrypted',
  sender: 'Sender',
  savedTestEachE: 'Saved. Test each e-mail to be sure.',
  peopleAndGroups: 'People and groups',
  nobodyYetAlarmsAreEverybodys:
    'No people yet. Alarms are for everyone, and e-mails go to the addresses they name.',
  eMail: 'E-mail',
  none: 'none',
  members: 'Members',
  membersOf: (name: string) => `Members of ${name}`,
  remove: (name: string) => `Remove ${name}`,
  newName: 'New name',
  person: 'Person',
  group: 'Group'
})

export const matrix = messages({
  groups: { outputs: 'Outputs', messages: 'Messages', records: 'Records' },
  actionsOfDetections: 'Actions of detections',
  notSetUp: 'not set up',
  notLinked: 'not linked',
  linkedButNeverRuns: (never: string) => `linked, but never runs: ${never}`,
  linkedAndTheDetectionIs: 'linked, but the detection is never armed',
  linkedInAllOfThe: 'linked, on for all armed time',
  linkedButOffFor: 'linked, but off for all armed time',
  linkedOnForOf: (percent: number) => `linked, on for ${percent}% of armed time`
})

export const usualPanel = messages({
  defaultActions: 'Default actions',
  addedToADetection: 'Added to a detection with one click. Actions it already has do not change.',
  addToWithoutActions: (without: number) => `Add to ${without} without actions`,
  everyDetectionHasActions: 'Every detection has actions',
  onForAllArmed: 'on for all armed time',
  onForPartOf: 'on for part of it',
  never: 'never',
  clickACrossingToLink:
    'Click a cell to link it; drag, or hold Shift, for a block. Select a name to edit it.'
})

export const actionsPlace = messages({
  partsOfActions: 'Parts of Actions',
  actions: 'Actions',
  alarmsAndDeliveries: 'Alarms and deliveries',
  mailAndPeople: 'Mail and people',
  simulators: 'Simulators',
  addAction: 'Add action',
  defaultActions: 'Default actions',
  noDetectionsYetDraw: 'No detections yet. Draw one on the Bench, then link its actions here.',
  noActionsYetAdd: 'No actions yet. Add one, or add a device with outputs.'
})

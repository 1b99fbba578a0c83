import { messages } from '../../messages.ts'

export const fields = messages({
  isNotA: (text: string) => `"${text}" is not a number`
})

export const alarmPanel = messages({
  of: (label: string, name: string) => `${label} of ${name}`,
  usualActionsFor: (name: string) => `Usual actions for ${name}`,
  useTheUsualActions: 'Use the usual actions',
  linkEverythingTo: (name: string) => `Link everything to ${name}`,
  linkEverything: 'Link everything',
  unlinkEverythingFrom: (name: string) => `Unlink everything from ${name}`,
  unlinkEverything: 'Unlink everything',
  setOffOnce: (name: string) => `Set off ${name} once?`,
  asIfItHadTriggered: 'As if it had triggered now: everything that is linked acts.',
  setItOff: 'Set it off',
  notNow: 'Not now',
  setItOffOnce: 'Set it off once',
  openItOnTheBench: 'Open it on the Bench',
  itsHoursInArming: 'Its hours in Arming',
  itsSeverityIsSetWith: 'Its severity is set with the detection, on the Bench.',
  severity: 'Severity',
  priority: 'Priority',
  everybodys: 'everybody’s',
  whoseAlarmItIs: 'Whose alarm it is',
  oneAlarmOfTriggersWithin: 'One alarm of triggers within',
  whileNobodyHasAcknowledgedIt: 'while nobody has acknowledged it; 0: each its own',
  oneAlarmWithin: 'One alarm within',
  afterActingActAgainOnly: 'After acting, act again only after',
  triggersInBetweenAreKept: 'triggers in between are kept and counted',
  quietTime: 'Quiet time',
  acknowledging: 'Acknowledging',
  needsAComment: 'needs a comment',
  isAskedOnceMore: 'is asked once more',
  acknowledgingSwitches: 'Acknowledging switches',
  switchesNothing: 'switches nothing',
  switchesOff: (name: string) => `switches ${name} off`,
  switchesOn: (name: string) => `switches ${name} on`
})

export const endpointPanel = messages({
  edit: (name: string) => `Edit ${name}`,
  on: (deviceName: string) => `on ${deviceName}`,
  delete: (name: string) => `Delete ${name}?`,
  detectionDoesDetections: (users: number) =>
    `${users} ${users === 1 ? 'detection does' : 'detections do'} not set it off any more. Undo brings it back.`,
  undoBringsItBack: 'Undo brings it back.',
  delete3: (name: string) => `Delete ${name}`,
  itDoesNothingAsIt: (missing: string) => `It does nothing as it stands: ${missing}.`,
  rename: (name: string) => `Rename ${name}`,
  itsOwnHours: 'Its own hours',
  atAnyTime: 'at any time',
  hoursOf: (name: string) => `Hours of ${name}`,
  itsWeekInArming: 'Its week in Arming',
  seeTheMailbox: 'See the mailbox',
  seeItAtTheStandIn: 'See it at the stand-in',
  tested: (testedAt: string) => `✓ tested ${testedAt}`,
  neverTestedAsItIs: 'Never tested as it is set up now.',
  setOffBy: 'Set off by',
  noDetectionYetLinkIt: 'No detection yet: link it in the matrix.',
  linkToAll: (name: string) => `Link ${name} to all`,
  linkToAll2: 'Link to all',
  unlinkFromAll: (name: string) => `Unlink ${name} from all`,
  unlinkFromAll2: 'Unlink from all',
  byTheCameraItself: 'by the camera itself',
  byTheServer: 'by the server',
  onceItIsSentThe: 'Once it is sent, the camera sets it off itself, also while the server is away.',
  sendIt: 'Send it'
})

export const mailAndPeople = messages({
  starttlsUsuallyPort587: 'STARTTLS (usually port 587)',
  tlsUsuallyPort465: 'TLS (usually port 465)',
  changeTheMailServer: 'Change the mail server',
  mailServer: 'Mail server',
  withoutAMailServerNo: 'Without a mail server no e-mail goes out.',
  server: 'Server',
  isTheMailbox: (host: string) =>
    `“${host}” is the mailbox that ships with Wardoptic: mails end there, and none leaves this machine.`,
  port: 'Port',
  encryption: 'Encryption',
  keptSealed: 'kept, sealed',
  sender: 'Sender',
  keepTheMailServer: 'Keep the mail server',
  keptEachEMailsTest: '✓ kept; each e-mail’s test is the proof',
  changeThePeople: 'Change the people',
  changeTheGroups: 'Change the groups',
  peopleAndGroups: 'People and groups',
  nobodyYetAlarmsAreEverybodys:
    'Nobody yet: alarms are everybody’s, and e-mails go to the addresses that they name.',
  eMail: 'E-mail',
  none: 'none',
  members: 'Members',
  membersOf: (name: string) => `Members of ${name}`,
  takeOut: (name: string) => `Take out ${name}`,
  newName: 'New name',
  newPerson: (name: string) => `New person ${name}`,
  person: 'Person',
  newGroup: (name: string) => `New group ${name}`,
  group: 'Group'
})

export const matrix = messages({
  groups: { outputs: 'Outputs', messages: 'Messages', records: 'Records' },
  whatDetectionsSetOff: 'What detections set off',
  notSetUp: 'not set up',
  notLinked: 'not linked',
  linkedAndNeverActs: (never: string) => `linked, and never acts: ${never}`,
  linkedAndTheDetectionIs: 'linked, and the detection is never armed',
  linkedInAllOfThe: 'linked, in all of the armed hours',
  linkedAndNeverInThe: 'linked, and never in the armed hours',
  linkedInOfThe: (percent: number) => `linked, in ${percent} % of the armed hours`
})

export const usualPanel = messages({
  usualActionsOfTheSite: 'Usual actions of the site',
  givenToADetectionWith:
    'Given to a detection with one click; what a detection has already does not change.',
  usualActions: 'Usual actions',
  ofTheUsualActions: (label: string) => `${label} of the usual actions`,
  usualActionsForDetections: (without: number) => `Usual actions for ${without} detections`,
  giveThemToThatSet: (without: number) => `Give them to ${without} that set nothing off`,
  everyDetectionSetsSomethingOff: 'Every detection sets something off',
  actsInAllOfThe: 'acts in all of the armed hours',
  inAPartOfThem: 'in a part of them',
  never: 'never',
  clickACrossingToLink:
    'Click a crossing to link it; drag, or hold Shift, for a block. Choose a name to set it up.'
})

export const actionsPlace = messages({
  readingWhatIsSetOff: 'Reading what is set off …',
  partsOfActions: 'Parts of Actions',
  whatSetsOffWhat: 'What sets off what',
  alarmsAndDeliveries: 'Alarms and deliveries',
  mailAndPeople: 'Mail and people',
  standIns: 'Stand-ins',
  new: (name: string) => `New ${name}`,
  newMessageOrRecord: 'New message or record',
  usualActions: 'Usual actions',
  noDetectionHasBeenDrawn:
    'No detection has been drawn yet. Draw one on the Bench; then say here what it sets off.',
  nothingCanBeSetOff: 'Nothing can be set off yet. Add a message, or a device with outputs.',
  linkUnlink: (linked: boolean, names: number, crossings: number, names2: string) =>
    `${linked ? 'Link' : 'Unlink'} ${names > 2 ? `${crossings} crossings` : names2}`
})

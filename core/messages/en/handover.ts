import { count, list, percent } from '../format.ts'
import { messages } from '../messages.ts'

/** Settings of outputs and messages that have no name elsewhere, and their values in words. */
export const endpointFields = messages({
  names: {
    device: 'Device',
    camera: 'Camera',
    mode: 'Mode',
    pattern: 'Pattern',
    sound: 'Sound',
    voice: 'Message',
    accepts: 'Lowest severity accepted',
    stepSeconds: 'Between pictures'
  },
  values: {
    pulse: 'closes for a set time',
    follow: 'stays closed while triggers continue',
    untilAcknowledged: 'stays closed until the alarm is acknowledged',
    none: 'silent',
    chime: 'a chime',
    alarm: 'an alarm tone until acknowledged'
  },
  phrase: (text: string) => `“${text}”`,
  yes: 'yes',
  no: 'no'
})

/** What is compared between two records. */
export const areas = messages({
  site: 'Site',
  camera: 'Camera',
  schedule: 'Schedule',
  action: 'Action',
  people: 'People',
  device: 'Device',
  check: 'Check'
})

export const changeWords = messages({
  added: 'added',
  deleted: 'deleted',
  changed: 'changed',
  fromTo: (setting: string, before: string, after: string) => `${setting}: ${before} → ${after}`,
  timeZone: 'time zone',
  position: 'position',
  surroundings: 'surroundings',
  name: 'name',
  contacts: 'contacts',
  voices: 'voice files',
  mailServer: 'mail server',
  defaultActions: 'default actions',
  person: (name: string) => name,
  group: (name: string) => `Group ${name}`,
  members: 'members',
  eMail: 'e-mail',
  firmware: 'firmware',
  serial: 'serial number',
  model: 'model',
  address: 'address',
  account: 'account',
  accounts: 'accounts',
  certificate: 'certificate',
  shows: 'camera shown',
  sentHere: 'detections sent through it',
  onDevice: (name: string) => `${name}, on the device`,
  result: 'result',
  passed: 'passed',
  failed: 'failed',
  notRun: 'not run',
  test: 'test',
  testPassed: 'passed',
  testFailed: 'failed',
  notTested: 'not tested',
  order: 'order',
  none: 'none',
  yes: 'yes',
  no: 'no',
  shape: 'shape',
  otherwise: 'changed'
})

/** The pages of a record. */
export const recordPages = messages({
  title: 'Handover record',
  serviceTitle: 'Service record',
  numbered: (title: string, number: number) => `${title} ${number}`,
  client: 'Client',
  installer: 'Installer',
  site: 'Site',
  made: 'Made',
  madeBy: (when: string, by: string) => `${when}, by ${by}`,
  number: 'Number',
  digest: 'Digest (SHA-256)',
  footer: (title: string, site: string) => `${title} · ${site}`,
  page: (n: number, of: number) => `${n} / ${of}`,
  summary: 'Summary',
  cameras: (cameras: number, detections: number) =>
    `${count(cameras, 'camera')} with ${count(detections, 'detection')}`,
  devices: (read: number, of: number) =>
    of === 0
      ? 'No devices'
      : read === of
        ? `All ${count(of, 'device')} read`
        : `${read} of ${count(of, 'device')} read`,
  proof: (passed: number, current: number, all: number) =>
    all === 0
      ? 'No checks'
      : `${passed} of ${count(all, 'check')} passed${current < all ? `; ${all - current} not run under these settings` : ''}`,
  openPoints: (n: number) => (n === 0 ? 'No open issues' : count(n, 'open issue')),
  accepted: (n: number) => (n === 0 ? 'No accepted deviations' : count(n, 'accepted deviation')),
  clean: 'Nothing stands open.',
  madeWith: (n: number) => `This record was made with ${count(n, 'open issue')}.`,
  notClean: (n: number) =>
    `This record was made with ${count(n, 'open issue')}. See Open issues and accepted deviations.`,
  note: 'Remarks and recommendations',

  whatProtects: 'What protects what',
  noPicture: (why: string) => `No picture: ${why}`,
  picture: (name: string, when: string | null) =>
    when === null ? `Picture of ${name}` : `Picture of ${name}, ${when}`,
  nightPicture: (name: string, when: string | null) =>
    when === null ? `Night picture of ${name}` : `Night picture of ${name}, ${when}`,
  pictureAlt: (name: string, shapes: readonly string[]) =>
    `Picture of ${name}${shapes.length ? ` with the shapes of ${list(shapes)}` : ''}`,
  noDetections: 'No detections.',
  note2: (text: string, by: string | null) => (by ? `Note: ${text} (${by})` : `Note: ${text}`),
  disabled: 'Not in use.',
  setting: 'Setting',
  plan: 'Plan',
  device: 'On the device',
  asPlanned: 'as planned',
  notHeld: 'cannot be held',
  notRead: 'not read',
  notSent: 'not on the device',
  noDevice: 'no device',
  ownWatch: 'watched by Wardoptic',
  severity: 'Severity',
  ofAlarm: (severity: string, priority: 'low' | 'normal' | 'high') =>
    `Alarm: ${severity}, ${priority} priority.`,
  measured: (height: number, tilt: number) =>
    `Calibrated: camera at ${height.toFixed(1)} m, tilted ${tilt.toFixed(0)}°.`,
  density: 'Distance',
  pixelsPerMetre: 'Pixels per metre',
  personTall: 'Person of 1.75 m',
  metres: (m: number) => `${m} m`,
  pixels: (n: number) => `${Math.round(n)} px`,

  when: 'When',
  usedBy: (names: readonly string[]) =>
    names.length ? `Used by ${list(names)}.` : 'Used by nothing.',
  exceptions: 'Exceptions',
  closedDay: 'not armed',
  noSchedules: 'No schedules: every detection is always armed.',
  day: 'Day',
  hours: 'Hours',
  acceptedGaps: 'Accepted gaps',

  whatThen: 'What then',
  causesAndEffects: 'Causes and effects',
  detection: 'Detection',
  camera: 'Camera',
  noActions: 'No actions are set up.',
  mark: '×',
  key: 'A cross: the detection runs the action.',
  outputsAndMessages: 'Outputs and messages',
  action: 'Action',
  settings: 'Settings',
  tested: 'Tested',
  never: 'never',
  testPassed: (when: string) => `${when}: passed`,
  testFailed: (when: string, why: string) => `${when}: failed: ${why}`,
  stationList: 'For the monitoring station',
  zone: 'Zone',
  code: 'Code',
  schedule: 'Schedule',
  response: 'Response',
  noStation: 'No monitoring station is linked.',

  proof2: 'Proof',
  check: 'Check',
  expects: 'Expected',
  trigger: 'trigger',
  silence: 'no trigger',
  way: 'Way',
  ways: { walk: 'simulated', clip: 'clip', person: 'walked' },
  result: 'Result',
  passed: 'passed',
  failed: 'failed',
  outOfDate: 'out of date',
  notRun: 'not run',
  noChecks: 'No checks.',
  recall: (count: number, of: number, share: number, low: number, high: number) =>
    `Recall ${percent(share)} (${count} of ${of} expected triggers came; 95 %: ${percent(low)} to ${percent(high)})`,
  precision: (count: number, of: number, share: number, low: number, high: number) =>
    `Precision ${percent(share)} (${count} of ${of} triggers were expected; 95 %: ${percent(low)} to ${percent(high)})`,
  effect: (name: string, after: number | null) =>
    after === null ? name : `${name} after ${after.toFixed(1)} s`,
  effectWrong: (name: string, why: string) => `${name}: ${why}`,
  evidence: (check: string) => `Evidence: ${check}`,

  devicesTitle: 'Devices',
  make: 'Make and model',
  firmware: 'Firmware',
  serial: 'Serial number',
  address: 'Address',
  route: 'Shows',
  clock: 'Clock',
  account: 'Account',
  accounts: 'Accounts on the device',
  certificate: 'Certificate',
  storage: 'Storage',
  state: 'State',
  clockBy: (s: number) =>
    Math.abs(s) < 1 ? 'right' : `${s > 0 ? '+' : '−'}${Math.abs(s).toFixed(0)} s`,
  storageOf: (place: string, free: string | null, size: string | null) =>
    size === null ? place : `${place}: ${free} of ${size} free`,
  overwrites: 'overwrites when full',
  stops: 'stops when full',
  noDevices: 'No devices.',
  channel: (name: string, camera: string | null) =>
    camera === null || camera === name ? name : `${name}: ${camera}`,
  readAt: (when: string) => `read ${when}`,
  notReadSince: (why: string) => `not read: ${why}`,

  open: 'Open issues and accepted deviations',
  nothingOpen: 'Nothing is open, and nothing was accepted on purpose.',
  openIssues: 'Open issues',
  acceptedDeviations: 'Accepted deviations',
  reason: 'Reason',
  hints: 'Recommendations',
  notPossible: 'What could not be read or run',
  because: (reason: string | null, by: string | null, when: string | null) =>
    [reason, by && when ? `${by}, ${when}` : by].filter(Boolean).join(' · '),
  severities: { blocking: 'blocking', warning: 'warning', hint: 'recommendation' },

  signatures: 'Signatures',
  signedDigest: 'Signatures are for the record with this digest:',
  roles: {
    client: 'For the client',
    installer: 'For the installer',
    station: 'For the monitoring station'
  },
  name: 'Name',
  date: 'Date',
  signedAt: (name: string, when: string) => `${name}, ${when}`,
  signedOtherDigest: 'signed under another digest',

  comparedWith: (number: number, when: string) => `Compared with record ${number} of ${when}.`,
  comparedDigest: 'Its digest',
  item: 'Item',
  finding: 'Finding',
  items: {
    read: 'Device',
    firmware: 'Firmware',
    clock: 'Clock',
    storage: 'Storage',
    picture: 'Picture',
    checks: 'Checks',
    walk: 'Walk tests',
    output: 'Output'
  },
  results: { good: 'good' },
  changes: 'Changed since that record',
  noChanges: 'Nothing has changed since that record.',
  change: 'Change'
})

/** Columns of the files beside a record. */
export const recordFiles = messages({
  camera: 'camera',
  detection: 'detection',
  kind: 'kind',
  severity: 'severity',
  schedule: 'schedule',
  zone: 'zone',
  code: 'event code',
  account: 'account',
  sentence: 'meaning',
  response: 'response',
  always: 'always',
  sheet: 'Causes and effects',
  linked: 'x',
  comment: 'a comment is required',
  confirm: 'acknowledging is confirmed',
  assigned: (names: readonly string[]) => `for ${list(names)}`
})

/** The place where records are made and kept. */
export const handoverPlace = messages({
  title: 'Handover',
  record: 'Record',
  records: 'Records',
  noRecords:
    'No record yet. It freezes what is planned, held by the devices and proven, for the client to sign.',
  stands: (n: number) =>
    n === 0
      ? 'Nothing stands in the way of a clean record'
      : `${count(n, 'issue')} to settle first`,
  accept: 'Accept…',
  acceptTitle: 'Accept on purpose',
  reason: 'Reason, as the client will read it',
  takeBack: 'Take back',
  accepted: (n: number) => `Accepted on purpose (${n})`,
  acceptedBy: (by: string, when: string) => `${by}, ${when}`,
  hints: (n: number) => `Recommendations (${n})`,
  make: 'Make record…',
  makeTitle: 'Make a record',
  client: 'Client',
  installer: 'Installer',
  remarks: 'Remarks and recommendations',
  remarksHint: 'Service interval, cleaning, lighting…',
  paper: 'Paper',
  papers: { a4: 'A4', letter: 'Letter' },
  runChecks: 'Run checks that are out of date',
  openAnyway: (n: number) => `Make it with ${count(n, 'open issue')}; its first page says so`,
  making: 'Making the record',
  steps: {
    devices: 'Reading devices',
    checks: 'Running checks',
    pictures: 'Taking pictures',
    pages: 'Writing pages',
    files: 'Packing files'
  },
  stepOf: (step: string, done: number, of: number) => (of > 0 ? `${step}: ${done} of ${of}` : step),
  stop: 'Stop',
  made: (number: number) => `Record ${number} made`,
  failed: (why: string) => `The record was not made: ${why}`,
  numbered: (kind: 'handover' | 'service', number: number) =>
    kind === 'handover' ? `Record ${number}` : `Service record ${number}`,
  by: (when: string, by: string) => `${when}, ${by}`,
  clean: 'clean',
  open: (n: number) => count(n, 'open issue'),
  pdf: 'Open PDF',
  zip: 'Download ZIP',
  digest: 'Digest',
  digestHelp: 'Printed on every page. npm run verify -- FILE.zip checks a ZIP against it.',
  signatures: 'Signatures',
  sign: 'Sign…',
  signTitle: (number: number) => `Sign record ${number}`,
  signFor: 'For',
  roles: { client: 'Client', installer: 'Installer', station: 'Monitoring station' },
  name: 'Name',
  draw: 'Draw the signature',
  drawHelp: 'With a finger, a pen or the mouse',
  clear: 'Clear',
  onPaper: 'Signed on paper instead',
  signedOnPaper: 'on paper',
  notSigned: 'Not signed yet',
  noSignature: 'Draw the signature, or choose “Signed on paper instead”.',
  since: 'Since the handover',
  sinceRecord: (number: number, when: string) => `Compared with record ${number} of ${when}`,
  nothingChanged: 'Nothing has changed since this record.',
  changes: (n: number) => count(n, 'change'),
  service: 'Service visit',
  serviceHelp: 'Compares devices, pictures and results with a record, setting by setting.',
  startVisit: 'Start a service visit',
  visitSince: (when: string, by: string, number: number) =>
    `Started ${when} by ${by}; compared with record ${number}`,
  visitSteps: {
    walk: 'Walk a sample',
    outputs: 'Test each output',
    finish: 'Make the service record'
  },
  visitWalk: 'Open Prove and walk a few detections on site.',
  visitOutputs: 'Open Actions and test each output and message.',
  visitFinish:
    'Reads all devices, compares pictures with those of the record, and runs all checks again.',
  finishVisit: 'Finish visit…',
  cancelVisit: 'Cancel visit',
  walked: (n: number) => `${n} walked`,
  tested: (n: number, of: number) => `${n} of ${of} tested`,
  loading: 'Loading records…'
})

export const recordCommand = messages({
  made: (file: string, number: number, digest: string) => `${file}: record ${number}, ${digest}\n`,
  holds: (number: number, digest: string, files: number) =>
    `Record ${number} holds: ${count(files, 'file')}, digest ${digest}\n`,
  issue: (severity: string, sentence: string) => `${severity}: ${sentence}\n`,
  step: (step: string) => `${step}…\n`
})

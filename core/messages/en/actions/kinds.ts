import { messages } from '../../messages.ts'

export const buzzer = messages({
  buzzer: 'Buzzer',
  soundsFor: 'Sounds for',
  n1To60S: '1 to 60 s'
})

export const sharedFields = messages({
  theDetectionsOwnCamera: 'the detection’s own camera',
  picturesBefore: 'Pictures before',
  n0To5: '0 to 5',
  picturesAfter: 'Pictures after',
  n0To5ItWaits: '0 to 5; the e-mail waits for them',
  oneEvery: 'One every',
  n05To10S: '0.5 to 10 s',
  severalWithCommasBetween: 'separate several with commas'
})

export const email = messages({
  eMail: 'E-mail',
  to: 'To',
  dutyExampleOrg: 'duty@example.org',
  andToPeopleOfThe: 'And to people',
  nobody: 'nobody',
  sendATestMail: 'Send test e-mail'
})

export const popup = messages({
  silent: 'silent',
  aChime: 'a chime',
  anAlarmTone: 'an alarm tone until acknowledged',
  popUp: 'Pop-up',
  with: 'With',
  play: 'Play'
})

export const recording = messages({
  recording: 'Recording',
  beforeTheTrigger: 'Before trigger',
  n0To60S: '0 to 60 s',
  afterIt: 'After trigger',
  n1To600S: '1 to 600 s',
  testPicture: 'Test picture'
})

export const relay = messages({
  closesForASet: 'closes for a set time',
  staysClosedWhileTriggersGo: 'stays closed while triggers continue',
  staysClosedUntilTheAlarm: 'stays closed until the alarm is acknowledged',
  relay: 'Relay',
  relayMode: 'Relay mode',
  closedFor: 'Closed for',
  opensAfterTheLastTrigger: 'Opens after last trigger',
  n1To600S: '1 to 600 s'
})

export const snapshots = messages({
  snapshots: 'Snapshots',
  testPicture: 'Test picture'
})

export const speakerFields = messages({
  fileOf: (name: string, length: string) => `${name} (${length})`,
  message: 'Message',
  phrases: 'Phrases',
  ownFiles: 'Own files',
  play: 'Play',
  addFile: 'Add file…',
  waveMono8KhzAt: 'WAVE, mono, 8 kHz, at most 512 KB',
  times: 'Times',
  n1To50: '1 to 50',
  volume: 'Volume',
  n1To100: '1 to 100%'
})

export const speaker = messages({
  speaker: 'Speaker'
})

export const station = messages({
  monitoringStation: 'Monitoring station',
  itsNameOrIpAddress: 'its name or IP address',
  port: 'Port',
  n3To16HexadecimalDigits: '3 to 16 hexadecimal digits (SIA DC-09)',
  lowestSeverityAccepted: 'Lowest severity accepted',
  heartbeatEvery: 'Heartbeat every',
  n10To86400S0: '10 to 86400 s; 0: off',
  heartbeat: (error: string) => `heartbeat failed: ${error}`,
  heartbeatConfirmed: (value: string) => `heartbeat confirmed ${value}`
})

export const strobe = messages({
  patterns: { slow: 'slow', medium: 'medium', fast: 'fast', steady: 'steady' },
  strobe: 'Strobe',
  flashesFor: 'Flashes for',
  n1To60S: '1 to 60 s',
  pattern: 'Pattern',
  flashPattern: 'Flash pattern'
})

export const webhook = messages({
  webhook: 'Webhook',
  alarmsArePostedHere: 'Alarms are posted here as JSON, with an Idempotency-Key'
})

/** What the phrases that ship say. */
export const phrases = messages({
  recorded: 'This area is watched. You are being recorded.',
  leave: 'You are in a restricted area. Please leave at once.',
  called: 'An alarm has been raised. Help is on its way.',
  water: 'Danger, deep water. Please step back from the edge.',
  closed: 'This place is closed. Please leave by the way you came.'
})

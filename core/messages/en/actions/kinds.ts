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
  n0To5ItWaits: '0 to 5; it waits for them',
  oneEvery: 'One every',
  n05To10S: '0.5 to 10 s',
  severalWithCommasBetween: 'several with commas between'
})

export const email = messages({
  eMail: 'E-mail',
  to: 'To',
  dutyExampleOrg: 'duty@example.org',
  andToPeopleOfThe: 'And to people of the site',
  nobody: 'nobody',
  recipientsOf: (name: string) => `Recipients of ${name}`,
  sendATestMail: 'Send a test mail'
})

export const popup = messages({
  anAlarmTone: 'an alarm tone',
  popUp: 'Pop-up',
  with: 'With',
  hearIt: 'Hear it'
})

export const recording = messages({
  recording: 'Recording',
  records: 'Records',
  beforeTheTrigger: 'Before the trigger',
  n0To60S: '0 to 60 s',
  afterIt: 'After it',
  n1To600S: '1 to 600 s',
  askForAPicture: 'Ask for a picture'
})

export const relay = messages({
  closesForSomeSeconds: 'closes for some seconds',
  staysClosedWhileTriggersGo: 'stays closed while triggers go on',
  staysClosedUntilTheAlarm: 'stays closed until the alarm is acknowledged',
  relay: 'Relay',
  theRelay: 'The relay',
  closedFor: 'Closed for',
  opensAfterTheLastTrigger: 'Opens after the last trigger by',
  n1To600S: '1 to 600 s'
})

export const snapshots = messages({
  snapshots: 'Snapshots',
  records: 'Records',
  askForAPicture: 'Ask for a picture'
})

export const speakerFields = messages({
  says: 'Says',
  shippedPhrases: 'Shipped phrases',
  ownFiles: 'Own files',
  voiceOf: (name: string) => `Voice of ${name}`,
  hearIt: 'Hear it',
  ownFile: 'Own file …',
  waveMono8KhzAt: 'WAVE, mono, 8 kHz, at most 512 KB',
  times: 'Times',
  n1To50: '1 to 50',
  volume: 'Volume',
  n1To100: '1 to 100 %'
})

export const speaker = messages({
  speaker: 'Speaker'
})

export const station = messages({
  monitoringStation: 'Monitoring station',
  itsNameOrIpAddress: 'its name or IP address',
  port: 'Port',
  n3To16HexadecimalDigits: '3 to 16 hexadecimal digits (SIA DC-09)',
  itAcceptsFrom: 'It accepts from',
  heartbeatEvery: 'Heartbeat every',
  n10To86400S0: '10 to 86400 s; 0: none',
  heartbeat: (error: string) => `✕ heartbeat: ${error}`,
  heartbeatAnswered: (value: string) => `✓ heartbeat answered ${value}`
})

export const strobe = messages({
  strobe: 'Strobe',
  flashesFor: 'Flashes for',
  n1To60S: '1 to 60 s',
  how: 'How',
  howItFlashes: 'How it flashes'
})

export const webhook = messages({
  webhook: 'Webhook',
  theAlarmIsPostedThere: 'The alarm is posted there as JSON, with an Idempotency-Key'
})

import { byteSize, count, list, settingSeconds } from '../format.ts'
import { messages } from '../messages.ts'

export const upkeep = messages({
  clockAndNetwork: 'Clock, picture and network',
  clock: 'Clock',
  offBy: (ahead: number) =>
    Math.abs(ahead) <= 2
      ? 'on time'
      : `${Math.round(Math.abs(ahead))} s ${ahead > 0 ? 'fast' : 'slow'}`,
  byNtp: (servers: readonly string[]) =>
    servers.length ? `set by ${list(servers)}` : 'set by a time server',
  byHand: 'set by hand',
  setClock: 'Set clock',
  setToTimeHere: 'Set to the time of this server',
  orTimeServer: 'Or let it ask a time server',
  serverSuchAs: 'Such as 192.168.1.1',
  use: 'Use',
  siteZone: 'time zone of the site',
  otherZone: 'another time zone than the site',
  zoneToo: 'Also sets the site’s time zone and summer time.',
  nightPicture: 'Night',
  nightPictureOf: (name: string) => `Night picture of ${name}`,
  modes: messages({
    auto: 'Infra-red when it is dark',
    day: 'Always in colour',
    night: 'Always infra-red'
  }),
  noColour:
    'An infra-red picture has no colour. Classes are less certain in it, and colours say nothing.',
  network: 'Network',
  gateway: (addresses: readonly string[]) => `gateway ${list(addresses)}`,
  dns: (addresses: readonly string[]) => `DNS ${list(addresses)}`,
  storage: 'Storage',
  noStorage: 'none: it can’t record',
  room: (free: number | null, bytes: number) =>
    free === null ? byteSize(bytes) : `${byteSize(free)} of ${byteSize(bytes)} free`,
  whenFull: messages({
    overwrite: 'overwrites the oldest when full',
    stop: 'stops when full'
  }),
  outsideEvents: messages({
    nothing: 'records events only',
    keyFrames: 'records key frames between events',
    all: 'records all the time'
  }),
  aroundEvents: (before: number, after: number) =>
    `${settingSeconds(before)} before and ${settingSeconds(after)} after an event`,
  sound: 'Sound',
  microphoneOn: 'The microphone is on.',
  whatWorks: 'What works…'
})

export const abilities = messages({
  whatWorksWith: (name: string) => `What works with ${name}`,
  tryAgain: 'Try again',
  saveAsText: 'Save as text',
  trying: 'Trying each…',
  device: 'Device',
  firmware: (version: string) => `firmware ${version}`,
  serial: (number: string) => `serial ${number}`,
  names: messages({
    picture: 'Live picture',
    targets: 'Targets',
    events: 'Events',
    rule: 'Detection',
    modes: 'Analysis modes',
    outputs: 'Outputs',
    inputs: 'Contacts',
    clock: 'Clock',
    nightPicture: 'Night picture',
    storage: 'Storage',
    network: 'Network settings'
  }),
  states: messages({
    works: 'works',
    partly: 'partly',
    'not-offered': 'not offered',
    refused: 'refused',
    'no-answer': 'no answer'
  })
})

export const newPassword = messages({
  changePassword: 'Change password…',
  title: (devices: number) => `Change the password of ${count(devices, 'device')}`,
  newPassword: 'New password, at least 8 characters',
  again: 'Again',
  differs: 'The two differ.',
  change: 'Change password',
  changed: 'changed'
})

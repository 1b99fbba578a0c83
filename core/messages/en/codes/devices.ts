import { messages } from '../../messages.ts'

export const devices = messages({
  answerIsWrong: (place: string, why: string) => `${place ? `${place}: ` : ''}${why}`,
  hasNoAccountYet: 'it has no account yet',
  noDeviceShowsThisCamera: 'No device shows this camera. See Devices.',
  theDevicesStreamIsNot: 'the device’s stream is not Motion JPEG',
  isAtAnotherSite: 'is already added, at another site',
  isThatOfWhich: (name: string) => `is already added, as ${name}`,
  isOfAKind: (ruleName: string) => `${ruleName} is of a kind Wardoptic does not support.`,
  itsPasswordWasSealedWith:
    'its password can’t be decrypted: the key is lost. Enter its account again.',
  thisDeviceIsBeingSent: 'A send to this device is already running.',
  cannotBeSentTo: (name: string, state: string) => `Can’t send to ${name}: ${state}.`,
  theDevicesMetadataDoesNot: 'the device’s metadata does not end',
  theSAddressIsNot: (what: string, uri: string) =>
    `the ${what}’s address ${uri} is not on the device`,
  isNoAddress: (address: string) =>
    `"${address}" is not an address; enter one such as http://192.168.1.20`,
  theDeviceHasNoService: (service: string) => `the device has no ${service} service`,
  theDeviceDoesNotAccept: 'the device does not accept the account',
  theDevicesAnswerIsLarger: (value: number) => `the device’s answer is larger than ${value} MB`,
  theDeviceAnsweredWithHttp: (status: number) => `the device answered with HTTP ${status}`,
  theDeviceDidNotAnswer: (value: number) => `the device did not answer within ${value} s`,
  theDeviceCannotBeReached: (code: string) => `the device can’t be reached (${code})`,
  mustBeAHost: 'must be a host name or an address such as 192.168.1.1',
  passwordTooShort: 'must have at least 8 characters',
  nightPicture: (mode: string) =>
    mode === 'auto'
      ? 'automatic'
      : mode === 'day'
        ? 'always the day picture'
        : 'always the night picture',
  clockIs: (byNtp: boolean, ofSite: boolean) =>
    `${byNtp ? 'set by a time server' : 'set by hand'}, ${ofSite ? 'time zone of the site' : 'another time zone'}`,
  rtsp: 'RTSP',
  motionJpeg: 'Motion JPEG',
  snapshotsOnly: 'single pictures only, about one a second',
  targetsNow: (n: number) => (n === 1 ? '1 target now' : `${n} targets now`),
  lacksClasses: 'no class filter',
  lacksSensitivity: 'no sensitivity',
  mustBeAListOf: 'must be a list of ids',
  mustNameAtLeastOne: 'must name at least one',
  namesMoreThan1000: 'names more than 1000',
  mustBeTheNameOf: 'must be the name of a rule',
  mustBeAChannel: 'must be a channel',
  mustBeTheTypeOf: 'must be the type of a mode',
  mustBeAnAddress: 'must be an address such as http://192.168.1.20',
  whatSetsItOff: 'its trigger',
  itsHours: 'its schedule',
  isPlanned: (name: string, set: string, set2: string) => `${name} is ${set}, plan ${set2}`,
  itHoldsNoSettingsYet: 'it has no settings yet',
  theDeviceSetsItOff: 'linked on the device, not in the plan',
  sealedWithOtherKey: 'was encrypted with another key; enter it again',
  notStarted: (message: string) => `not started: ${message}`,
  otherCertificate: 'it shows another certificate than before',
  certificateIsAnother:
    'The device shows yet another certificate now. Look at it again before you trust it.',
  streamEnded: 'the device has ended its stream',
  noTargets: 'the device does not report its targets',
  noPicture: 'the device gives no picture',
  streamUnreachable: 'the device’s RTSP stream can’t be reached',
  streamNotFound: 'the device has no stream at the address it gave',
  streamUnreadable: (why: string) => `the device’s stream can’t be read: ${why}`,
  streamSilent: (s: number) => `the device’s stream sent nothing for ${s} s`
})

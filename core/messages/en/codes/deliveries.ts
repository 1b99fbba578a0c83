import { count, seconds } from '../../format.ts'
import { messages } from '../../messages.ts'

/** What became of a delivery, and why one failed. */
export const deliveries = messages({
  switchedOn: (device: string) => `${device} switched it on`,
  switchedOff: (device: string) => `${device} switched it off`,
  cameraSaidActive: 'the camera reported that it is on',
  cameraSilent: 'the camera did not report that it switched it on',
  shown: (windows: number) => `shown in ${count(windows, 'window')}`,
  testPopup: (name: string) => `Test of ${name}`,
  nobodyOnline: 'Wardoptic is not open in any browser',
  notShown: (s: number) => `no browser showed it within ${s} s`,
  givesPictures: (device: string, kilobytes: number) =>
    `${device} delivers pictures (${kilobytes} KB)`,
  noCameraDevice: 'no device that shows this camera can be reached',
  records: (device: string) => `${device} is recording`,
  clipSeconds: (s: number) => `${seconds(s)} of the clip`,
  pictures: (n: number) => count(n, 'picture'),
  picturesMissing: (n: number, why: string) => `${count(n, 'picture')}; ${why}`,
  noPicture: 'there is no picture',
  otherCamera: 'the clip shows another camera',
  onlyLive: 'the clip shows another camera, which can only be recorded live',
  clipEnds: 'the clip starts or ends there',
  noEarlierPictures: 'the device keeps no earlier pictures',
  noTrigger: 'there is no trigger',
  stationConfirmed: (sequence: string) => `the station confirmed ${sequence}`,
  stationConfirmedTest: 'the station confirmed the test',
  stationTest: (site: string) => `Test of ${site}`,
  stationSlow: (s: number) => `the station did not answer within ${s} s`,
  stationClosed: 'the station closed the connection without an answer',
  stationNotListening: (host: string, port: number) => `nothing is listening at ${host}:${port}`,
  stationUnreachable: (why: string) => `the station can’t be reached: ${why}`,
  stationRefused: 'the station refused it: it does not accept this account, code or severity',
  stationUnreadable: 'the station could not read it, or its clock is too far off',
  stationOther: (id: string, sequence: string, expected: string) =>
    `the station answered ${id} ${sequence}, not ACK ${expected}`,
  webhookSlow: (s: number) => `no answer within ${s} s`,
  webhookUnreachable: (host: string) => `${host} can’t be reached`,
  webhookRefused: (status: number) => `refused with HTTP ${status}`,
  webhookFailed: (status: number) => `answered with HTTP ${status}`,
  webhookDone: (status: number) => `HTTP ${status}`,
  mailRejected: (addresses: string) => `the mail server rejected ${addresses}`,
  recordingSlow: (minutes: number) => `reading it took longer than ${minutes} min`,
  recordingLarge: (megabytes: number) => `the recording is larger than ${megabytes} MB`,
  recordingEmpty: 'the device returned an empty recording',
  serverClosing: 'the server is stopping'
})

import { count } from '../../format.ts'
import { messages } from '../../messages.ts'

/** The record of the finished job: what cannot be, and what stands in the way. */
export const handover = messages({
  mustBeADigest: 'must be a SHA-256 digest: 64 hexadecimal digits',
  tooManyPoints: 'has too many points; draw it again, shorter',
  nothingDrawn: 'has nothing drawn in it',
  beingMade: 'A record is being made already.',
  notBeingMade: 'No record is being made.',
  stopped: 'the record was stopped',
  standsInTheWay: (n: number) =>
    `${count(n, 'issue')} ${n === 1 ? 'stands' : 'stand'} in the way of a clean record. Fix or accept ${n === 1 ? 'it' : 'them'}, or make the record with open issues.`,
  otherDigest: (number: number) =>
    `This is not the digest of record ${number}. Reload the page and sign again.`,
  deviceNotRead: (name: string, why: string) => `${name} was not read: ${why}`,
  checksNotRun: (why: string) => `Checks that are out of date were not run: ${why}`,
  checksNotAllRun: (left: number) => `${count(left, 'check')} could not be run`,
  checksLeftOut: (n: number) => `Checks were not run: ${count(n, 'result')} are out of date`,
  pictureMissing: (camera: string, why: string) => `No picture of ${camera}: ${why}`,
  noPictureSource: 'no device shows it, and it has no clip',
  siteIsEmpty: 'This site has no cameras yet. Add one before making a record.',
  gapAccepted: (action: string, detection: string) =>
    `${action} may be silent in part of the armed hours of ${detection}`,
  filesAreMissing: (number: number) =>
    `The files of record ${number} are not in the data folder. Restore them from a backup, or use a copy of the ZIP file.`,
  // Verify.
  noZip: 'is not a ZIP file',
  fileMissing: (file: string) => `${file} is missing`,
  fileUnknown: (file: string) => `${file} is not in the manifest`,
  fileChanged: (file: string) => `${file} was changed: its digest differs from the manifest`,
  manifestChanged: 'manifest.json was changed: its own digest differs',
  manifestUnreadable: (why: string) => `manifest.json cannot be read: ${why}`,
  recordUnreadable: (why: string) => `record.json does not follow its schema: ${why}`,
  recordOtherDigest: 'record.json is not the record that the manifest names',
  pictureChanged: (file: string) => `${file} is not the file that record.json names`,
  signatureElsewhere: (name: string) => `The signature of ${name} is under another digest`
})

/** What a service visit finds. */
export const serviceVisit = messages({
  notRead: (why: string) => `Not read: ${why}`,
  holdsAll: 'Holds what was planned',
  changedOnDevice: (n: number) =>
    `${count(n, 'detection')} ${n === 1 ? 'was' : 'were'} changed on the device`,
  sameFirmware: (firmware: string) => `Firmware ${firmware}, as in the record`,
  otherFirmware: (before: string, after: string) => `Firmware ${after}; in the record ${before}`,
  clockRight: (s: string) => `Clock within ${s}`,
  clockOff: (s: string) => `Clock is off by ${s}`,
  storageGood: 'Storage has room',
  storageFull: (place: string) => `${place} is full`,
  pictureSame: 'Picture as in the record',
  pictureDiffers: (causes: readonly string[]) => `Picture differs: ${causes.join(', ')}`,
  pictureNotCompared: (why: string) => `Picture not compared: ${why}`,
  noEarlierPicture: 'the record has none',
  checks: (passed: number, of: number) => `${passed} of ${of} checks passed`,
  noChecks: 'No checks to run',
  walked: (passed: number, of: number) =>
    `${passed} of ${of} walk tests passed since the visit began`,
  notWalked: 'No walk tests since the visit began',
  outputTested: 'Tested; it answered',
  outputFailed: (why: string) => `Test failed: ${why}`,
  outputNotTested: 'Not tested since the visit began'
})

import { count } from '../../format.ts'
import { messages } from '../../messages.ts'

export const server = messages({
  cannotBeReached: 'The server can’t be reached.',
  answeredWith: (status: number) => `The server answered with ${status}.`,
  databaseAway: 'The database does not answer. Restarting it. Try again in a moment.',
  numberOutOfRange: 'A number is out of range.',
  textTooLong: 'A text is too long.',
  textNotStorable: 'A text can’t be stored.',
  isNotThere: (what: string) => `${what} no longer exists.`,
  wasChangedMeanwhile: (what: string) => `${what} was changed in another window.`,
  diskFull: 'The disk is full. Free some space. Saved data is safe.',
  diskQuota: 'The disk quota is used up. Free some space. Saved data is safe.',
  diskReadOnly: 'The data folder can’t be written: its disk is read-only.',
  diskDenied: 'The data folder can’t be written: permission denied.',
  internal: 'Server error. See the server log.',
  theDiskIsNearlyFull: (value: number, value2: number, bytes: number, value3: number) =>
    `The disk is nearly full: ${value} MB are free, and ${value2} MB are kept for alarms${bytes ? `; this would take ${value3} MB` : ''}. Free some space first.`,
  mustBeAWholeNumber: 'must be a whole number of days from 1 to 3650',
  mustBeAtLeast01: 'must be at least 0.1',
  theDatabaseCannotWriteIts:
    'The database can’t write: its disk is full or read-only. Free some space. Saved data is safe.',
  theRequestIsTooLarge: 'The request is too large.',
  theMachinesClockWasSet: (jump: number, value: string) =>
    `The machine’s clock was set ${jump < 0 ? 'back' : 'forward'} by ${value} s. Triggers and alarms use the new time.`,
  withoutItNobodyCanSign: (n: number) =>
    `without it no account can sign in: give an account a new password with npm run recover (${count(n, 'account')}).`,
  withoutItThesePasswordsMust: (needing: string) =>
    `without it these passwords must be entered again: ${needing}.`,
  theMailServer: 'the mail server',
  nothingNeededIt: 'nothing was encrypted with it.',
  keyIsMissing: (file: string, needs: string) =>
    `${file} is missing, and ${needs} Restore it from a backup, or start with --new-key.`,
  keyIsDamaged: (file: string, bytes: number, right: number) =>
    `${file} has ${bytes} bytes, not ${right}: it is damaged. Restore it from a backup, or delete it and start with --new-key.`,
  csvHead:
    'site time,UTC,camera,detection,kind,class,direction,cause,severity,acknowledged,from,alarm',
  yes: 'yes',
  no: 'no',
  clip: 'clip',
  live: 'live',
  isMadeAnewN: (name: string, it: string) => `${name} was replaced: ${it}\n`,
  theDatabaseAnswersAgain: 'the database is back',
  newSite: 'New site'
})

import { messages } from '../../messages.ts'

export const actions = messages({
  calendarCannotBeRead: (why: string) => `cannot be read: ${why}`,
  isNotUtf8SaveIt: 'is not UTF-8; save it as UTF-8',
  namesAndThe: (bad: string | undefined) => `names "${bad}", which does not exist`,
  namesAndThe2: (endpoint: string) => `names "${endpoint}", which does not exist`,
  namesAndThe3: (who: string | undefined) => `names "${who}", who does not exist`,
  namesAndThe5: (camera: string) => `names "${camera}", which does not exist`,
  isSetUpAlreadyAs: (name: string) => `exists already, as ${name}`,
  theseHoursAreUsedBy: (users: string) =>
    `This schedule is used by ${users}. Choose another there first.`,
  isUsedTwice: (id: string) => `"${id}" is used twice`,
  mustHaveUses: (input: string, name: string) => `must have "${input}": ${name} uses it`,
  hasTheId: (twice: string | undefined) => `has the id "${twice}" twice`,
  namesAndThere: (m: string) => `names "${m}", who does not exist`,
  otherCalendarsAreBeingRead: 'Other calendars are being imported. Try again in a few seconds.',
  theServerIsTooBusy: 'The server is busy. Try again in a moment.',
  takesLongerThanSTo: (value: number) =>
    `takes longer than ${value} s to read: a rule never occurs or has too many dates`,
  hasFarTooManyDates: 'has too many dates',
  mustBeAnAddress: 'must be an address',
  mustBeAnAddressSuch: 'must be an address such as https://example.org/alarms',
  mustBeAHostSuch: 'must be a host such as station.example.org',
  mustBeTheAccount: 'must be the account',
  isMustBe2: (input: string) => `is "${input}"; must be 3 to 16 hexadecimal digits`,
  mustBe0OrFrom: 'must be 0, or from 10 to 86400 s',
  mustBePhrase: 'must be { "phrase": … } or { "file": … }',
  mustBeAListOf: 'must be a list of e-mail addresses',
  hasMoreThan20Addresses: 'has more than 20 addresses',
  namesAnAddressTwice: 'names an address twice',
  isMustBeA: (input: number, min: number, max: number, unit: string) =>
    `is ${input}; must be a whole number from ${min} to ${max}${unit}`,
  mustBeTheTokenOf: 'must be the token of an output',
  mustBeAnEMailAddress: 'must be an e-mail address',
  isMustBe: (input: string) => `is "${input}"; must be an e-mail address such as duty@example.org`,
  aCalendarSentAsTextCalendar: 'a calendar, sent as text/calendar',
  aWaveFileSentAs: 'a WAVE file, sent as audio/wav',
  severityTooLow: (severity: string, accepts: string) =>
    `severity ${severity} is below ${accepts}, the lowest it accepts`,
  withheld: 'held for this replay',
  outsideSchedule: 'outside its schedule',
  noMailServer: 'no mail server is set up',
  noRecipient: 'it has no recipient',
  noSuchOutput: 'no device has this output'
})

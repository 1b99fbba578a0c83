import { messages } from '../messages.ts'

export const spansText = messages({
  to: (from: string, to: string) => `${from} to ${to}`
})

export const words = messages({
  min: (minutes: number) => `${minutes} min`
})

export const weekGrid = messages({
  theWeekOf: (name: string) => `The week of ${name}`,
  onAnExceptionHolds: (date: string, name: string) => `On ${date} an exception holds${name}`,
  takeHoursOutOf: (out: boolean, weekday: string) =>
    `${out ? 'Take hours out of' : 'Add hours on'} ${weekday}`,
  changeOf: (weekday: string, name: string) => `Change ${weekday} of ${name}`,
  takeHoursOutOf2: (weekday: string) => `Take hours out of ${weekday}`,
  to: (weekday: string, from: string, to: string) => `${weekday}, ${from} to ${to}`,
  hoursOfAllDay: (weekday: string, whole: boolean, from: string, to: string) =>
    `Hours of ${weekday}, ${whole ? 'all day, ' : ''}${from} to ${to}`,
  allDay: 'all day',
  beginOn: (weekday: string) => `Begin on ${weekday}`,
  endOn: (weekday: string) => `End on ${weekday}`
})

export const dayPanel = messages({
  hoursOf: (day: string) => `Hours of ${day}`,
  to: 'To',
  changeOf: (day: string, name: string) => `Change ${day} of ${name}`,
  takeHoursOutOf: (day: string) => `Take hours out of ${day}`,
  takeOut: 'Take out',
  notArmed: 'not armed',
  clockOrSun: (label: string) => `${label}: clock or sun`,
  time: (label: string) => `${label}, time`,
  minutesFrom: (label: string, sun: string) => `${label}: minutes from ${sun}`,
  daysToCopyTo: 'Days to copy to',
  monToFri: 'Mon to Fri',
  allDays: 'All days',
  copyTo: (day: string, to: string) => `Copy ${day} to ${to}`,
  copy: 'Copy',
  copyTo2: (day: string) => `Copy ${day} to …`
})

export const exceptionPanel = messages({
  to: (dateInWords: string, more: string) => `${dateInWords} to ${more}`,
  exception: 'Exception',
  anExceptionHolds: (some: boolean, known: number, dates: number) =>
    `${some ? 'An exception holds' : `Exceptions hold on ${known} of ${dates}`} instead of the week.`,
  theHoursOfTheWeek: 'The hours of the week hold. What is said here holds instead.',
  nameOfTheException: 'Name of the exception',
  nameSuchAsChristmasDay: 'Name, such as Christmas Day',
  nameTheExceptionOf: (what: string) => `Name the exception of ${what}`,
  hoursOfTheException: 'Hours of the exception',
  changeTheExceptionOf: (what: string) => `Change the exception of ${what}`,
  notArmedOn: (what: string) => `Not armed on ${what}`,
  notArmed: 'Not armed',
  armedAllDayOn: (what: string) => `Armed all day on ${what}`,
  armedAllDay: 'Armed all day',
  asInTheWeekOn: (what: string) => `As in the week on ${what}`,
  asInTheWeek: 'As in the week'
})

export const gapsPanel = messages({
  allHours: 'all hours',
  noDetectionHasTheseHours: 'No detection has these hours, so nothing is set off in them.',
  theDetectionsWithTheseHours:
    'The detections with these hours set nothing off yet. Link outputs and messages in Actions.',
  whereHoursDoNotMeet: 'Where hours do not meet',
  mayActInAllOf: (schedule: string) => `may act in all of it (${schedule}).`,
  is: (schedule: string) => `(${schedule}) is`,
  silentForAWeek: (minutesPerWeek: string) => `silent for ${minutesPerWeek} a week`,
  ofTheThatAreArmed: (armed: string) => `of the ${armed} that are armed:`,
  andMore: (more: number) => `and ${more} more`,
  itHasBeenSaidThat: 'It has been said that this is meant so.',
  letFollow: (name: string, name2: string) => `Let ${name} follow ${name2}`,
  letItFollow: (name: string) => `Let it follow ${name}`,
  silentHoursAre: (name: string) => `${name}: silent hours are meant so`,
  itIsMeantSo: 'It is meant so',
  atAnyTime: (free: string) => `At any time: ${free}.`,
  armedAndThisOneSilent: 'armed, and this one silent'
})

export const inputsPanel = messages({
  contacts: 'Contacts',
  noneYetWithAnAlarm:
    'None yet. With an alarm panel’s set state as a contact, detections count only while it is set.',
  notHeardOfYet: 'not heard of yet',
  noDeviceHasIt: 'no device has it',
  set: '◆ set',
  notSet: '◇ not set',
  noDevice: 'no device',
  contactOf: (name: string) => `Contact of ${name}`,
  nameOfANewContact: 'Name of a new contact',
  newContact: 'New contact',
  newContact2: (name: string) => `New contact ${name}`,
  add: 'Add'
})

export const isItArmed = messages({
  isItArmed: 'Is it armed?',
  now: 'Now',
  atThisTimeOnThe: 'At this time on the site’s clock',
  yes: '● Yes',
  no: '○ No',
  yes2: '● yes',
  no2: '○ no'
})

export const scheduleList = messages({
  hours: (n: number) => `Hours ${n}`,
  newHours: (name: string) => `New hours ${name}`,
  takeInTheCalendar: (name: string) => `Take in the calendar ${name}`,
  schedules: 'Schedules',
  outputOrMessage: 'output or message',
  outputsOrMessages: 'outputs or messages',
  usedByNothingYet: 'used by nothing yet',
  aWeek: 'a week ·',
  onNow: '● on now',
  offNow: '○ off now',
  noHoursYetEveryDetection:
    'No hours yet: every detection is always armed. Make some, or take in a calendar.',
  newHours2: 'New hours',
  calendar: 'Calendar …'
})

export const usersPanel = messages({
  detectionsWithTheseHours: 'Detections with these hours',
  noneYet: 'None yet.',
  noArmInputFor: (name: string) => `No arm input for ${name}`,
  giveTheseHoursTo: 'Give these hours to',
  giveTo: (name: string) => `Give ${name} to …`,
  for: (name: string, name2: string) => `${name} for ${name2}`,
  armInputOf: (name: string) => `Arm input of ${name}`,
  byTheHoursAlone: 'by the hours alone',
  whileIsSet: (name: string) => `while ${name} is set`,
  whileIsNotSet: (name: string) => `while ${name} is not set`
})

export const yearStrip = messages({
  jan: 'Jan',
  feb: 'Feb',
  mar: 'Mar',
  apr: 'Apr',
  may: 'May',
  jun: 'Jun',
  jul: 'Jul',
  aug: 'Aug',
  sep: 'Sep',
  oct: 'Oct',
  nov: 'Nov',
  dec: 'Dec',
  exceptionsAndHolidays: 'Exceptions and holidays',
  chooseADateOrShift: (exceptions: number) =>
    `choose a date, or Shift for several · ${exceptions === 0 ? 'none yet' : `${exceptions} ${exceptions === 1 ? 'exception' : 'exceptions'}`}`,
  datesOfTheYearAhead: 'Dates of the year ahead',
  exceptionSpans2Not: (name: string, spans: number, spans2: string) =>
    `exception${name}, ${spans ? spans2 : 'not armed'}`,
  asInTheWeek: 'as in the week',
  notArmedAsInThe: 'not armed, as in the week'
})

export const armingPlace = messages({
  readingTheHours: 'Reading the hours …',
  renameTheHours: (name: string) => `Rename the hours ${name}`,
  dragToAddAltTo: 'drag to add, Alt to take out',
  asACalendarIcalendar: 'As a calendar (iCalendar)',
  saveAsACalendar: 'Save as a calendar',
  somethingHasTheseHoursGive: 'Something has these hours: give it others first',
  deleteTheseHours: 'Delete these hours',
  deleteTheHours: (name: string) => `Delete the hours ${name}`,
  thereAreNoHoursYet:
    'There are no hours yet: every detection is always armed. Make the first hours on the left.',
  nameOfTheHours: 'Name of the hours'
})

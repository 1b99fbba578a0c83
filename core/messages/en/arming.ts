import { MONTHS, dateText } from '../format.ts'
import { messages } from '../messages.ts'

export const spansText = messages({
  isNoSpan: (text: string) => `“${text}” is not a time span. Enter it as 18:30 to 24:00.`,
  isNoTime: (text: string) => `“${text}” is not a time. Enter it as 18:30, 24:00 or sunset-00:30.`,
  to: (from: string, to: string) => `${from} to ${to}`
})

export const words = messages({
  min: (minutes: number) => `${minutes} min`
})

export const weekGrid = messages({
  theWeekOf: (name: string) => `Week of ${name}`,
  onAnExceptionHolds: (date: string, name: string) => `Exception on ${dateText(date)}${name}`,
  to: (weekday: string, from: string, to: string) => `${weekday}, ${from} to ${to}`,
  hoursOfAllDay: (weekday: string, whole: boolean, from: string, to: string) =>
    `Hours of ${weekday}, ${whole ? 'all day, ' : ''}${from} to ${to}`,
  allDay: 'all day',
  beginOn: (weekday: string) => `Start on ${weekday}`,
  endOn: (weekday: string) => `End on ${weekday}`
})

export const dayPanel = messages({
  isNoTime: (text: string) => `“${text}” is not a time. Enter it as 18:30 or 24:00.`,
  hoursOf: (day: string) => `Hours of ${day}`,
  to: 'To',
  notArmed: 'not armed',
  clockOrSun: (label: string) => `${label}: clock or sun`,
  time: (label: string) => `${label}, time`,
  minutesFrom: (label: string, sun: string) => `${label}: minutes from ${sun}`,
  daysToCopyTo: 'Days to copy to',
  monToFri: 'Mon to Fri',
  allDays: 'All days',
  copy: 'Copy',
  copyTo2: (day: string) => `Copy ${day} to…`
})

export const exceptionPanel = messages({
  to: (dateInWords: string, more: string) => `${dateInWords} to ${more}`,
  exception: 'Exception',
  anExceptionHolds: (some: boolean, known: number, dates: number) =>
    `${some ? 'An exception replaces the week.' : `Exceptions replace the week on ${known} of ${dates}.`}`,
  theHoursOfTheWeek: 'The weekly hours apply. Add hours here to replace them.',
  nameOfTheException: 'Name of the exception',
  nameSuchAsChristmasDay: 'Name, such as Christmas Day',
  hoursOfTheException: 'Hours of the exception',
  notArmed: 'Not armed',
  armedAllDay: 'Armed all day',
  asInTheWeek: 'As the week'
})

export const gapsPanel = messages({
  allHours: 'always',
  noDetectionHasTheseHours: 'No detection uses this schedule.',
  theDetectionsWithTheseHours:
    'Detections with this schedule have no actions yet. Link them in Actions.',
  whereHoursDoNotMeet: 'Schedule gaps',
  mayActInAllOf: (schedule: string) => `is on for all of it (${schedule}).`,
  is: (schedule: string) => `(${schedule}) is`,
  silentForAWeek: (minutesPerWeek: string) => `off for ${minutesPerWeek} a week`,
  ofTheThatAreArmed: (armed: string) => `of ${armed} armed:`,
  andMore: (more: number) => `and ${more} more`,
  itHasBeenSaidThat: 'Marked as intended.',
  letItFollow: (name: string) => `Use ${name}`,
  itIsMeantSo: 'Mark as intended',
  atAnyTime: (free: string) => `Always on: ${free}.`,
  armedAndThisOneSilent: 'armed, but this action is off'
})

export const inputsPanel = messages({
  contacts: 'Contacts',
  noneYetWithAnAlarm:
    'No contacts. Add an alarm panel’s set state so that detections trigger only while it is set.',
  notHeardOfYet: 'state unknown',
  noDeviceHasIt: 'not on any device',
  set: 'set',
  notSet: 'not set',
  noDevice: 'no device',
  contactOf: (name: string) => `Contact of ${name}`,
  nameOfANewContact: 'Name of the new contact',
  newContact: 'New contact'
})

export const isItArmed = messages({
  isItArmed: 'Is it armed?',
  now: 'Now',
  atThisTimeOnThe: 'At this time',
  yes: 'Yes',
  no: 'No',
  yes2: 'yes'
})

export const scheduleList = messages({
  hours: (n: number) => `Schedule ${n}`,
  schedules: 'Schedules',
  outputOrMessage: 'action',
  outputsOrMessages: 'actions',
  usedByNothingYet: 'not used',
  aWeek: 'a week ·',
  onNow: 'armed now',
  offNow: 'not armed now',
  noHoursYetEveryDetection:
    'No schedules: detections are always armed. Add a schedule, or import a calendar.',
  newHours2: 'Add schedule',
  calendar: 'Import calendar…'
})

export const usersPanel = messages({
  detectionsWithTheseHours: 'Detections with this schedule',
  noneYet: 'None yet.',
  giveTheseHoursTo: 'Use this schedule for',
  giveTo: (name: string) => `Use ${name} for…`,
  armInputOf: (name: string) => `Contact for ${name}`,
  byTheHoursAlone: 'no contact',
  whileIsSet: (name: string) => `while ${name} is set`,
  whileIsNotSet: (name: string) => `while ${name} is not set`
})

export const yearStrip = messages({
  month: (index: number) => MONTHS[index]!,
  exceptionsAndHolidays: 'Exceptions and holidays',
  chooseADateOrShift: (exceptions: number) =>
    `select a date, or Shift for several ·  ${exceptions === 0 ? 'none yet' : `${exceptions} ${exceptions === 1 ? 'exception' : 'exceptions'}`}`,
  datesOfTheYearAhead: 'Dates of the coming year',
  exceptionSpans2Not: (name: string, spans: number, spans2: string) =>
    `exception${name}, ${spans ? spans2 : 'not armed'}`,
  asInTheWeek: 'as the week',
  notArmedAsInThe: 'not armed, as the week'
})

export const armingPlace = messages({
  thereAreNoHoursYet: 'No schedules: detections are always armed. Add one on the left.',
  dragToAddAltTo: 'Drag to add, Alt+drag to remove',
  asACalendarIcalendar: 'Export calendar (iCalendar)',
  saveAsACalendar: 'Export calendar',
  somethingHasTheseHoursGive: 'In use. Choose another schedule there first.',
  deleteTheseHours: 'Delete schedule',
  nameOfTheHours: 'Schedule name'
})

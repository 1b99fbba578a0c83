import { count, MONTHS, dateText } from '../format.ts'
import { messages } from '../messages.ts'

export const spansText = messages({
  isNoSpan: (text: string) => `“${text}” is not a time span. Enter it as 18:30 to 24:00.`,
  isNoTime: (text: string) => `“${text}” is not a time. Enter it as 18:30, 24:00 or sunset-00:30.`,
  to: (from: string, to: string) => `${from} to ${to}`
})

export const words = messages({
  hours: (n: number) => `${n} h`,
  min: (minutes: number) => `${minutes} min`
})

export const weekGrid = messages({
  weekOf: (name: string) => `Week of ${name}`,
  exceptionOn: (date: string, name: string) => `Exception on ${dateText(date)}${name}`,
  to: (weekday: string, from: string, to: string) => `${weekday}, ${from} to ${to}`,
  hoursOfTo: (weekday: string, whole: boolean, from: string, to: string) =>
    `Hours of ${weekday}, ${whole ? 'all day, ' : ''}${from} to ${to}`,
  allDay: 'all day',
  startOn: (weekday: string) => `Start on ${weekday}`,
  endOn: (weekday: string) => `End on ${weekday}`
})

export const dayPanel = messages({
  sunset: 'sunset',
  sunrise: 'sunrise',
  clock: 'clock',
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
  always: 'always',
  noDetectionUsesThis: 'No detection uses this schedule.',
  theDetectionsWithTheseHours:
    'Detections with this schedule have no actions yet. Link them in Actions.',
  scheduleGaps: 'Schedule gaps',
  noGap: '{action} ({schedule}) is on all the armed time.',
  gap: '{action} ({schedule}) is {off} of the {armed} armed a week:',
  offFor: (perWeek: string) => `off for ${perWeek}`,
  andMore: (more: number) => `and ${more} more`,
  markedAsIntended: 'Marked as intended.',
  use: (name: string) => `Use ${name}`,
  markAsIntended: 'Mark as intended',
  alwaysOn: (free: string) => `Always on: ${free}.`,
  armedButThisAction: 'armed, but this action is off'
})

export const inputsPanel = messages({
  contacts: 'Contacts',
  noContactsAddAn:
    'No contacts. Add an alarm panel’s set state so that detections trigger only while it is set.',
  stateUnknown: 'state unknown',
  notOnAnyDevice: 'not on any device',
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
  schedule: (n: number) => `Schedule ${n}`,
  schedules: 'Schedules',
  detections: (n: number) => count(n, 'detection'),
  actions: (n: number) => count(n, 'action'),
  notUsed: 'not used',
  aWeek: (hours: string) => `${hours} a week`,
  onNow: 'armed now',
  notArmedNow: 'not armed now',
  noSchedulesDetectionsAre:
    'No schedules: detections are always armed. Add a schedule, or import a calendar.',
  addSchedule: 'Add schedule',
  calendar: 'Import calendar…'
})

export const usersPanel = messages({
  detectionsWithThisSchedule: 'Detections with this schedule',
  noneYet: 'None yet.',
  useThisScheduleFor: 'Use this schedule for',
  useFor: (name: string) => `Use ${name} for…`,
  contactFor: (name: string) => `Contact for ${name}`,
  noContact: 'no contact',
  whileIsSet: (name: string) => `while ${name} is set`,
  whileIsNotSet: (name: string) => `while ${name} is not set`
})

export const yearStrip = messages({
  month: (index: number) => MONTHS[index]!,
  exceptionsAndHolidays: 'Exceptions and holidays',
  selectADateOr: (exceptions: number) =>
    `select a date, or Shift for several · ${exceptions === 0 ? 'none yet' : count(exceptions, 'exception')}`,
  datesOfTheYearAhead: 'Dates of the coming year',
  exception: (name: string, spans: number, spans2: string) =>
    `exception${name}, ${spans ? spans2 : 'not armed'}`,
  asInTheWeek: 'as the week',
  notArmedAsInThe: 'not armed, as the week'
})

export const armingPlace = messages({
  noSchedulesDetectionsAre: 'No schedules: detections are always armed. Add one on the left.',
  dragToAddAltTo: 'Drag to add, Alt+drag to remove',
  exportCalendarIcalendar: 'Export calendar (iCalendar)',
  exportCalendar: 'Export calendar',
  inUseChooseAnother: 'In use. Choose another schedule there first.',
  deleteSchedule: 'Delete schedule',
  scheduleName: 'Schedule name'
})

import { count, duration, number, wholePercent } from '../../format.ts'
import { messages } from '../../messages.ts'

/** A number with one decimal where it is small. */
const rate = (value: number): string =>
  number(Math.round(value * (value < 10 ? 10 : 1)) / (value < 10 ? 10 : 1))

export const lookBack = messages({
  lookBack: 'Look back',
  name: 'What the camera reported',
  strip: 'Days of this camera',
  howToChoose: 'Drag over the days to choose up to 24 hours.',
  lastHour: 'Last hour',
  lastSixHours: 'Last 6 hours',
  lastDay: 'Last 24 hours',
  range: (from: string, to: string) => `${from} to ${to}`,
  earlier: 'Earlier',
  later: 'Later',
  whereTheyWalk: 'Where they walk',
  densities: { walked: 'Walked', stood: 'Stood', speed: 'Speed' },
  densityOf: (what: string, cls: string | null) => (cls === null ? what : `${what}: ${cls}`),
  notListened: 'Not listened to: what was there is not known',
  nothingYet:
    'Nothing has been kept of this camera yet. What its device reports is kept from now on. If it reports no targets, Wardoptic can analyse the pictures.',
  noReports:
    'No device reports what this camera sees, so that there is nothing to look back at. Wardoptic can analyse its pictures once a device shows it.',
  analyse: 'Analyse its pictures',
  analysis: (state: string) => `Pictures: ${state}`,
  leftOut: 'Nothing is kept of this camera, as the site’s settings say.',
  /** @param later seconds from the moment on show to the picture's */
  pictureOf: (when: string, later: number) =>
    `Picture of ${when}${later === 0 ? '' : `, ${duration(Math.abs(later))} ${later < 0 ? 'before' : 'after'} this moment`}. Motion, tamper and video loss are not looked back at.`,
  pictureOfNow:
    'The picture is the present one; the targets are of then. Motion, tamper and video loss need the picture itself, and are not looked back at.',
  noPicture:
    'No picture was kept of this time. Motion, tamper and video loss need the picture itself, and are not looked back at.',
  picture: 'The camera’s picture now',
  pictureThen: (when: string) => `The camera’s picture, ${when}`,
  seen: (when: string) => `As it was seen, ${when}`,
  saveAsClip: 'Save as clip',
  clipIsShort: 'A clip is an hour long at most. Choose a shorter range.',
  clipName: (range: string) => `Reported ${range}`,
  reportedClip:
    'Shown is what was recorded, and between recordings the kept picture nearest in time; the targets are what the camera reported. Motion, tamper and video loss need every picture, and are not judged here.'
})

export const howOften = messages({
  perDay: (perDay: number, days: number, low: number, high: number) =>
    `About ${rate(perDay)} triggers a day by the last ${count(Math.max(1, Math.round(days)), 'day')} (95 %: ${rate(low)} to ${rate(high)})`,
  tooShort: (triggers: number, hours: number) =>
    `${count(triggers, 'trigger')} in the ${count(Math.max(1, Math.round(hours)), 'hour')} that were kept so far`,
  byHour: 'By hour of the day',
  hour: (hour: number, triggers: number) =>
    `${String(hour).padStart(2, '0')}:00: ${count(triggers, 'trigger')}`
})

export const tune = messages({
  tune: 'Tune',
  marks: (wanted: number, nuisances: number) =>
    `${count(wanted, 'wanted mark')}, ${count(nuisances, 'nuisance mark')}`,
  noMarks: 'Nothing is marked yet. Select a trigger and say whether it was wanted.',
  sweep: 'Sweep',
  setting: 'Setting to sweep',
  sweeping: 'Evaluating each value…',
  wanted: 'Wanted',
  nuisance: 'Nuisances',
  unmarked: 'Not marked',
  take: (setting: string, value: string) => `Take ${setting} ${value}`,
  atValue: (value: string, wanted: string, nuisance: string, unmarked: string) =>
    `At ${value}: ${wanted} wanted, ${nuisance} nuisances and ${unmarked} not marked a day. Click a value to take it.`,
  recommend: 'Recommend settings',
  looking: (share: number) => `Looking for settings, ${wholePercent(share)}`,
  stop: 'Stop',
  close: 'Close',
  takeAll: 'Take these settings',
  taken: 'Taken. Undo takes it back.',
  keeps: (kept: number, wanted: number, gone: number, nuisances: number) =>
    `By all marks: ${kept} of ${wanted} wanted kept, ${gone} of ${nuisances} nuisances gone`,
  unmarkedAfter: (after: number, before: number) =>
    `Unmarked triggers: ${after} instead of ${before}`,
  changes: 'What changes',
  deviceTakes: (device: string) => `${device} can hold all of it.`,
  deviceTakesNot: (device: string) => `${device} can’t hold all of it:`,
  noAreas: 'Ignore areas: not sent to devices, which go on to trigger there'
})

export const marking = messages({
  wasIt: 'Was this trigger wanted?',
  shouldIt: 'Should this target have triggered?',
  wanted: 'Wanted',
  nuisance: 'Nuisance',
  why: 'Why',
  forget: 'Take the mark back',
  useAsCheck: 'Use as a check',
  checkName: (clip: string, at: string) => `${clip}, ${at}`,
  isACheck: 'It is a check now.',
  openCheck: 'Open it',
  reasons: {
    foliage: 'Foliage',
    animal: 'Animal',
    weather: 'Weather',
    light: 'Light',
    passerBy: 'Passer-by',
    ownStaff: 'Own staff',
    vehicleLights: 'Vehicle lights',
    other: 'Other'
  }
})

export const scaleNames = messages({
  sensitivity: 'sensitivity',
  dwellSeconds: 'dwell, s',
  graceSeconds: 'grace, s',
  confirmSeconds: 'confirmation, s',
  holdOffSeconds: 're-trigger delay, s',
  atLeast: 'how many together',
  'size.min': 'smallest height, share of the picture',
  'size.max': 'largest height, share of the picture',
  'size.minMetres': 'smallest height, m',
  'size.maxMetres': 'largest height, m'
})

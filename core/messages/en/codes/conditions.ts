import {
  capital,
  frameSize,
  list,
  metres,
  percent,
  seconds,
  settingSeconds,
  weekdayAndTime
} from '../../format.ts'
import { messages } from '../../messages.ts'

/** The names of the conditions between a target and a trigger. */
export const conditions = messages({
  class: 'class',
  size: 'size',
  ignore: 'ignore area',
  confirm: 'confirmation time',
  direction: 'direction',
  share: 'overlap',
  dwell: 'dwell',
  together: 'number together',
  face: 'face size',
  mask: 'mask',
  list: 'face list',
  cells: 'cells in motion',
  picture: 'picture',
  contact: 'contact',
  delay: 'delay',
  armed: 'arming schedule',
  holdOff: 're-trigger delay'
})

/** What a condition measured, what it needs, and what came of all of them: the answer to *Why*. */
export const why = messages({
  triggered: (time: number) => `Triggered at ${seconds(time)}: all conditions met.`,
  noPart: (where: string) => `No part of the target was ${where}.`,
  alreadyCounted: (time: number) =>
    `All conditions were met at ${seconds(time)}, but it had already been counted.`,
  notMet: (
    condition: string,
    measured: string,
    time: number,
    needed: string,
    also: readonly string[]
  ) =>
    `${capital(condition)} not met: ${measured} at ${seconds(time)}, needs ${needed}.${
      also.length ? ` Also not met: ${list(also)}.` : ''
    }`,
  alreadyOn: (time: number, firedAt: number) =>
    `Still active at ${seconds(time)}; it triggered at ${seconds(firedAt)}.`,
  allMet: (time: number) => `All conditions are met at ${seconds(time)}.`,

  anyClass: 'any class',
  oneOf: (classes: readonly string[]) => list(classes, 'or'),
  classLikely: (cls: string, likelihood: number) => `${cls}, ${percent(likelihood)} likely`,
  insideIgnoreArea: 'stands in an ignore area',
  outside: 'outside',
  outsideIgnoreAreas: 'outside all ignore areas',
  classFor: (cls: string, held: number) => `${cls} for ${seconds(held)}`,
  atLeastSeconds: (s: number) => `at least ${settingSeconds(s)}`,
  clock: (instant: number, timeZone: string) => weekdayAndTime(instant, timeZone),
  scheduleAlways: (schedule: string) => schedule,
  scheduleUntil: (schedule: string, instant: number, timeZone: string) =>
    `${schedule}, until ${weekdayAndTime(instant, timeZone)}`,
  scheduleFrom: (schedule: string, instant: number, timeZone: string) =>
    `${schedule}, from ${weekdayAndTime(instant, timeZone)}`,
  scheduleNever: (schedule: string) => `${schedule}, not armed in the coming days`,
  andInput: (what: string, input: string, set: boolean) =>
    `${what}, ${input} ${set ? 'set' : 'not set'}`,
  noTriggerBefore: 'no trigger before',
  sinceLastTrigger: (s: number) => `${seconds(s)} since the last trigger`,
  anySize: 'any size',
  all: (limits: readonly string[]) => limits.join(', '),
  notOnGround: 'not on the ground',
  metres: (m: number) => metres(m),
  ofPicture: (w: number, h: number) => `${frameSize(w, h)} of the picture`,

  atLeastShare: (need: number) => `at least ${percent(need)}`,
  overLine: (share: number) => `${percent(share)} over the line`,
  inZone: (share: number) => `${percent(share)} in the zone`,
  outOfZone: (share: number) => `${percent(share)} outside the zone`,
  isOverLine: 'over the line',
  isInZone: 'in the zone',
  isOutOfZone: 'outside the zone',
  path: (from: string, to: string) => `${from} → ${to}`,
  left: 'left',
  right: 'right',
  eitherDirection: 'either direction',
  notOverLine: 'not over the line',
  seenBefore: (where: string) => `seen ${where} before`,
  firstSeen: (where: string) => `first seen ${where}`,
  inZoneFor: (s: number) => `${seconds(s)} in the zone`,
  firstSeenInside: 'first seen inside, not outside since',
  seenOutsideBefore: 'seen outside before',
  countInZone: (n: number) => `${n} in the zone`,
  atLeastCount: (n: number) => `at least ${n}`,

  cellsShare: (share: number) => `${percent(share)} of the cells in motion`,
  forMeasured: (s: number) => `for ${seconds(s)}`,
  forNeeded: (s: number) => `for ${settingSeconds(s)}`,
  targetOnCells: (target: number) => `target ${target} on moving cells`,
  noneOnCells: (classes: string) => `no ${classes} on moving cells`,
  aClass: (classes: string) => `${/^[aeiou]/.test(classes) ? 'an' : 'a'} ${classes}`,
  target: 'target',
  active: 'active',
  atRest: 'at rest',
  activeNormally: (normally: string) => `active (normally ${normally})`,
  open: 'open',
  closed: 'closed',
  faceOf: (w: number, h: number) => `a face of ${frameSize(w, h)}`,
  noFace: 'no face seen',
  atLeastFrame: (w: number, h: number) => `at least ${frameSize(w, h)}`,
  maskUnknown: 'mask not recognised',
  withMask: 'with a mask',
  withoutMask: 'without a mask',
  unknownFace: 'not a known face',
  known: (name: string) => name,
  onList: 'on the list',
  notOnList: 'not on the list',
  noNewPicture: (s: number) => `no new picture for ${seconds(s)}`,
  towards: (degree: number, cause: string) => `${percent(degree)} of the way to ${cause}`,
  asReference: 'as in the reference',
  atLimit: 'at its limit'
})

/** Classes of targets. */
export const classes = messages({
  person: 'person',
  vehicle: 'vehicle',
  cycle: 'cycle',
  animal: 'animal',
  unknown: 'unknown'
})

/** What was done to a camera. */
export const causes = messages({
  covered: 'covered',
  dark: 'dark',
  washedOut: 'washed out',
  outOfFocus: 'out of focus',
  moved: 'moved'
})

/** Measured curves over a clip. */
export const curves = messages({
  cells: 'Cells in motion',
  contact: 'Contact active',
  noPicture: 'No new picture'
})

import {
  capital,
  count,
  frameSize,
  list,
  metres,
  percent,
  seconds,
  settingSeconds
} from '../../format.ts'
import { messages } from '../../messages.ts'

/** Names of checks that are proposed. */
export const checkNames = messages({
  fromTo: (from: string, to: string) => `From ${from} to ${to}`,
  fromToNot: (from: string, to: string) => `From ${from} to ${to} does not trigger`,
  notCounted: (name: string) => `${capital(name)} does not trigger`,
  counted: (name: string) => `${capital(name)} triggers`,
  nearFirstVertex: 'Near the first vertex',
  nearLastVertex: 'Near the last vertex',
  goesInAndStays: 'Goes in and stays',
  entersZone: 'Enters the zone',
  leavesZone: 'Leaves the zone',
  onlyEnters: 'Only entering does not trigger',
  onlyLeaves: 'Only leaving does not trigger',
  passesBeside: 'A passer-by beside it',
  overlapBelow: (need: number) => `Overlap just below ${percent(need)}`,
  overlapAbove: (need: number) => `Overlap just above ${percent(need)}`,
  slowWalker: 'A slow walker',
  runner: 'A runner',
  child: 'A child',
  crouching: 'A crouching person',
  groupOfThree: 'Three people together',
  twoInTurn: 'Two people in turn: two triggers',
  insideIgnoreArea: 'Inside an ignore area',
  largeEnough: (m: number) => `Just large enough: ${metres(m)} tall`,
  tooSmall: (m: number) => `Too small: ${metres(m)} tall`,
  smallEnough: (m: number) => `Just small enough: ${metres(m)} tall`,
  tooLarge: (m: number) => `Too large: ${metres(m)} tall`,
  seenLonger: (s: number) => `Visible for more than ${settingSeconds(s)}`,
  seenShorter: (s: number) => `Visible for only ${seconds(s)}`,
  stays: (s: number) => `Stays ${seconds(s)}`,
  staysShort: (s: number) => `Stays only ${seconds(s)}`,
  secondWithin: (s: number) => `A second person after ${seconds(s)}: one trigger`,
  secondAfter: (s: number) => `A second person after ${seconds(s)}: two triggers`,
  beforeArmed: 'Just before the schedule starts',
  armedStarts: 'Just after the schedule starts',
  beforeArmedEnds: 'Just before the schedule ends',
  afterArmed: 'After the schedule ends',
  inputSet: (input: string) => `${input} set`,
  inputNotSet: (input: string) => `${input} not set`,
  outputs: (names: readonly string[]) => `Actions: ${list(names)}`,
  outputOn: (name: string) => `${name} acts within its schedule`,
  outputOff: (name: string) => `${name} stays off outside its schedule`,
  togetherEnough: (n: number) => `${n} people together`,
  togetherFewer: (n: number) => `Only ${count(n, 'person', 'people')}`,
  togetherShort: 'They go in and come straight out',
  togetherBeside: 'They pass beside it',
  inRain: 'In wind and rain',
  inSnow: 'In snow',
  atNight: 'At night',
  stormEmpty: 'Empty scene in wind and rain',
  snowEmpty: 'Empty scene in snow',
  gull: 'A gull flies through',
  headlights: 'Headlights sweep across the picture',
  nobody: 'Empty scene',
  throughCells: 'Someone walks through the cells',
  throughCellsNot: 'Someone walking through does not trigger',
  sameAtNight: 'The same at night',
  aPerson: 'A person',
  aDogNot: 'A dog does not trigger',
  contactActive: 'The contact becomes active',
  contactAtRest: 'The contact stays at rest',
  activeFor: (s: number) => `Active for ${seconds(s)}`,
  activeShort: (s: number) => `Active for only ${seconds(s)}`,
  activeTwice: 'Active twice: two triggers',
  cableCut: (s: number) => `Cable unplugged for ${seconds(s)}`,
  cableCutShort: (s: number) => `Cable unplugged for only ${seconds(s)}`,
  frozen: 'The picture freezes',
  frozenShort: (s: number) => `The picture freezes for only ${seconds(s)}`,
  lightsOut: 'The lights go out, the picture stays',
  causeFor: (cause: string, s: number) => `${cause} for ${seconds(s)}`,
  causeShort: (cause: string, s: number) => `${cause} for only ${seconds(s)}`,
  faceNear: 'A face comes close',
  faceNearMask: 'A face with a mask comes close',
  faceNearNoMask: 'A face without a mask comes close',
  faceFar: 'A face stays too far away',
  faceAway: 'Someone walks away, no face visible',
  childFace: 'A child’s face',
  withMask: 'With a mask',
  withoutMask: 'Without a mask',
  withMaskNot: 'With a mask does not trigger',
  withoutMaskNot: 'Without a mask does not trigger',
  knownFace: (name: string) => `${name}’s face`,
  knownFaceNot: (name: string) => `${name}’s face does not trigger`,
  stranger: 'An unknown face',
  strangerNot: 'An unknown face does not trigger',
  walk: (detection: string) => `${detection}: custom walk`
})

/** Who walks in a check. */
export const walkers = messages({
  person: 'a person',
  vehicle: 'a car',
  cycle: 'a cyclist',
  animal: 'a dog',
  unknown: 'someone'
})

/** What was done to the lens, as the name of a check. */
export const faultNames = messages({
  covered: 'Lens covered',
  dark: 'Lights out',
  washedOut: 'Dazzled',
  outOfFocus: 'Out of focus',
  moved: 'Camera knocked'
})

/** Why something cannot be walked, and so is not proposed. */
export const checkGaps = messages({
  notCalibrated:
    'This camera is not calibrated, so nothing can walk in its scene. Calibrate it on the Bench, or use a clip or a person on site.',
  notPaintable: 'This camera has no simulated scene to paint. Use a clip, or a person on site.',
  noGroundInCells: 'No walkable ground is visible in the selected cells.',
  noGround: 'There is no walkable ground in front of the camera.',
  zoneFillsView: 'The zone fills the view, so it can’t be entered from outside.',
  noRoomInZone: (need: number, most: number) =>
    `At most ${percent(most)} of the body fits in the zone; ${percent(need)} is required. Raise the sensitivity, or draw the zone higher.`,
  noRoomOverLine: (path: string, need: number) =>
    `${path}: the scene has no room to cross the line with ${percent(need)} overlap.`,
  noPathBeside: 'No path beside the line stays in the picture.',
  noPathThere: (place: string) => `${place}: the line can’t be crossed there with enough overlap.`,
  tooShortPath: (walker: string) => `${capital(walker)} does not get far enough on this path.`,
  cannotBeSoTall: (name: string) => `${name} can’t be walked here.`,
  noIgnoreArea: 'No ignore area lies where this could trigger.',
  confirmTooShort: (s: number, speed: number) =>
    `A walk of ${settingSeconds(s)} at ${speed} m/s is too short.`,
  dwellTooShort: (through: number, dwell: number) =>
    `Walking through takes ${seconds(through)}, longer than the dwell of ${settingSeconds(dwell)}: every passer-by triggers.`,
  holdOffNotWalkable: (s: number, short: boolean) =>
    `A re-trigger delay of ${settingSeconds(s)} is too ${short ? 'short' : 'long'} to walk.`,
  tooManyTogether: (n: number, most: number) =>
    `${n} people together can’t be simulated: at most ${most}. Use a clip, or people on site.`,
  debounceTooShort: (s: number) =>
    `A debounce time of ${settingSeconds(s)} is shorter than two frames.`,
  noDelay: 'There is no delay to stay below.',
  faceNeverLarge: (m: number, w: number, h: number, needW: number, needH: number) =>
    `At ${m.toFixed(1)} m, the closest possible, a face is ${frameSize(w, h)} of the picture; the smallest counted is ${frameSize(needW, needH)}.`,
  faceAlwaysLarge: 'Every face seen here is large enough.'
})

/** What became of a check. */
export const verdicts = messages({
  detectionGone: 'Its detection no longer exists.',
  switchedOff: (detection: string) => `${detection} is switched off.`,
  noTrigger: (why: string) => `Expected a trigger, none came. ${why}`,
  triggered: (time: number, n: number) =>
    `Triggered at ${seconds(time)} as expected${n > 1 ? ` (${n} triggers)` : ''}.`,
  mustNot: (time: number) => `Triggered at ${seconds(time)}, but must not trigger.`,
  silent: (why: string) => `No trigger, as expected. ${why}`,
  wrongEffect: (time: number, endpoint: string, why: string) =>
    `Triggered at ${seconds(time)}, but ${endpoint}: ${why}.`,
  wrongCause: (time: number, cause: string, expected: string) =>
    `Triggered at ${seconds(time)} with the cause ${cause}; expected ${expected}.`,
  noCause: 'none',
  wrongCount: (expected: number, came: number) =>
    `Expected ${count(expected, 'trigger')}, ${came} came.`,
  wrongDirection: (time: number) => `Triggered at ${seconds(time)} in the other direction.`,
  wrongTime: (time: number, from: number, to: number) =>
    `Triggered at ${seconds(time)}; expected between ${seconds(from)} and ${seconds(to)}.`,
  nobodySeen: 'No target was seen.',
  noPicture: 'There was no picture.',
  notRun: (why: string) => `Could not be run: ${why}.`,
  clipGone: 'its clip no longer exists',
  clipNotAnalysed: (clip: string) => `its clip ${clip} has not been analysed`
})

/** What became of an action that a check expected, or did not. */
export const effects = messages({
  gone: 'it no longer exists',
  notLinked: (detection: string) => `${detection} is not linked to it`,
  notLinkedHere: 'it is not linked to this detection',
  acts: 'it runs, but must not',
  fewPictures: (has: number, expected: number) =>
    `it attaches ${count(has, 'extra picture')}, ${expected} expected`,
  lateRecording: (has: number, expected: number) =>
    `it starts ${settingSeconds(has)} before the trigger, ${settingSeconds(expected)} expected`,
  notConfirmed: 'it was not confirmed',
  paused: 'actions are paused after earlier ones',
  noScreenOpen: 'no operator screen was open',
  cameraSilent: 'the camera did not report that it switched it',
  notInTime: 'not confirmed within the time of this test',
  noTrigger: 'there was no trigger',
  didNotCome: 'it did not happen'
})

/** Why a camera may have sent no trigger for a live walk. */
export const causesOfSilence = messages({
  nobodyReported: 'The camera reported no target: is the walk in its picture?',
  nobodyReportedLikely: (likely: string) => `The camera reported no target. ${likely}`,
  shouldHaveLikely: (time: number, likely: string) =>
    `The camera should have triggered at ${seconds(time)} but sent no event. Likely: ${likely}`,
  ownAnalysis: (time: number) =>
    `The camera should have triggered at ${seconds(time)} but sent no event. Its settings match the plan; its own analysis judged differently.`,
  reportsNothing: 'The camera sent no event, and it does not report its targets.',
  targetsUnreadable: (why: string) => `The camera’s targets can’t be read: ${why}`
})

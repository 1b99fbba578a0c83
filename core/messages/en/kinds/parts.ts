import { count, list, wholePercent } from '../../format.ts'
import { messages } from '../../messages.ts'

export const words = messages({
  theWholeBody: 'the whole body',
  threeQuarters: 'three quarters of the body',
  half: 'half the body',
  aQuarter: 'a quarter of the body',
  aTenth: 'a tenth of the body',
  ofTheBody: (need: number) => `${wholePercent(need)} of the body`,
  or: (items: readonly string[]) => list(items, 'or'),
  /** Who counts, at the beginning of a sentence. */
  who: (classes: readonly string[]) =>
    classes.length
      ? `${/^[aeiou]/.test(classes[0]!) ? 'An' : 'A'} ${list(classes, 'or')}`
      : 'Any target',
  anyTarget: 'any target',
  toTall: (min: number, max: number) => `${min} to ${max}\u00a0m tall`,
  atLeastTall: (m: number) => `at least ${m}\u00a0m tall`,
  atMostTall: (m: number) => `at most ${m}\u00a0m tall`,
  between: (min: string, max: string) => `between ${min} and ${max} of the picture`,
  largerThan: (min: string) => `larger than ${min} of the picture`,
  atMost: (max: string) => `at most ${max} of the picture`,
  anySize: 'any size',
  wholePicture: 'the whole picture',
  ofCells: (selected: number, all: number) => `${selected} of ${all} cells`,
  always: 'always'
})

export const stayWords = messages({
  together: (n: number, who: string, verb: string) =>
    n > 1
      ? `${n} together: ${who.slice(0, 1).toLowerCase()}${who.slice(1)} ${verb} `
      : `${who} ${verb} `,
  after: (dwell: string | null, overlap: string) => `${dwell ? ` for ${dwell}` : ''}, ${overlap}`
})

export const bodyShare = messages({
  overLine: (share: number) => `${wholePercent(share)} of the body must be over the line`
})

export const editors = messages({
  unknownNotRecognisedYet: 'unknown (not recognised yet)',
  noneSelectedEveryTarget: 'None selected: every target counts.',
  mustBe: (share: string, where: string) => `${share} must be ${where}.`,
  howLongVisible: 'How long a target must be recognised as its class before it counts.',
  noFurtherTriggerFor: 'No further trigger for this long. 0: every crossing triggers.'
})

export const sizesChart = messages({
  heights: (sizes: number, wanted: number) =>
    `Heights of ${count(sizes, 'target')} by distance; ${wanted} of the selected classes reach the shape`,
  heightOfEach:
    'Height of each target by where its feet are: far on the left, near on the right. Dark: at the shape.'
})

export const sizeEditor = messages({
  framesOnPicture: 'Frames on the picture',
  metres: 'Metres',
  selectAClipTo: 'Select a clip to see how large its targets are.',
  noTargets: 'This clip has no targets.',
  fitToClip: (n: number) => `Fit to the clip (${count(n, 'target')} at the shape)`,
  noTargetOfThe: 'No target of the selected classes reaches the shape.',
  targetsThatFitInto:
    'Targets that fit into the smallest frame are too small; targets that do not fit into the largest are too large. {key} draws the frames on the picture.',
  smallestTarget: 'Smallest target',
  largestTarget: 'Largest target',
  minimumHeight: 'Minimum height',
  maximumHeight: 'Maximum height'
})

export const chips = messages({
  visibleFor: (time: string) => `visible for ${time}`
})

export const motionEditors = messages({
  aPixelCountsAs: (level: number) =>
    `A pixel counts as changed when it differs from the learned background by more than ${level.toFixed(1)} of 255 levels. A cell is in motion when a fifth of it has changed.`,
  cellsInMotion: 'Cells that must be in motion',
  ofTheCells: 'Of the painted cells. The dashed line of the curve shows it.',
  onDelay: 'On-delay',
  howLongMotion: 'How long there must be enough motion.',
  offDelay: 'Off-delay',
  howLongWithout: 'How long without motion before a new trigger is possible.'
})

export const movingSentence = messages({
  moves: (cells: string) =>
    `{what} in {name}: {share} of ${cells} moves, {sensitivity}, for {delay}`,
  shareOfTheCells: 'Share of the cells',
  delays: 'Delays'
})

export const staysChart = messages({
  howLong: (stays: number, passing: number, more: number, long: number) =>
    `How long ${count(stays, 'target')} stay: ${passing} pass by, ${more} stay; ${long} reach the dwell`,
  passBy: (n: number) => `${n} pass by`,
  stay: (n: number) => `${n} stay`,
  reach: (n: number, stays: number) => `${n} of ${stays} reach the dwell`
})

export const zoneEditors = messages({
  howLongInZone: 'How long a target must stay in the zone.',
  selectAClipTo: 'Select a clip to see how long its targets stay.',
  inThisClipNo: 'In this clip no target of these classes is in the zone.',
  passersBy: (usual: string) => `Passers-by take up to ${usual}.`,
  setTo: (dwell: string) => `Set to ${dwell}`,
  countFirstSeen: 'Count targets first seen inside',
  sameTime: 'Targets at the same time',
  oneEach: '1: each target counts alone. More: one trigger once that many are in the zone together.'
})

export const stayChips = messages({
  numberTogether: 'Number together',
  atATime: (n: number) => `${n} at a time`,
  for: (time: string) => `for ${time}`
})

export const zoneSentence = messages({
  whoDoesZoneOverlap: '{who} {does} {zone}, {overlap} in',
  whoDoesZoneOverlapOut: '{who} {does} {zone}, {overlap} out',
  whatCounts: 'What counts',
  inTheZone: 'in the zone',
  outOfTheZone: 'out of the zone'
})

export const sentence = messages({
  addCondition: 'Add condition',
  armed: (schedule: string) => `armed ${schedule}`,
  notWithin: (time: string) => `not within ${time} of the last trigger`,
  everyTime: 'every time',
  actions: 'Actions',
  noActions: 'No actions',
  withActions: (names: string) => `Actions: ${names}`
})

import { messages } from '../../messages.ts'

export const words = messages({
  theWholeBody: 'the whole body',
  threeQuartersOfTheBody: 'three quarters of the body',
  halfTheBody: 'half the body',
  aQuarterOfTheBody: 'a quarter of the body',
  aTenthOfTheBody: 'a tenth of the body',
  ofTheBody: (need: number) => `${need} % of the body`,
  or: (words: string, more: string | undefined) => `${words} or ${more}`,
  targetOfAnyClass: 'target of any class',
  toMTall: (minMetres: number, maxMetres: number) => `${minMetres} to ${maxMetres}\u00a0m tall`,
  atLeastMTall: (minMetres: number) => `at least ${minMetres}\u00a0m tall`,
  atMostMTall: (maxMetres: number) => `at most ${maxMetres}\u00a0m tall`,
  betweenAndOfThePicture: (min: string, max: string) => `between ${min} and ${max} of the picture`,
  largerThanOfThePicture: (min: string) => `larger than ${min} of the picture`,
  atMostOfThePicture: (max: string) => `at most ${max} of the picture`,
  ofAnySize: 'of any size',
  together: (atLeast: number) => `${atLeast} together:`,
  theWholePicture: 'the whole picture',
  ofCells: (selected: number, all: number) => `${selected} of ${all} cells`
})

export const stayWords = messages({
  of: (atLeast: number, d: string, verb: string) =>
    `${atLeast > 1 ? `${atLeast} of ` : ''}${d} ${verb} `,
  for: (dwellSeconds: number, dwellSeconds2: string, sensitivity: string) =>
    `${dwellSeconds ? ` for ${dwellSeconds2}` : ''}, ${sensitivity}`
})

export const bodyShare = messages({
  ofTheBody: (value: number) => `${value} % of the body must be over the line`
})

export const editors = messages({
  rename: (name: string) => `Rename ${name}`,
  unknownNotToldApartYet: 'unknown (not told apart yet)',
  changeTheClasses: 'Change the classes',
  noneChosenEveryTargetCounts: 'None chosen: every target counts.',
  classfilter: 'ClassFilter',
  changeTheSensitivity: 'Change the sensitivity',
  mustBe: (sensitivity: string, where: string) => `${sensitivity} must be ${where}.`,
  confirmtime: 'ConfirmTime',
  howLongATargetMust: 'How long a target must have held its class before it counts.',
  changeTheConfirmTime: 'Change the confirm time',
  holdoff: 'HoldOff',
  afterATriggerNoneFor: 'After a trigger, none for this long. 0: each one counts.',
  changeTheHoldOff: 'Change the hold-off'
})

export const sizesChart = messages({
  heightsOfTargetsByDistance: (sizes: number, wanted: number) =>
    `Heights of ${sizes} targets by distance; ${wanted} of the wanted classes come to the shape`,
  heightOfEachTargetBy:
    'Height of each target, by where its feet are: far at the left, near at the right. Dark: at the shape.'
})

export const sizeEditor = messages({
  changeTheSizeFrames: 'Change the size frames',
  sizeInMetres: 'Size in metres',
  sizeInFrames: 'Size in frames',
  framesOnThePicture: 'Frames on the picture',
  metres: 'Metres',
  withAClipItIs: 'With a clip it is shown here how large its targets are.',
  thisClipHasNoTargets: 'This clip has no targets.',
  fitTheSizeFramesTo: 'Fit the size frames to the clip',
  fitToTheClip: (targets: number) =>
    `Fit to the clip (${targets} ${targets === 1 ? 'target' : 'targets'} at the shape)`,
  noneOfTheWantedClasses:
    'None of the wanted classes comes to the shape, so there is nothing to fit to.',
  whatFitsIntoTheSmallest:
    'What fits into the smallest frame is too small, what does not fit into the largest too large.',
  f: 'F',
  drawsThemOnThePicture: 'draws them on the picture.',
  minimumsize: 'MinimumSize',
  maximumsize: 'MaximumSize',
  smallestFrame: 'Smallest frame',
  largestFrame: 'Largest frame',
  atLeastTall: 'At least, tall',
  atMostTall: 'At most, tall'
})

export const chips = messages({
  classes: 'Classes',
  seenFor: 'seen for',
  sizeFrames: 'Size frames'
})

export const motionEditors = messages({
  cellsThatMustBeIn: 'Cells that must be in motion',
  changeTheShareOfCells: 'Change the share of cells',
  ofTheCellsThatAre: 'Of the cells that are painted on. The dashed line of the curve shows it.',
  onDelay: 'On-delay',
  forHowLongThereMust: 'For how long there must be enough motion.',
  changeTheOnDelay: 'Change the on-delay',
  offDelay: 'Off-delay',
  afterHowLongWithoutIt: 'After how long without it a new trigger may fall.',
  changeTheOffDelay: 'Change the off-delay'
})

export const movingSentence = messages({
  in: 'in',
  shareOfTheCells: 'Share of the cells',
  ofMovesAt: (d: string) => `of ${d} moves, at`,
  sensitivity2: (sensitivity: number) => `sensitivity ${sensitivity}`,
  delays: 'Delays'
})

export const delayEditor = messages({
  changeTheDelay: 'Change the delay'
})

export const staysChart = messages({
  howLongTargetsStayPass: (stays: number, passing: number, more: number, long: number) =>
    `How long ${stays} targets stay: ${passing} pass by, ${more} stay; ${long} reach the dwell`,
  passBy: (passing: number) => `${passing} pass by`,
  stay: (more: number) => `${more} stay;`,
  ofReachTheDwell: (stays: number) => `of ${stays} reach the dwell`
})

export const zoneEditors = messages({
  makeIt: (kind: string) => `Make it ${kind}`,
  changeTheDwell: 'Change the dwell',
  timethreshold: 'TimeThreshold',
  howLongATargetMust: 'How long a target must stay in the zone.',
  withAClipItIs: 'With a clip it is shown here how long its targets stay.',
  onThisClipNobodyOf: 'On this clip nobody of these classes is in the zone.',
  passersByTakeUpTo: (usual: string) => `Passers-by take up to ${usual}.`,
  setItTo: (dwell: string) => `Set it to ${dwell}`,
  countWhoIsInIt: 'Count who is in it when first seen',
  changeWhoCounts: 'Change who counts',
  targetsAtTheSameTime: 'Targets at the same time',
  changeHowMany: 'Change how many',
  n1EachTargetCountsAlone:
    '1: each target counts alone. More: one trigger when so many have dwelt in the zone together.'
})

export const stayChips = messages({
  howManyTogether: 'How many together'
})

export const zoneSentence = messages({
  whatCounts: 'What counts',
  with: ', with',
  theZone: (where: string) => `${where} the zone`,
  in: 'in',
  out: 'out'
})

export const sentence = messages({
  armed: ', armed ',
  notWithinOfTheLast: (holdOffSeconds: string) => `not within ${holdOffSeconds} of the last`,
  everyTime: 'every time',
  setsOff: '; sets off',
  actions: 'Actions'
})

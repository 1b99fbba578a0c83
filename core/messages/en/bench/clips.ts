import { messages } from '../../messages.ts'

export const allClips = messages({
  allClipsOfThisCamera: 'All clips of this camera',
  clip: 'Clip',
  allTogether: 'All together',
  readingTheOtherClips: 'Reading the other clips …',
  nothingIsDrawnYetThat: 'Nothing is drawn yet that could trigger.'
})

export const makeClip = messages({
  makeAClip: 'Make a clip',
  s: (time: string) => `${time} s`,
  momentOfThePreview: 'Moment of the preview',
  chooseSomebodyToSeeAnd: 'Choose somebody to see and change the way.',
  clickOnTheGroundTo:
    'Click on the ground to lengthen the way, drag its points, double-click one to take it out.',
  startFrom: 'Start from',
  length: 'Length',
  light: 'Light',
  fault: 'Fault',
  from: 'from',
  faultBegins: 'Fault begins',
  to: 'to',
  faultEnds: 'Fault ends',
  whoComes: 'Who comes',
  actor: (value: number) => `Actor ${value}`,
  actorComesAt: (value: number) => `Actor ${value} comes at`,
  mask: 'mask',
  removeActor: (value: number) => `Remove actor ${value}`,
  addSomebody: 'Add somebody',
  leave: 'Leave',
  makeTheClip: 'Make the clip'
})

export const clipBar = messages({
  minS: (value: number, value2: number) => `${value} min ${value2} s`,
  framesSTarget: (clip: string, value: number, targets: number) =>
    `${clip} · ${value} frames/s · ${targets} ${targets === 1 ? 'target' : 'targets'}`,
  beingAnalysed: 'being analysed',
  notAnalysed: 'not analysed',
  clip: 'Clip',
  chooseAClip: 'Choose a clip',
  allClipsWithTheirCounts: 'All clips with their counts',
  thisClip: 'This clip',
  nameAndStartOfThis: 'Name and start of this clip',
  addAClip: 'Add a clip',
  makeAClip: 'Make a clip',
  clipFile: 'Clip file',
  sending: 'Sending',
  lookingAt: 'Looking at',
  theStartMustBeA: 'The start must be a date and a time.',
  remove: (name: string) => `Remove ${name}?`,
  theClipItsTargetsAnd: 'The clip, its targets and its runs go for good. Detections stay.',
  removeIt: 'Remove it',
  startOnTheSitesClock: (timeZone: string) => `Start, on the site’s clock (${timeZone})`,
  removeTheClip: 'Remove the clip'
})

export const clipStage = messages({
  noClipOfThisCamera: 'No clip of this camera yet',
  dropAVideoFileHere:
    'Drop a video file here, or choose one. Wardoptic finds who and what moves in it; every line you draw is tried on it at once.',
  chooseAVideoFile: 'Choose a video file',
  makeAClipFromA: 'Make a clip from a script',
  drawOnItsLivePicture: 'Draw on its live picture',
  hasNotBeenAnalysed: (name: string) => `${name} has not been analysed`,
  itsAnalysisWasStoppedWithout:
    'Its analysis was stopped. Without targets nothing can be tried on it.',
  analyseIt: 'Analyse it',
  making: 'Making',
  analysing: 'Analysing',
  starting: 'Starting'
})

export const referenceTool = messages({
  theReferenceIsThePicture:
    'The reference is the picture as it should be, learned at the clip’s start',
  andAgainAt: (moments: string) => `and again at ${moments}`,
  itFollowsSlowLight: '. It follows slow light by itself.',
  learnItAnewHere: 'Learn it anew here',
  onlyAtTheStart: 'Only at the start'
})

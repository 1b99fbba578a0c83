import { messages } from '../../messages.ts'

export const allClips = messages({
  allClipsOfThisCamera: 'All clips',
  clip: 'Clip',
  allTogether: 'Total',
  readingTheOtherClips: 'Loading the other clips…',
  nothingIsDrawnYetThat: 'No detections yet.'
})

export const makeClip = messages({
  makeAClip: 'Make clip',
  s: (time: string) => `${time} s`,
  momentOfThePreview: 'Moment of the preview',
  chooseSomebodyToSeeAnd: 'Select someone to see and change the path.',
  clickOnTheGroundTo:
    'Click the ground to extend the path. Drag a point to move it; double-click to remove it.',
  startFrom: 'Start from',
  length: 'Length',
  light: 'Light',
  fault: 'Fault',
  from: 'from',
  faultBegins: 'Fault begins',
  to: 'to',
  faultEnds: 'Fault ends',
  whoComes: 'Targets',
  actor: (value: number) => `Target ${value}`,
  at: 'at',
  actorComesAt: (value: number) => `Target ${value} starts at`,
  mask: 'mask',
  removeActor: (value: number) => `Remove target ${value}`,
  addSomebody: 'Add target',
  makeTheClip: 'Make clip'
})

export const clipBar = messages({
  minS: (value: number, value2: number) => `${value} min ${value2} s`,
  framesSTarget: (clip: string, value: number, targets: number) =>
    `${clip} · ${value} frames/s · ${targets} ${targets === 1 ? 'target' : 'targets'}`,
  beingAnalysed: 'being analysed',
  notAnalysed: 'not analysed',
  clip: 'Clip',
  chooseAClip: 'Select a clip',
  allClipsWithTheirCounts: 'All clips…',
  thisClip: 'This clip',
  nameAndStartOfThis: 'Name and start…',
  addAClip: 'Add clip',
  makeAClip: 'Make clip',
  clipFile: 'Clip file',
  sending: 'Sending',
  lookingAt: 'Analysing',
  theStartMustBeA: 'Enter a date and a time.',
  remove: (name: string) => `Remove ${name}?`,
  theClipItsTargetsAnd: 'Deletes the clip with its targets and runs. Detections stay.',
  startOnTheSitesClock: (timeZone: string) => `Start, site time (${timeZone})`,
  removeTheClip: 'Remove clip'
})

export const clipStage = messages({
  noClipOfThisCamera: 'No clips of this camera',
  dropAVideoFileHere: 'Drop a video here to test your detections on it.',
  chooseAVideoFile: 'Choose video…',
  makeAClipFromA: 'Make a clip from the simulated scene',
  drawOnItsLivePicture: 'Draw on the live picture',
  hasNotBeenAnalysed: (name: string) => `${name} has not been analysed`,
  itsAnalysisWasStoppedWithout: 'Its analysis was stopped. Analyse to test detections.',
  analyseIt: 'Analyse',
  making: 'Making',
  analysing: 'Analysing',
  starting: 'Starting'
})

export const referenceTool = messages({
  theReferenceIsThePicture: 'Reference picture from the start of the clip',
  andAgainAt: (moments: string) => `and from ${moments}`,
  itFollowsSlowLight: '. It follows slow changes of light.',
  learnItAnewHere: 'Use this moment',
  onlyAtTheStart: 'Start of clip only'
})

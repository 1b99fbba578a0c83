import { count } from '../../format.ts'
import { messages } from '../../messages.ts'

export const allClips = messages({
  allClips: 'All clips',
  clip: 'Clip',
  total: 'Total',
  readingTheOtherClips: 'Loading the other clips…',
  noDetectionsYet: 'No detections yet.'
})

export const weathers = messages({
  wind: 'Wind',
  rain: 'Rain',
  snow: 'Snow',
  fog: 'Fog',
  clouds: 'Clouds'
})

export const makeClip = messages({
  makeClip: 'Make clip',
  s: (time: string) => `${time} s`,
  momentOfThePreview: 'Moment of the preview',
  selectSomeoneToSee: 'Select someone to see and change the path.',
  startFrom: 'Start from',
  length: 'Length',
  light: 'Light',
  fault: 'Fault',
  from: 'from',
  faultBegins: 'Fault begins',
  to: 'to',
  faultEnds: 'Fault ends',
  targets: 'Targets',
  target: (value: number) => `Target ${value}`,
  at: 'at',
  targetStartsAt: (value: number) => `Target ${value} starts at`,
  mask: 'mask',
  removeTarget: (value: number) => `Remove target ${value}`,
  addTarget: 'Add target'
})

export const clipBar = messages({
  minS: (value: number, value2: number) => `${value} min ${value2} s`,
  framesS: (clip: string, value: number, targets: number) =>
    `${clip} · ${value} frames/s · ${count(targets, 'target')}`,
  beingAnalysed: 'being analysed',
  notAnalysed: 'not analysed',
  clip: 'Clip',
  selectAClip: 'Select a clip',
  allClips: 'All clips…',
  thisClip: 'This clip',
  nameAndStartOfThis: 'Name and start…',
  addClip: 'Add clip',
  makeClip: 'Make clip',
  clipFile: 'Clip file',
  sending: 'Sending',
  analysing: 'Analysing',
  remove: (name: string) => `Remove ${name}?`,
  theClipItsTargetsAnd: 'Deletes the clip with its targets and runs. Detections stay.',
  startSiteTime: (timeZone: string) => `Start, site time (${timeZone})`,
  removeTheClip: 'Remove clip'
})

export const recordClip = messages({
  recordClip: 'Record clip',
  recordAClip: 'Record a clip',
  takesTheNext: 'Records the live picture and analyses it.',
  length: 'Length',
  lengthOf: (s: number) => (s < 60 ? `${s} s` : `${s / 60} min`),
  record: 'Record',
  liveAt: (time: string) => `Live, ${time}`,
  waitingForThePicture: 'Waiting for the picture…',
  recordingOf: (s: number, of: number) => `Recording ${s} of ${of} s`
})

export const clipStage = messages({
  noClipOfThisCamera: 'No clips of this camera',
  dropAVideoHere: 'Drop a video here to test your detections on it.',
  chooseVideo: 'Choose video…',
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
  andFrom: (moments: string) => `and from ${moments}`,
  itFollowsSlowLight: '. It follows slow changes of light.',
  useThisMoment: 'Use this moment',
  onlyAtTheStart: 'Start of clip only'
})

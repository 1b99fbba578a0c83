import { aboutDuration, count } from '../../format.ts'
import { messages } from '../../messages.ts'

/** What is left of something, where it is known. */
const timeLeft = (left: number | null): string =>
  left === null ? '' : `, about ${aboutDuration(left)} left`

export const clips = messages({
  recordingRuns: 'This camera is being recorded already.',
  recordedTooFew: 'too few pictures came to make a clip',
  recordingNotWritten: (why: string) => `the recording could not be written: ${why}`,
  analysed: (targets: number, rows: number, frames: number, options: string) =>
    `${count(targets, 'target')}, ${count(rows, 'row')}, ${count(frames, 'frame')}; to evaluate: ${options}\n`,
  hasNoSimulatedSceneClips: 'has no simulated scene; clips can only be made for simulated cameras',
  mustBeSecondsFromThe: 'must be seconds from the start of the clip',
  mustBeAVideoFile: 'must be a video file, sent as application/octet-stream',
  theFileOfIsMissing: (name: string, name2: string) =>
    `The file ${name} of ${name2} is missing, empty or cut. Analyse the clip again.`,
  thisClipIsBeingAnalysed: 'This clip has no analysis yet. Choose a reference afterwards.',
  hasSAndTheClip: (late: number, length: number) =>
    `is ${late} s, but the clip ends at ${length} s`,
  theClipIsLargerThan: (value: number) =>
    `The clip is larger than ${value} MB, the limit of this server (--clip-limit).`,
  thisClipIsNotBeing: 'This clip is not being analysed.',
  thisClipIsBeingAnalysed2: 'This clip is already being analysed.',
  theClipCouldNotBe: (n: string) => `The clip can’t be converted (${n}).`,
  theClipHasNoPicture: (seconds: string) => `The clip has no picture at ${seconds} s.`,
  theStretchCouldNotBe: (n: string) => `The part can’t be cut out (${n}).`,
  gridIsMust: (text: string) => `--grid is "${text}"; must be COLUMNSxROWS, such as 22x18`,
  giveOneClipNotN: (positionals: number, usage: string) =>
    `give one clip, not ${positionals}\n${usage}`,
  outIsMissingN: (usage: string) => `--out is missing\n${usage}`,
  hasNoPictureThatCan: (n: string) => `has no picture that can be decoded${n}; choose another file`,
  isCutOffItSays: (expected: string, done: string) =>
    `is cut off: it should last ${expected} s, but ends after ${done} s. Copy or upload it again`,
  couldNotBeDecodedTo: (n: string, done: string) =>
    `could not be decoded to its end (${n}); pictures end after ${done} s`,
  isOfPixelsAnd: (value: number, value2: number, width: number, height: number) =>
    `is ${value} × ${value2} pixels, but the picture is ${width} × ${height}; choose a new reference`,
  isNotThere: 'does not exist',
  cannotBeRead: (code: string | undefined) => `cannot be read (${code})`,
  isEmptyChooseAVideo: 'is empty; choose a video file',
  isCutOffItsIndex: 'is cut off: its index is missing. Copy or upload it again',
  isNotAVideoThat:
    'is not a video that can be read; choose an AVI, MP4, MOV, MKV, WebM, MPEG or similar file',
  hasNoPicturesInIt: 'has no video in it; choose a video file',
  isPixelsAtMost: (width: number, height: number) =>
    `is ${width} × ${height} pixels; at most 8192 × 4320 are read`,
  hasNoUsableFrameRate: 'has no usable frame rate; choose a file with one',
  isNotInstalled: (program: string, installHint: string) =>
    `${program} is not installed; ${installHint}`,
  tooManyPicturesAreAsked: 'Too many pictures at once. Try again in a moment.',
  detectorIsMissing: (name: string) =>
    `The files of the trained detector (${name}) are missing. Install the packages again with npm ci, or analyse with --detector off.`,
  detectorIsOnOrOff: (text: string) => `--detector is "${text}"; must be on or off`,
  installItWithAptGetInstall: 'install it with: apt-get install ffmpeg',
  ofFrames: (done: number, expected: number | string, left: number | null) =>
    `\r${done} of ${expected} frames${timeLeft(left)}    `,
  willTake: (left: number) => `The analysis will take about ${aboutDuration(left)} here.\n`,
  takingReports: 'Taking what the camera reported',
  isOfReports: (name: string) =>
    `${name} is what the camera reported. Only some of its pictures were kept: there is nothing to analyse.`,
  analysisFailed: 'The analysis failed. See the server log.',
  painting: (done: number, frames: number) => `Painting frame ${done} of ${frames}`,
  converting: 'Converting',
  trackingFrame: (done: number, expected: null | number, left: number | null) =>
    `Tracking targets, frame ${done}${expected ? ` of ${expected}` : ''}${timeLeft(left)}`,
  tracking: 'Tracking targets',
  waiting: 'Waiting for its turn'
})

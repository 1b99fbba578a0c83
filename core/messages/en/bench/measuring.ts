import { messages } from '../../messages.ts'

export const draft = messages({
  person: (value: number) => `Person ${value} `,
  corner: (value: number) => `Corner ${value} `,
  theMarks: 'The marks '
})

export const sceneLayer = messages({
  horizon: 'horizon',
  pxMOrMore: (band: string, least: number) => `${band}, ${least} px/m or more`,
  under125PxM: 'under 12.5 px/m',
  mMAway: (metres: string, distance: string) => `${metres} m, ${distance} m away`
})

export const useMeasuring = messages({
  measureTheScene: 'Measure the scene'
})

export const measurePanel = messages({
  measuringTheScene: 'Measuring the scene',
  leaveMeasuring: 'Leave measuring',
  fromPeople: 'From people',
  fromARectangle: 'From a rectangle',
  cameraHangsAt: 'Camera hangs at',
  m: (height: string) => `${height} m`,
  looksDownBy: 'looks down by',
  seesUpAndDown: 'sees, up and down',
  marksLieOfThe: (value: string) =>
    `Marks lie ${value} % of the picture’s height from where this camera would see them. Drag the figure over the picture: it keeps its height.`,
  takeTheLensAsUsual: (value: number) => `Take the lens as usual (${value}° high)`,
  keepThisMeasurement: 'Keep this measurement',
  leave: 'Leave',
  nowTheTopOf: (foot: boolean) =>
    `${foot ? 'Now the top of the same person’s head.' : 'Click where somebody stands, then the top of the head. Three people, nearer and farther away; two when the lens is known.'} By keyboard: arrows and`,
  backspace: 'Backspace',
  takesOneBack: 'takes one back.',
  takeThePeopleOfThis: 'Take the people of this clip',
  peopleMarked: 'People marked',
  heightOfPerson: (value: number) => `Height of person ${value}`,
  m2: (value: string, i: string) => `${value}${i} m`,
  removePerson: (value: number) => `Remove person ${value}`,
  foundByTheAnalysisEach:
    'Found by the analysis, each taken to be 1.75 m tall. Their boxes cannot tell the lens: set it if you know it; heights hold all the same.',
  lensIfKnown: 'Lens, if known',
  high: '° high',
  unknown: 'unknown',
  clickTheFourCornersOf:
    'Click the four corners of something square on the ground, in order around: a parking bay, a slab, a court. Say how long its first side and the next one are.',
  firstSide: 'First side',
  nextSide: 'Next side',
  markTheCornersAgain: 'Mark the corners again',
  scene: 'Scene',
  measuredTheCameraHangsAt: (height: string, tilt: string) =>
    `Measured: the camera hangs at ${height} m and looks down by ${tilt}°. Sizes can be in metres.`,
  groundGridAndFigure: 'Ground grid and figure',
  bandsOfPixelDensity: 'Bands of pixel density',
  notMeasuredYetThreePeople:
    'Not measured yet. Three people of known height, or a rectangle on the ground, are enough for sizes in metres.',
  measureItAgain: 'Measure it again',
  measureTheScene: 'Measure the scene'
})

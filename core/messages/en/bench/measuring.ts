import { messages } from '../../messages.ts'

export const draft = messages({
  person: (value: number) => `Person ${value}`,
  corner: (value: number) => `Corner ${value}`
})

export const sceneLayer = messages({
  horizon: 'horizon',
  pxMOrMore: (band: string, least: number) => `${band}, ${least} px/m or more`,
  under125Px: 'under 12.5 px/m',
  mMAway: (metres: string, distance: string) => `${metres} m, ${distance} m away`
})

export const measurePanel = messages({
  calibrate: 'Calibrate',
  closeCalibration: 'Close calibration',
  fromPeople: 'From people',
  fromARectangle: 'From a rectangle',
  cameraHeight: 'Camera height',
  m: (height: string) => `${height} m`,
  tilt: 'tilt',
  verticalView: 'vertical view',
  marksLieOfThe: (value: string) =>
    `Marks are ${value}% of the picture height off. Drag the figure over the picture to check its height.`,
  useATypicalLens: (value: number) => `Use a typical lens (${value}° vertical)`,
  saveCalibration: 'Save calibration',
  byKeyboardArrowsAnd: (foot: boolean) =>
    `${foot ? 'Now click the top of the same person’s head.' : 'Click a person’s feet, then the top of the head. Mark three people, near and far; two when the lens is known.'} By keyboard: arrows and`,
  backspace: 'Backspace',
  removesOne: 'removes one.',
  takeThePeopleOfThis: 'Use the people in this clip',
  peopleMarked: 'People marked',
  heightOfPerson: (value: number) => `Height of person ${value}`,
  m2: (value: string, i: string) => `${value}${i} m`,
  removePerson: (value: number) => `Remove person ${value}`,
  foundByTheAnalysisEach:
    'Found by the analysis, assumed 1.75 m tall. Enter the lens if you know it.',
  lensIfKnown: 'Lens, if known',
  vertical: '° vertical',
  unknown: 'unknown',
  clickTheFourCornersOf:
    'Click the four corners of a rectangle on the ground, in order: a parking bay, a slab, a court. Enter its first and next side.',
  firstSide: 'First side',
  nextSide: 'Next side',
  clearCorners: 'Clear corners',
  scene: 'Scene',
  calibratedCameraHeightM: (height: string, tilt: string) =>
    `Calibrated: camera height ${height} m, tilt ${tilt}°. Sizes can be in metres.`,
  groundGridAndFigure: 'Ground grid and figure',
  bandsOfPixelDensity: 'Pixel density',
  notMeasuredYetThreePeople:
    'Not calibrated. Mark three people of known height, or a rectangle on the ground.',
  recalibrate: 'Recalibrate'
})

import { messages } from '../../messages.ts'

export const document = messages({
  draw: (detections: string) => `Draw ${detections}`,
  delete: (name: string) => `Delete ${name}`,
  newHours: (name: string) => `New hours ${name}`
})

export const benchBar = messages({
  compare: 'Compare',
  asIfLiveAtThe: 'As if live, at the clip’s pace',
  tenTimesAsFast: 'Ten times as fast',
  asFastAsItGoes: 'As fast as it goes',
  runAsLive: 'Run as live',
  exportThisCamerasPlan: 'Export this camera’s plan',
  exportThePlan: 'Export the plan',
  whoChangedWhat: 'Who changed what',
  history: 'History',
  keys: 'Keys'
})

export const contexts = messages({
  isReadOutsideOf: (what: string) => `${what} is read outside of the Bench`,
  whatIsDrawn: 'What is drawn',
  whatIsOnShow: 'What is on show',
  whatIsSelected: 'What is selected',
  whatWasEvaluated: 'What was evaluated'
})

export const keysHelp = messages({
  drawALineClickIts:
    'Draw a line: click its vertices, or move the cross with the arrows and set one with Space',
  drawAnIgnoreAreaIn: 'Draw an ignore area, in which nothing counts',
  sizeFramesOfTheSelected: 'Size frames of the selected detection on the picture, or off it',
  whileAVertexIsDrawn: 'While a vertex is drawn or dragged: only in steps of 45°',
  takeBackTheLastVertex: 'Take back the last vertex while drawing',
  esc: 'Esc',
  leaveTheDrawingTheVertex: 'Leave: the drawing, the vertex, the target, the detection',
  nextVertexWithThePicture: 'Next vertex, with the picture in focus',
  arrows: 'Arrows',
  del: 'Del',
  deleteTheVertexOrThe: 'Delete the vertex, or the detection',
  theNextOfTheShapes: 'The next of the shapes that lie over one another',
  theDetectionBeforeTheDetection: 'The detection before, the detection after',
  turnALinesDirectionOver: 'Turn a line’s direction over',
  cutTheShapeInTwo: 'Cut the shape in two at the chosen vertex',
  playOrPause: 'Play or pause',
  oneFrameBackOneFrame: 'One frame back, one frame on',
  redo: 'Redo',
  theseKeys: 'These keys',
  keysOfTheBench: 'Keys of the Bench'
})

export const benchKeys = messages({
  move: (name: string) => `Move ${name}`,
  moveAVertexOf: (name: string) => `Move a vertex of ${name}`,
  deleteAVertexOf: (name: string) => `Delete a vertex of ${name}`,
  addAVertexTo: (name: string) => `Add a vertex to ${name}`,
  paintCellsOf: (name: string) => `Paint cells of ${name}`
})

export const bench = messages({
  timeline: 'Timeline'
})

export const benchPlace = messages({
  openingTheBench: 'Opening the Bench …'
})

export const evaluation = messages({
  noClipHasBeenGiven: 'No clip has been given yet.'
})

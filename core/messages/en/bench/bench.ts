import { messages } from '../../messages.ts'

export const benchBar = messages({
  compare: 'Compare',
  asIfLiveAtThe: 'Real time',
  tenTimesAsFast: 'Ten times as fast',
  asFastAsItGoes: 'As fast as possible',
  runAsLive: 'Replay as live…',
  exportThisCamerasPlan: 'Export this camera’s plan',
  exportThePlan: 'Export the plan',
  whoChangedWhat: 'Edit history',
  history: 'History',
  keys: 'Keyboard shortcuts'
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
    'Draw a line: click its vertices, or move the cross with the arrows and press Space',
  drawAnIgnoreAreaIn: 'Draw an ignore area',
  sizeFramesOfTheSelected: 'Show or hide the size limits of the selected detection',
  whileAVertexIsDrawn: 'While drawing or dragging a vertex: steps of 45°',
  takeBackTheLastVertex: 'Remove the last vertex while drawing',
  esc: 'Esc',
  leaveTheDrawingTheVertex: 'Leave the drawing, vertex, target or detection',
  nextVertexWithThePicture: 'Next vertex, with the picture in focus',
  arrows: 'Arrows',
  del: 'Del',
  deleteTheVertexOrThe: 'Delete the vertex, or the detection',
  theNextOfTheShapes: 'Next of several overlapping shapes',
  theDetectionBeforeTheDetection: 'Previous, next detection',
  turnALinesDirectionOver: 'Reverse a line’s direction',
  cutTheShapeInTwo: 'Split the shape at the selected vertex',
  playOrPause: 'Play or pause',
  oneFrameBackOneFrame: 'Previous, next frame',
  theseKeys: 'Keyboard shortcuts',
  keysOfTheBench: 'Keyboard shortcuts'
})

export const bench = messages({
  timeline: 'Timeline'
})

export const evaluation = messages({
  noClipHasBeenGiven: 'No clip yet.'
})

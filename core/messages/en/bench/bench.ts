import { messages } from '../../messages.ts'

export const benchBar = messages({
  compare: 'Compare',
  realTime: 'Real time',
  tenTimesAsFast: 'Ten times as fast',
  asFastAsPossible: 'As fast as possible',
  replayAsLive: 'Replay as live…',
  pictureFills: 'Picture fills the window (P)',
  exportThisCamerasPlan: 'Export this camera’s plan',
  exportThePlan: 'Export the plan',
  editHistory: 'Edit history',
  history: 'History',
  keyboardShortcuts: 'Keyboard shortcuts'
})

export const benchPlace = messages({
  addOneFirst: 'Add a camera on the site page, or find devices on the network.',
  noSuchCamera: 'No such camera',
  itMayHaveBeenDeleted: 'The site has no camera at this address. It may have been deleted.'
})

export const contexts = messages({
  isReadOutsideOf: (what: string) => `${what} is read outside of the Bench`,
  whatIsDrawn: 'What is drawn',
  whatIsOnShow: 'What is on show',
  whatIsSelected: 'What is selected',
  whatWasEvaluated: 'What was evaluated'
})

export const keysHelp = messages({
  drawAZoneIn: 'Draw a zone in the same way; its sentence says which kind',
  finish: 'Finish the shape; on a motion grid, switch the selected cell',
  nudge:
    'Nudge the vertex or the whole shape; with Shift ten times as far. On a motion grid, move from cell to cell',
  addVertex: 'Add a vertex after the selected one; a double click on an outline adds one there',
  hideLock: 'Hide the detection on the picture; lock its shape',
  fills: 'Picture as large as the window, and back',
  zoom: 'Zoom in, zoom out, whole picture; the wheel does the same. Ctrl+arrows or the middle button move the picture',
  nextTrigger:
    'Next trigger, next near miss of the selected detection; with Shift the previous one',
  loop: 'On the time scale: loop a range; Ctrl+wheel zooms the time scale',
  shift: 'Shift',
  enter: 'Enter',
  backspace: 'Backspace',
  tab: 'Tab',
  altClick: 'Alt+click',
  shiftDrag: 'Shift+drag',
  ctrlZ: 'Ctrl+Z',
  ctrlShiftZ: 'Ctrl+Shift+Z',
  drawALineClickIts:
    'Draw a line: click its vertices, or move the cross with the arrows and press Space',
  drawAnIgnoreAreaIn: 'Draw an ignore area',
  sizeFramesOfTheSelected: 'Show or hide the size limits of the selected detection',
  whileDrawingOrDragging: 'While drawing or dragging a vertex: steps of 45°',
  takeBackTheLastVertex: 'Remove the last vertex while drawing',
  esc: 'Esc',
  leaveTheDrawingTheVertex: 'Leave the drawing, vertex, target or detection',
  nextVertexWithThePicture: 'Next vertex, with the picture in focus',
  arrows: 'Arrows',
  del: 'Del',
  deleteTheVertexOrThe: 'Delete the vertex, or the detection',
  nextOfSeveralOverlapping: 'Next of several overlapping shapes',
  previousNextDetection: 'Previous, next detection',
  reverseALinesDirection: 'Reverse a line’s direction',
  splitTheShapeAt: 'Split the shape at the selected vertex',
  playOrPause: 'Play or pause',
  previousNextFrame: 'Previous, next frame',
  keyboardShortcuts: 'Keyboard shortcuts'
})

export const bench = messages({
  timeline: 'Timeline'
})

export const evaluation = messages({
  noClipYet: 'No clip yet.'
})

import { messages } from '../../messages.ts'

export const words = messages({
  size: 'Size',
  numberTogether: 'Number together',
  listOfFaces: 'Face list',
  cellsInMotion: 'Cells in motion',
  cause: 'Cause',
  whatFollows: 'Actions',
  nuisance: 'Nuisance',
  aTrigger: 'A trigger',
  triggers: (times: number) => `${times} triggers`,
  walkOnTheScene: 'Simulated walk',
  stretchOfAClip: 'Part of a clip',
  personOnSite: 'Walk on site'
})

export const checkList = messages({
  workingOutWhatToCheck: 'Working out checks…',
  nothingIsProposedForIt: 'No checks. Add one.',
  everythingThatWasRunWent: 'No failed checks.',
  nothingIsOutOfDate: 'No checks are out of date.',
  moreProposed: (fresh: number) => `${fresh} more proposed`,
  proposedFromItsOwn: (fresh: number) => `${fresh} proposed from its settings`,
  keepThem: 'Add them',
  wouldBeProposedOtherwise: (changed: number) =>
    `${changed} ${changed === 1 ? 'check no longer matches' : 'checks no longer match'} the settings`,
  takeTheNewOnes: 'Update',
  gate: 'Condition',
  mustLetThrough: 'Must trigger',
  asExpected: 'passed',
  notAsExpected: 'failed',
  outOfDate: 'out of date',
  neverRun: 'not run',
  throughPaintedPicturesAnalysedAs: 'Rendered pictures, analysed like any clip',
  throughPictures: 'rendered pictures',
  proposed: 'proposed',
  keep: (name: string) => `Add ${name}`
})

export const checkEditor = messages({
  momentOfTheWalk: 'Moment of the walk',
  clickOnTheGroundTo:
    'Click the ground to extend the path. Drag a point to move it; double-click to remove it.',
  chooseSomebodyToChangeThe: 'Select someone to change the path.',
  addSomebody: 'Add target',
  comesAfter: 'Starts after',
  speed: 'Speed',
  tall: 'Height',
  wearsAMask: 'Wears a mask',
  length: 'Length',
  fault: 'Fault',
  lookedAt: 'Run with',
  asItTrulyIs: 'Exact positions',
  throughPictures: 'Rendered pictures',
  whatToDoOnSite: 'What to do on site',
  atTheSitesClock: 'Site time',
  about: 'Condition',
  notBefore: 'Not before',
  notAfter: 'Not after'
})

export const checkPanel = messages({
  deleted: (name: string) => `${name} deleted`,
  walkThroughPaintedPictures: 'Walk, rendered pictures',
  s: (seconds: string) => `${seconds} s`,
  momentOfTheWalk: 'Moment of the walk',
  run: 'Run',
  walkItLive: 'Walk live',
  onTheBench: 'Open on the Bench',
  delete: (name: string) => `Delete ${name}`,
  thisWalk: 'this walk',
  whatFollows: 'Actions',
  setOff: 'ran',
  notSetOffAsExpected: 'did not run, as expected',
  betweenAndS: (from: string, to: string) => ` from ${from} to ${to} s`,
  andWhatFollowsSet: (acts: number, acts2: boolean, acts3: number) =>
    `; actions: ${acts} ran${acts2 ? `, ${acts3} did not` : ''}`,
  seen: 'Result',
  neverRun: 'Not run yet.',
  outOfDateTheSettings: 'Settings changed since. Run it again.',
  triggers: (seen: number, seen2: string) => ` ${seen} triggers: ${seen2}.`,
  thisCheckIsNoWalk: 'this check is not a walk',
  check: (name: string) => `Check: ${name}`,
  theClipWasStopped: 'the clip was stopped'
})

export const detectionRail = messages({
  detections: 'Detections',
  proposed: (proposed: number) => `${proposed} proposed`,
  noCheck: 'no checks',
  of: (passed: number, own: number) => `${passed} of ${own}`
})

export const newCheck = messages({
  aPersonOnSite: 'Walk on site',
  walkAsSomebodyWouldWho: 'Walk as someone who must trigger it.',
  aWalkOfMyOwn: 'Custom walk'
})

export const provePlace = messages({
  checks: 'Checks',
  walkLive: 'Walk live',
  runAll: 'Run all',
  nothingToProveYet: 'No checks yet',
  onceADetectionIsDrawn:
    'Draw a detection on the Bench. Checks for its settings are then proposed here.',
  checksOf: (name: string) => `Checks of ${name}`,
  workingOutWhatToCheck: 'Working out checks…',
  checksAreProposedFrom: (proposals: number) => `${proposals} checks proposed from the settings`,
  everyGateOnBothSides:
    'Each condition, schedule and output on both sides of its limit, and what must not trigger. Add all, or choose below.',
  keepAll: (length: number | string) => `Add all ${length}`,
  outOfDate: 'Out of date',
  addACheck: 'Add check',
  runThese: 'Run these',
  theCheck: 'Check',
  checks2: 'checks',
  asExpected: 'passed',
  not: 'failed',
  outOfDate2: 'out of date',
  ofTheTriggersThatWere: 'Recall, precision and F1 of the expected triggers',
  recallPrecisionF1: (recall: string, precision: string, f1: string) =>
    `found ${recall} of expected · ${precision} of triggers correct · F1 ${f1}`,
  notAsExpected: 'Failed',
  chooseACheckToSee: 'Select a check to see its expected result, its last result, and why.',
  lastRunS: (value: string) => `Last run: ${value} s`,
  checksRun: 'Checks run',
  of: (done: number, asked: number) => `${done} of ${asked}`,
  stopped: ', stopped',
  goOn: 'Resume',
  sinceBy: (label: string, by: string, since: number, more: number) =>
    ` since “${label}” by ${by}${since > 1 ? ` and ${more} more` : ''}`,
  withoutAChangeOf: ' without a change of settings',
  worseThanTheTimeBefore: 'Newly failed',
  betterThanTheTimeBefore: 'Newly passed'
})

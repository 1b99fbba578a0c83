import { count } from '../../format.ts'
import { messages } from '../../messages.ts'

export const words = messages({
  size: 'Size',
  numberTogether: 'Number together',
  listOfFaces: 'Face list',
  cellsInMotion: 'Cells in motion',
  cause: 'Cause',
  actions: 'Actions',
  nuisance: 'Nuisance',
  aTrigger: 'A trigger',
  triggers: (times: number) => `${times} triggers`,
  simulatedWalk: 'Simulated walk',
  partOfAClip: 'Part of a clip',
  walkOnSite: 'Walk on site'
})

export const checkList = messages({
  workingOutWhatToCheck: 'Working out checks…',
  noChecksAddOne: 'No checks. Add one.',
  noFailedChecks: 'No failed checks.',
  nothingIsOutOfDate: 'No checks are out of date.',
  moreProposed: (fresh: number) => `${fresh} more proposed`,
  proposedFromItsOwn: (fresh: number) => `${fresh} proposed from its settings`,
  addThem: 'Add them',
  theSettings: (changed: number) =>
    `${count(changed, 'check no longer matches', 'checks no longer match')} the settings`,
  update: 'Update',
  condition: 'Condition',
  mustTrigger: 'Must trigger',
  passed: 'passed',
  failed: 'failed',
  outOfDate: 'out of date',
  notRun: 'not run',
  renderedPicturesAnalysedLike: 'Rendered pictures, analysed like any clip',
  renderedPictures: 'rendered pictures',
  proposed: 'proposed',
  add: (name: string) => `Add ${name}`
})

export const checkEditor = messages({
  how: 'How it is made',
  clip: 'Clip',
  clipFrom: 'From',
  clipTo: 'To',
  aTrigger: 'A trigger',
  momentOfTheWalk: 'Moment of the walk',
  selectSomeoneToChange: 'Select someone to change the path.',
  addTarget: 'Add target',
  startsAfter: 'Starts after',
  speed: 'Speed',
  height: 'Height',
  wearsAMask: 'Wears a mask',
  length: 'Length',
  fault: 'Fault',
  runWith: 'Run with',
  exactPositions: 'Exact positions',
  renderedPictures: 'Rendered pictures',
  whatToDoOnSite: 'What to do on site',
  siteTime: 'Site time',
  condition: 'Condition',
  notBefore: 'Not before',
  notAfter: 'Not after'
})

export const checkPanel = messages({
  deleted: (name: string) => `${name} deleted`,
  walkRenderedPictures: 'Walk, rendered pictures',
  s: (seconds: string) => `${seconds} s`,
  momentOfTheWalk: 'Moment of the walk',
  run: 'Run',
  walkItLive: 'Walk live',
  onTheBench: 'Open on the Bench',
  delete: (name: string) => `Delete ${name}`,
  thisWalk: 'this walk',
  actions: 'Actions',
  ran: 'ran',
  didNotRunAs: 'did not run, as expected',
  fromToS: (from: string, to: string) => ` from ${from} to ${to} s`,
  actionsRanDidNot: (acts: number, acts2: boolean, acts3: number) =>
    `; actions: ${acts} ran${acts2 ? `, ${acts3} did not` : ''}`,
  result: 'Result',
  notRunYet: 'Not run yet.',
  settingsChangedSinceRun: 'Settings changed since. Run it again.',
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
  walkOnSite: 'Walk on site',
  walkAsSomeoneWho: 'Walk as someone who must trigger it.',
  customWalk: 'Custom walk'
})

export const provePlace = messages({
  checks: 'Checks',
  walkLive: 'Walk live',
  runAll: 'Run all',
  noChecksYet: 'No checks yet',
  drawADetectionOn:
    'Draw a detection on the Bench. Checks for its settings are then proposed here.',
  checksOf: (name: string) => `Checks of ${name}`,
  workingOutWhatToCheck: 'Working out checks…',
  checksAreProposedFrom: (proposals: number) => `${proposals} checks proposed from the settings`,
  eachConditionScheduleAnd:
    'Each condition, schedule and output on both sides of its limit, and what must not trigger. Add all, or choose below.',
  addAll: (length: number | string) => `Add all ${length}`,
  outOfDate: 'Out of date',
  addCheck: 'Add check',
  runThese: 'Run these',
  check: 'Check',
  checks2: 'checks',
  passed: 'passed',
  failed: 'failed',
  outOfDate2: 'out of date',
  recallPrecisionAndF1: 'Recall, precision and F1 of the expected triggers',
  foundOfExpectedOf: (recall: string, precision: string, f1: string) =>
    `found ${recall} of expected · ${precision} of triggers correct · F1 ${f1}`,
  notAsExpected: 'Failed',
  selectACheckTo: 'Select a check to see its expected result, its last result, and why.',
  lastRunS: (value: string) => `Last run: ${value} s`,
  checksRun: 'Checks run',
  of: (done: number, asked: number) => `${done} of ${asked}`,
  stopped: ', stopped',
  goOn: 'Resume',
  sinceBy: (label: string, by: string, since: number, more: number) =>
    ` since “${label}” by ${by}${since > 1 ? ` and ${more} more` : ''}`,
  withoutAChangeOf: ' without a change of settings',
  newlyFailed: 'Newly failed',
  newlyPassed: 'Newly passed'
})

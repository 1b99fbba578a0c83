import { messages } from '../../messages.ts'

export const words = messages({
  whoCounts: 'Who counts',
  size: 'Size',
  numberTogether: 'Number together',
  armInput: 'Arm input',
  listOfFaces: 'List of faces',
  cellsInMotion: 'Cells in motion',
  cause: 'Cause',
  whatFollows: 'What follows',
  nuisance: 'Nuisance',
  triggers: (times: number) => `${times} triggers`,
  walkOnTheScene: 'Walk on the scene',
  stretchOfAClip: 'Stretch of a clip',
  personOnSite: 'Person on site'
})

export const checkList = messages({
  workingOutWhatToCheck: 'Working out what to check …',
  nothingIsProposedForIt: 'Nothing is proposed for it, and nothing was added.',
  everythingThatWasRunWent: 'Everything that was run went as expected.',
  nothingIsOutOfDate: 'Nothing is out of date.',
  moreProposed: (fresh: number) => `${fresh} more proposed`,
  proposedFromItsOwn: (fresh: number) => `${fresh} proposed, from its own settings`,
  keepThem: 'Keep them',
  wouldBeProposedOtherwise: (changed: number) =>
    `${changed} would be proposed otherwise now, by the settings as they are`,
  takeTheNewOnes: 'Take the new ones',
  gate: 'Gate',
  mustLetThrough: 'Must let through',
  mustNot: 'Must not',
  asExpected: 'as expected',
  notAsExpected: 'not as expected',
  outOfDate: 'out of date',
  neverRun: 'never run',
  throughPaintedPicturesAnalysedAs: 'Through painted pictures, analysed as any others',
  throughPictures: 'through pictures',
  proposed: 'proposed',
  keep: (name: string) => `Keep ${name}`
})

export const checkEditor = messages({
  momentOfTheWalk: 'Moment of the walk',
  clickOnTheGroundTo:
    'Click on the ground to lengthen the way, drag its points, double-click one to take it out.',
  chooseSomebodyToChangeThe: 'Choose somebody to change the way.',
  addSomebody: 'Add somebody',
  comesAfter: 'Comes after',
  speed: 'Speed',
  tall: 'Tall',
  wearsAMask: 'Wears a mask',
  takeOut: 'Take out',
  length: 'Length',
  fault: 'Fault',
  lookedAt: 'Looked at',
  asItTrulyIs: 'As it truly is',
  throughPictures: 'Through pictures',
  whatToDoOnSite: 'What to do on site',
  atTheSitesClock: 'At the site’s clock',
  about: 'About',
  notBefore: 'Not before',
  notAfter: 'Not after',
  cancel: 'Cancel'
})

export const checkPanel = messages({
  deleted: (name: string) => `${name} deleted`,
  walkThroughPaintedPictures: 'Walk, through painted pictures',
  s: (seconds: string) => `${seconds} s`,
  momentOfTheWalk: 'Moment of the walk',
  run: 'Run',
  walkItLive: 'Walk it live',
  change: 'Change',
  onTheBench: 'On the Bench',
  delete: (name: string) => `Delete ${name}`,
  thisWalk: 'this walk',
  whatFollows: 'What follows',
  setOff: 'set off',
  notSetOffAsExpected: 'not set off, as expected',
  betweenAndS: (from: string, to: string) => ` between ${from} and ${to} s`,
  andWhatFollowsSet: (acts: number, acts2: boolean, acts3: number) =>
    `, and what follows: ${acts} set off${acts2 ? `, ${acts3} not` : ''}`,
  seen: 'Seen',
  neverRun: 'Never run.',
  outOfDateTheSettings: 'Out of date: the settings have changed since.',
  triggers: (seen: number, seen2: string) => ` ${seen} triggers: ${seen2}.`,
  thisCheckIsNoWalk: 'this check is no walk',
  check: (name: string) => `Check: ${name}`,
  theClipWasStopped: 'the clip was stopped'
})

export const detectionRail = messages({
  detections: 'Detections',
  proposed: (proposed: number) => `${proposed} proposed`,
  noCheck: 'no check',
  of: (passed: number, own: number) => `${passed} of ${own}`
})

export const newCheck = messages({
  aPersonOnSite: 'A person on site',
  walkAsSomebodyWouldWho: 'Walk as somebody would who must set it off.',
  aWalkOfMyOwn: 'A walk of my own'
})

export const provePlace = messages({
  readingTheChecks: 'Reading the checks …',
  runChecks: 'Run checks',
  checks: 'Checks',
  walkLive: 'Walk live',
  runAll: 'Run all',
  nothingToProveYet: 'Nothing to prove yet',
  onceADetectionIsDrawn:
    'Once a detection is drawn on the Bench, the checks that its settings ask for are proposed here.',
  checksOf: (name: string) => `Checks of ${name}`,
  workingOutWhatToCheck: 'Working out what to check …',
  checksAreProposedFrom: (proposals: number) =>
    `${proposals} checks are proposed, from each detection’s own settings`,
  everyGateOnBothSides:
    'Every gate on both sides of its limit, the hours and outputs on both sides of theirs, and what must not set it off. Keep them all, or take them one by one below.',
  keepAll: (length: number | string) => `Keep all ${length}`,
  outOfDate: 'Out of date',
  addACheck: 'Add a check',
  runThese: 'Run these',
  theCheck: 'The check',
  checks2: 'checks',
  asExpected: 'as expected',
  not: 'not',
  outOfDate2: 'out of date',
  ofTheTriggersThatWere:
    'Of the triggers that were expected, how many came (recall); of those that came, how many were expected (precision)',
  recallPrecisionF1: (recall: string, precision: string, f1: string) =>
    `recall ${recall} · precision ${precision} · F1 ${f1}`,
  notAsExpected: 'Not as expected',
  chooseACheckToSee: 'Choose a check to see what was expected, what came, and which gate decided.',
  lastRunS: (value: string) => `Last run: ${value} s`,
  checksRun: 'Checks run',
  of: (done: number, asked: number) => `${done} of ${asked}`,
  stopped: ', stopped',
  goOn: 'Go on',
  sinceBy: (label: string, by: string, since: number, more: number) =>
    ` since “${label}” by ${by}${since > 1 ? ` and ${more} more` : ''}`,
  withoutAChangeOf: ' without a change of the settings',
  worseThanTheTimeBefore: 'Worse than the time before',
  betterThanTheTimeBefore: 'Better than the time before'
})

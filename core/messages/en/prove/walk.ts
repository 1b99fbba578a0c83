import { messages } from '../../messages.ts'

export const walkFollow = messages({
  came: {
    strobe: 'lit',
    speaker: 'played',
    relay: 'switched',
    buzzer: 'sounding',
    email: 'accepted by the mail server',
    station: 'confirmed by the station',
    webhook: 'accepted',
    popup: 'shown',
    recording: 'recording',
    snapshots: 'taken'
  },
  done: 'done',
  arrived: (what: string, byCamera: boolean, expected: boolean) =>
    `${what}${byCamera ? ' by the camera itself' : ''}${expected ? '' : ', but was not expected'}`,
  asExpected: 'Passed',
  notAsExpected: 'Failed',
  keptAsAProofOf: 'Result saved with this check.',
  notKeptTheWalkIs: 'Result not saved: this walk is new or changed.',
  whatArrives: 'Results',
  triggerOf: (name: string) => `Trigger of ${name}`,
  atSOfTheWalk: (time: string, triggers: number) =>
    `at ${time} s of the walk${triggers > 1 ? `, ${triggers} in all` : ''}`,
  nothingTriggered: 'no trigger',
  noneCame: 'no trigger',
  notYet: 'not yet',
  s: (after: string) => `+${after} s`,
  setsNothingOffIt: (name: string) => `${name} has no actions.`,
  meanwhileAlso: (others: string) => `Also triggered: ${others}.`,
  otherAt: (name: string, time: string) => `${name} at ${time}`,
  thisTarget: 'this target',
  theNearestOfTargets: (targets: number) => `the nearest of ${targets} targets`,
  theCameraReportsNobodyYet: 'The camera reports no target yet.',
  notSetOffAsExpected: (words: string) => `did not run, as expected${words}`,
  didNotCome: 'did not come',
  waitedFor: 'waiting',
  notExpected: (words: string) => `unexpected${words}`
})

export const walkOrder = messages({
  theWalk: 'Walk',
  aTrigger: 'A trigger',
  whereItGoesClickOn:
    'Click the ground to extend the path. Drag a point to move it; double-click to remove it.',
  speed: 'Speed',
  light: 'Light',
  weather: 'Weather',
  asInTheCheck: 'As the check',
  atTheSitesClock: 'Site time',
  takes: 'Duration',
  theSceneOfThisCamera: 'This camera has no simulated scene',
  chooseACheckThatSomebody: 'Select a check for a walk on site, or add one on Prove.',
  waitAtMost: 'Wait up to'
})

export const walkPart = messages({
  nothingToWalkYet: 'No detections to walk',
  drawADetectionOnThe: 'Draw a detection on the Bench first.',
  walkTest: 'Walk test',
  check: 'Check',
  aWalkOf: (name: string) => `${name}: custom walk`,
  allChecks: 'All checks',
  isKeptAsA: (name: string) => `${name} added to the checks`,
  whatIsWalked: 'Walk',
  changedForThisTimeWhat: 'Changed for this walk. The result is not saved with the check.',
  asKept: 'Reset',
  keepAsACheck: 'Add to checks',
  walkingNow: 'Start walk',
  walkAgain: 'Walk again',
  walk: 'Walk',
  thatWasIt: 'Finish walk',
  whatComesOfIt: 'Results',
  pressWalkingNowAnd: (person: boolean) =>
    `${person ? 'Press “Start walk”, and walk. ' : 'Press Walk. '}The trigger and its actions are timed here.`,
  aWalkOfMyOwn: 'Custom walk',
  settling: 'Walked. Waiting for the actions…',
  theSceneIsBeingMade: 'Preparing the scene…',
  ofS: (since: string, seconds: number) => `${since} of ${seconds} s`,
  done: 'Done',
  stoppedWithoutAResult: 'Stopped without a result',
  itCouldNotBeWalked: 'The walk failed',
  theWalk: 'Walk',
  of: (name: string) => `, of ${name}`
})

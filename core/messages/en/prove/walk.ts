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
  passed: 'Passed',
  failed: 'Failed',
  resultSavedWithThis: 'Result saved with this check.',
  resultNotSavedThis: 'Result not saved: this walk is new or changed.',
  results: 'Results',
  triggerOf: (name: string) => `Trigger of ${name}`,
  atSOfTheWalk: (time: string, triggers: number) =>
    `at ${time} s of the walk${triggers > 1 ? `, ${triggers} in all` : ''}`,
  noTrigger: 'no trigger',
  notYet: 'not yet',
  s: (after: string) => `+${after} s`,
  hasNoActions: (name: string) => `${name} has no actions.`,
  alsoTriggered: (others: string) => `Also triggered: ${others}.`,
  otherAt: (name: string, time: string) => `${name} at ${time}`,
  thisTarget: 'this target',
  theNearestOfTargets: (targets: number) => `the nearest of ${targets} targets`,
  theCameraReportsNobodyYet: 'The camera reports no target yet.',
  didNotRunAs: (words: string) => `did not run, as expected${words}`,
  didNotCome: 'did not come',
  waiting: 'waiting',
  unexpected: (words: string) => `unexpected${words}`
})

export const walkOrder = messages({
  walk: 'Walk',
  aTrigger: 'A trigger',
  speed: 'Speed',
  light: 'Light',
  weather: 'Weather',
  asInTheCheck: 'As the check',
  siteTime: 'Site time',
  duration: 'Duration',
  theSceneOfThisCamera: 'This camera has no simulated scene',
  selectACheckFor: 'Select a check for a walk on site, or add one on Prove.',
  waitUpTo: 'Wait up to'
})

export const walkPart = messages({
  noDetectionsToWalk: 'No detections to walk',
  drawADetectionOnThe: 'Draw a detection on the Bench first.',
  walkTest: 'Walk test',
  check: 'Check',
  aWalkOf: (name: string) => `${name}: custom walk`,
  allChecks: 'All checks',
  addedToTheChecks: (name: string) => `${name} added to the checks`,
  whatIsWalked: 'Walk',
  changedForThisTimeWhat: 'Changed for this walk. The result is not saved with the check.',
  reset: 'Reset',
  addToChecks: 'Add to checks',
  startWalk: 'Start walk',
  walkAgain: 'Walk again',
  finishWalk: 'Finish walk',
  results: 'Results',
  theTriggerAndIts: (person: boolean) =>
    `${person ? 'Press “Start walk”, and walk. ' : 'Press Walk. '}The trigger and its actions are timed here.`,
  customWalk: 'Custom walk',
  workingOutThePath: 'Working out a path that triggers…',
  walkedWaitingForThe: 'Walked. Waiting for the actions…',
  preparingTheScene: 'Preparing the scene…',
  ofS: (since: string, seconds: number) => `${since} of ${seconds} s`,
  done: 'Done',
  stoppedWithoutAResult: 'Stopped without a result',
  theWalkFailed: 'The walk failed',
  of: (name: string) => `, of ${name}`
})

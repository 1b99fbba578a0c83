import { messages } from '../../messages.ts'

export const walkFollow = messages({
  inTheMailServersHands: 'in the mail server’s hands',
  acknowledgedByTheStation: 'acknowledged by the station',
  stayedOut: 'stayed out',
  asExpected: 'As expected',
  notAsExpected: 'Not as expected',
  keptAsAProofOf: 'Kept as a proof of this check.',
  notKeptTheWalkIs: 'Not kept: the walk is not a check that is kept, or was changed for this time.',
  whatArrives: 'What arrives',
  triggerOf: (name: string) => `Trigger of ${name}`,
  atSOfTheWalk: (time: string, triggers: number) =>
    `at ${time} s of the walk${triggers > 1 ? `, ${triggers} in all` : ''}`,
  nothingTriggered: 'nothing triggered',
  noneCame: 'none came',
  notYet: 'not yet',
  s: (after: string) => `+${after} s`,
  setsNothingOffIt: (name: string) => `${name} sets nothing off: it is linked to nothing.`,
  meanwhileAlso: (others: string) => `Meanwhile also: ${others}.`,
  thisTarget: 'this target',
  theNearestOfTargets: (targets: number) => `the nearest of ${targets} targets`,
  theCameraReportsNobodyYet: 'The camera reports nobody yet.',
  byTheCameraItself: ', by the camera itself',
  notSetOffAsExpected: (words: string) => `not set off, as expected${words}`,
  didNotCome: 'did not come',
  waitedFor: 'waited for',
  notExpected: (words: string) => `not expected${words}`
})

export const walkOrder = messages({
  theWalk: 'The walk',
  whereItGoesClickOn:
    'Where it goes: click on the ground to lengthen the way, drag its points, double-click one to take it out.',
  speed: 'Speed',
  light: 'Light',
  weather: 'Weather',
  asInTheCheck: 'As in the check',
  atTheSitesClock: 'At the site’s clock',
  takes: 'Takes',
  theSceneOfThisCamera: 'The scene of this camera is not known',
  chooseACheckThatSomebody: 'Choose a check that somebody walks on site, or add one on Prove.',
  waitAtMost: 'Wait at most'
})

export const useWalk = messages({
  walkTest: 'Walk test'
})

export const walkPart = messages({
  openingTheCameras: 'Opening the cameras …',
  nothingToWalkYet: 'Nothing to walk yet',
  drawADetectionOnThe: 'Draw a detection on the Bench first; then it can be walked here.',
  walkTest: 'Walk test',
  check: 'Check',
  aWalkOf: (name: string) => `${name}: a walk of my own`,
  allChecks: 'All checks',
  isKeptAsA: (name: string) => `${name} is kept as a check`,
  whatIsWalked: 'What is walked',
  changedForThisTimeWhat: 'Changed for this time; what comes of it is not kept with the check.',
  asKept: 'As kept',
  keepAsACheck: 'Keep as a check',
  walkingNow: 'Walking now',
  walkAgain: 'Walk again',
  walk: 'Walk',
  thatWasIt: 'That was it',
  whatComesOfIt: 'What comes of it',
  pressWalkingNowAnd: (person: boolean) =>
    `${person ? 'Press “Walking now”, and walk. ' : 'Press Walk: the simulated scene shows it to the camera. '}The camera’s own trigger is waited for, and then everything that must follow, each with its time.`,
  aWalkOfMyOwn: 'A walk of my own',
  theSceneIsBeingMade: 'The scene is being made ready …',
  ofS: (since: string, seconds: number) => `${since} of ${seconds} s`,
  done: 'Done',
  stoppedWithoutAResult: 'Stopped, without a result',
  itCouldNotBeWalked: 'It could not be walked',
  theWalk: 'The walk',
  of: (name: string) => `, of ${name}`
})

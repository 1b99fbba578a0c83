import { messages } from '../../messages.ts'

export const simulators = messages({
  noTimeGiven: 'There is no time in it',
  noSuchUser: (name: string) => `There is no user ${name}`,
  noSuchFilter: (mode: string) => `IrCutFilter ${mode} is none`,
  isLargerThan1Mb: 'is larger than 1 MB',
  thePicturesOfCouldNot: (id: string, message: string) =>
    `the pictures of ${id} could not be measured: ${message}\n`,
  thereIsNoOutput: (token: string) => `there is no output ${token}`,
  volumeIsMustBe: (value: string | undefined) => `Volume is ${value}; must be from 1 to 100`,
  repeatsIsMustBe: (value: string | undefined) => `Repeats is ${value}; must be from 1 to 50`,
  patternIsMustBe: (value: string, value2: string) =>
    `Pattern is ${value}; must be one of ${value2}`,
  timeIsMustBe: (given: string, most: number) =>
    `Time is ${given}; must be from PT1S to PT${most}S`,
  noSuchSurroundings: (where: string) => `there is no ${where} among the surroundings`,
  isRunningOneFamily: (mode: string) => `${mode} is running; one family of analysis runs at a time`,
  thereIsNoModule: (mode: string) => `there is no module ${mode}`,
  isMustBe: (name: string, value: string, min: number, max: number) =>
    `${name} is ${value}; must be from ${min} to ${max}`,
  hasNoParameter: (type: string, name: string) => `${type} has no parameter ${name}`,
  atMostRulesInAll: (most: number) => `at most ${most} rules in all`,
  atMostRulesOfType: (most: number, type: string) => `at most ${most} rules of type ${type}`,
  rulesOfTypeAreNot: (type: string) => `rules of type ${type} are not supported`,
  afterIsSMustBe: (after: number, value: number) =>
    `After is ${after} s; must be from 1 to ${value}`,
  beforeIsSMustBe: (before: number, value: number) =>
    `Before is ${before} s; must be from 0 to ${value}`,
  senderNotAuthorizedThisNonce: 'sender not authorized: this nonce was used before',
  senderNotAuthorizedTheToken: 'sender not authorized: the token was made on another clock',
  senderNotAuthorizedWrongUser: 'sender not authorized: wrong user name or password',
  senderNotAuthorizedTheNonce: 'sender not authorized: the nonce is not base64',
  senderNotAuthorizedNoToken: 'sender not authorized: no token',
  isNotRunning: (it: string) => `${it} is not running`,
  thereIsNoRule2: (missing: string) => `there is no rule ${missing}`,
  thereIsNoRule: (name: string) => `there is no rule ${name}`,
  ruleIsThereAlready: (name: string) => `rule ${name} is there already`,
  isThereAlready: (username: string) => `${username} is there already`,
  thePasswordMustHaveAt: 'the password must have at least 8 characters',
  thereIsNoSuchPull: 'there is no such pull point; it may have ended',
  thereIsNoRecording: (token: string) => `there is no recording ${token}`,
  thereIsNoRelay: (token: string) => `there is no relay ${token}`,
  isNotSupported: (name: string) => `${name} is not supported`,
  thereIsNoConfiguration: (token: string) => `there is no configuration ${token}`,
  noStreamOver: (protocol: string) => `there is no stream over ${protocol}`,
  notGiven: 'not given',
  set: 'set',
  unset: 'unset',
  closed: 'closed',
  open: 'open',
  waitingRoomDoor: 'Waiting room door',
  alarmPanel: 'Alarm panel',
  noSimulatedDeviceLooksAt: (camera: string) => `no simulated device looks at ${camera}`
})

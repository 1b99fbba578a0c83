import { messages } from '../../messages.ts'

export const api = messages({
  youHaveLivePicturesOr: (value: number) =>
    `You have ${value} live pictures or lists open. Close a window first.`,
  tooManyRequestsWait: (after: string) => `Too many requests. Wait ${after}.`,
  signInFirst: 'Sign in first.',
  onlyOfAllSites: 'This needs a role on every site. Ask an installer for it.',
  asYouMayNotDo: (role: string) => `Your role (${role}) can’t do this.`,
  isGivenTwiceGiveIt: 'is given twice; give it once',
  hasHalfACharacterA: 'has a broken character; type it again',
  hasANameWithHalf: 'has a name with a broken character',
  aRequestNamesItsTarget: 'a request names its target by a path that begins with /',
  thisServerDoesNotAnswer: 'Unknown host name. Start the server with --host NAME to add one.',
  thisServerTakesChangesOnly: 'Changes are accepted only from Wardoptic’s own pages.',
  endsWithASpaceLeave: 'ends with a space; leave it out',
  mustBeTheNumberOf: (value: string) => `must be the number of ${value}`,
  mustBeTheVersionThat: 'must be the version that was read, a whole number from 1',
  mustBe: (what: string) => `must be ${what}`,
  hasMoreThan50Areas: 'has more than 50 areas',
  mustBeTheIdOf: 'must be the id of a device',
  mustBeTheTokenOf: 'must be the token of an input',
  mustBeAListOf2: 'must be a list of contacts',
  mustBeAName: 'must be a name',
  mustBeAtMost2147483647: 'must be at most 2147483647',
  mustBeFixOrOrelse: 'must be fix or orElse',
  mustBe1AsIf: 'must be 1 (as if live), 10 or 1000 (as fast as it goes)',
  mustBeSeconds: 'must be seconds',
  mustBeAListOf3: 'must be a list of seconds',
  hasMoreThan50Moments: 'has more than 50 moments',
  mustBeAfter1970: 'must be after 1970',
  mustBeBefore2100: 'must be before 2100'
})

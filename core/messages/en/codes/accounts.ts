import { messages } from '../../messages.ts'

export const accounts = messages({
  wrongUserNameOrPassword: 'Wrong user name or password.',
  isTaken: (username: string) => `"${username}" is taken`,
  isNotYourPassword: 'is wrong',
  theFirstAccountHasBeen: 'The first account exists already. Sign in with it.',
  thisIsNotTheCode: 'Wrong code. Use the one printed at the start.',
  isTheNameOfAlready: (username: string) => `is already the name of ${username}; choose another`,
  thisIsTheLastInstaller: 'This is the last installer. Make another account an installer first.',
  tooManySignInsAtOnce: 'Too many sign-ins at once. Try again in a few seconds.',
  isAmongThePasswordsThat: 'is too common; choose another',
  hasFewerThan4Different: 'needs at least 4 different characters',
  isLittleMoreThanThe: 'is too close to the name; choose another',
  tooManyWrongPasswordsTry: (value: number) => `Too many wrong passwords. Try again in ${value} s.`,
  mustBe2To40: 'must be 2 to 40 letters, digits, ., - or _',
  mustHaveAtLeastCharacters: (value: number) => `must have at least ${value} characters`,
  mustBeRoles: 'must be a list of up to 2,000 sites, each with a role',
  siteTwice: 'names a site twice; name each once',
  anEntry: 'an entry',
  anAccount: 'an account',
  isAnInstallerThe: (username: string, password: string) =>
    `${username} is an installer; the password is now: ${password}\nChange it after signing in.\n`
})

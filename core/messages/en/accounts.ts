import { messages } from '../messages.ts'

/** What accounts may do. */
export const roles = messages({ installer: 'installer', operator: 'operator', viewer: 'viewer' })

export const firstAccount = messages({
  codeSuchAs: 'ABCDE-FGHJK-LMNPQ-RSTUV',
  noAccountsYetCreate:
    'No accounts yet. Create the first installer account with the one-time code printed at the start.',
  code: 'Code',
  yourName: 'Your name',
  passwordAtLeastCharacters: (value: number) => `Password, at least ${value} characters`,
  createAccount: 'Create account'
})

export const signIn = messages({
  signIn: 'Sign in',
  noAccountAskYourInstaller: 'No account? Ask your installer.'
})

export const sessionList = messages({
  edge: 'Edge',
  firefox: 'Firefox',
  chromeOrChromium: 'Chrome or Chromium',
  safari: 'Safari',
  android: 'Android',
  windows: 'Windows',
  linux: 'Linux',
  on: (system: string) => ` on ${system}`,
  unknownBrowser: 'Unknown browser',
  walkTestOnly: (camera: string) => `walk test of ${camera} only`,
  aSessionEndsAfter30: 'Sessions end after 30 minutes without use, and after 12 hours at most.',
  browser: 'Browser',
  signedIn: 'Signed in',
  lastUsed: 'Last used',
  thisSession: 'this session',
  signOut: 'Sign out',
  endAllOthers: 'Sign out all others'
})

export const auditList = messages({
  when: 'When',
  what: 'What',
  site: 'Site',
  showEarlier: 'Show earlier'
})

export const accountList = messages({
  installerSetsEverythingUp: 'Installer: sets everything up',
  operatorDealsWithAlarms: 'Operator: deals with alarms',
  viewerLooksOnly: 'Viewer: looks only',
  roleOf: (name: string) => `Role of ${name}`,
  canNoLongerSign: (name: string) => `${name} can no longer sign in.`,
  role: 'Role',
  onlyOnSomeSites: 'Only on the sites named',
  onEverySite: 'On every site',
  bySite: 'By site',
  rolesBySite: (name: string) => `Roles of ${name} by site`,
  roleAt: (name: string, site: string) => `Role of ${name} on ${site}`,
  removeRoleAt: (site: string) => `Remove the role on ${site}`,
  addASite: 'Add a site…',
  noneBySite: 'No roles on single sites.',
  deletedSite: 'A deleted site',
  sitesWithRoles: (n: number) => (n === 1 ? '1 site' : `${n} sites`)
})

export const userMenu = messages({
  who: (name: string, role: string) => `${name}, ${role}`,
  whoIs: (initials: string, name: string, role: string) => `${initials}: ${name}, ${role}`,
  changePassword: 'Change password…',
  sessions: 'Sessions…',
  accounts: 'Accounts…',
  auditLog: 'Audit log…',
  storage: 'Storage…',
  signOut: 'Sign out',
  yourSessions: 'Your sessions',
  accounts2: 'Accounts',
  auditList2: 'Audit log',
  storage2: 'Storage',
  passwordChangedYourOtherSessions: 'Password changed. Your other sessions have ended.',
  newPassword: 'New password',
  currentPassword: 'Current password',
  newPasswordAtLeastCharacters: (value: number) => `New password, at least ${value} characters`,
  changePassword2: 'Change password'
})

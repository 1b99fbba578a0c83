import { messages } from '../messages.ts'

export const importSite = messages({
  title: (name: string) => `Import ${name}`,
  take: 'Import',
  into: 'Into',
  aNewSite: 'A new site',
  exportedAt: (at: string) => `Exported ${at}`,
  nothingChanges: 'Nothing would change: the site is set up like this already.',
  changes: 'What will change',
  devicesNeedAccounts:
    'Passwords are not in the file. Enter the account of each device under Devices.',
  restStays: 'Everything else stays. Each change is in the history.',
  how: messages({ added: 'added', changed: 'changed', 'left-out': 'left out: already added' }),
  named: (thing: string, name: string) => `${thing} ${name}`,
  on: (what: string, camera: string) => `${what} on ${camera}`,
  things: messages({
    site: 'Site',
    contacts: 'Contacts',
    schedule: 'Schedule',
    endpoint: 'Action',
    people: 'People',
    mail: 'Mail server',
    usual: 'Default actions',
    voice: 'Voice file',
    device: 'Device',
    camera: 'Camera',
    scene: 'Calibration and ignore areas',
    detection: 'Detection',
    check: 'Check'
  })
})

export const sitesPlace = messages({
  sites: 'Sites',
  findASite: 'Find a site',
  addSite: 'Add site…',
  importSite: 'Import site…',
  addSiteTitle: 'Add site',
  nameSuchAs: 'Name of the site',
  beginWith: 'Start from',
  nothing: 'An empty site',
  emptySays: 'No cameras, devices or schedules yet.',
  templateSays:
    'Takes its schedules, default actions, messages and mail server. Takes no cameras, devices or people.',
  noSites: 'You have no role on any site. Ask an installer.',
  noneMatches: (text: string) => `No site matches "${text}".`,
  cameras: (n: number) => (n === 1 ? '1 camera' : `${n} cameras`),
  about: (cameras: string, timeZone: string) => `${cameras} · ${timeZone}`,
  newAlarms: (n: number) => (n === 1 ? '1 new alarm' : `${n} new alarms`),
  notSetUp: 'Not set up yet',
  deleteSite: (name: string) => `Delete ${name}?`,
  whatGoes: (cameras: number) =>
    cameras === 0
      ? 'Its settings and alarms go with it.'
      : cameras === 1
        ? 'Its camera, devices, clips and alarms go with it.'
        : `Its ${cameras} cameras, devices, clips and alarms go with it.`,
  deleteNamed: (name: string) => `Delete ${name}`,
  deleted: (name: string) => `${name} deleted.`,
  allSites: 'All sites…',
  otherSite: (name: string) => `Site: ${name}. Go to another site`,
  noRoleHere: 'No site here',
  askAnInstaller: 'There is no such site, or you have no role on it. Ask an installer.',
  goToSites: 'Open your sites'
})

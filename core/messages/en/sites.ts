import { messages } from '../messages.ts'

export const sitesPlace = messages({
  sites: 'Sites',
  findASite: 'Find a site',
  addSite: 'Add site…',
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

import { places as msg } from '../../core/messages/en/shell.ts'
import type { Role } from '../../core/accounts/accounts.ts'

/** The places that have their way at the bottom of a phone; the others stay within reach of the search. */
export const ON_SITE: readonly string[] = ['/site', '/devices', '/watch']

/** The places of the top bar, in the order of the work. */
export const places = [
  { name: msg.site, path: '/site' },
  { name: msg.devices, path: '/devices' },
  { name: msg.bench, path: '/bench' },
  { name: msg.arming, path: '/arming' },
  { name: msg.actions, path: '/actions' },
  { name: msg.prove, path: '/prove' },
  { name: msg.watch, path: '/watch' },
  { name: msg.handover, path: '/handover' }
]

/** Places of those who do not set up: they watch, and operators read records. */
const WATCHING: Readonly<Record<Exclude<Role, 'installer'>, readonly string[]>> = {
  operator: ['/watch', '/handover'],
  viewer: ['/watch']
}

/** The places of a role. */
export const placesOf = (role: Role): { name: string; path: string }[] =>
  role === 'installer' ? places : places.filter(({ path }) => WATCHING[role].includes(path))

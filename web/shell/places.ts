import { places as msg } from '../../core/messages/en/shell.ts'
import type { Role } from '../../core/accounts/accounts.ts'

/** The places of the top bar, in the order of the work; those without a screen yet say what will be there. */
export interface EmptyPlaceText {
  name: string
  path: string
  what: string
  then: string[]
}

export const emptyPlaces: EmptyPlaceText[] = [
  {
    name: msg.handover,
    path: '/handover',
    what: msg.theRecordOfTheFinished,
    then: [msg.untilThenThePlanOf]
  }
]

export const places = [
  { name: msg.site, path: '/site' },
  { name: msg.devices, path: '/devices' },
  { name: msg.bench, path: '/bench' },
  { name: msg.arming, path: '/arming' },
  { name: msg.actions, path: '/actions' },
  { name: msg.prove, path: '/prove' },
  { name: msg.watch, path: '/watch' },
  ...emptyPlaces
].map(({ name, path }) => ({ name, path }))

/** The places of a role: whoever does not set up, watches. */
export const placesOf = (role: Role): { name: string; path: string }[] =>
  role === 'installer' ? places : places.filter(({ path }) => path === '/watch')

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
    name: 'Handover',
    path: '/handover',
    what: 'The record of the finished job will be here: what was sent, what was proven, what the client signs.',
    then: ['Until then, the plan of a camera can be exported on the Bench']
  }
]

export const places = [
  { name: 'Site', path: '/site' },
  { name: 'Devices', path: '/devices' },
  { name: 'Bench', path: '/bench' },
  { name: 'Arming', path: '/arming' },
  { name: 'Actions', path: '/actions' },
  { name: 'Prove', path: '/prove' },
  { name: 'Watch', path: '/watch' },
  ...emptyPlaces
].map(({ name, path }) => ({ name, path }))

/** What somebody of a role has to do with: who does not set up, watches. */
export const placesOf = (role: Role): { name: string; path: string }[] =>
  role === 'installer' ? places : places.filter(({ path }) => path === '/watch')

import { said } from '../messages/said.ts'
import { SNOWFALL, STORM } from '../formats/weather.ts'
import type { Walk, WalkActor } from '../formats/walk.ts'
import type { Draft, Found, Gap, Main } from './drafts.ts'
import { plainWalk } from './stage.ts'

/** What checks of kinds that look at whole pictures share. */

export const silence = { what: 'silence' } as const
/** A picture is learned before anything happens. */
export const LEARN = 3

/** Pictures must be painted for it, and there is no scene to paint. */
export const unpaintable = (about: Gap['about']): Found => ({
  drafts: [],
  gaps: [
    {
      about,
      side: 'inside',
      words: said('checkGaps.notPaintable')
    }
  ],
  main: null
})

/** A trigger between two moments, and no other one. */
export const within = (from: number, to: number): Draft['expect'] => ({
  what: 'trigger',
  from: Math.max(0, from - 0.5),
  to,
  times: 1
})

export const mainOf = (draft: Draft | undefined): Main | null => (draft ? { draft } : null)

export const snowfall = (seconds: number): Walk => ({
  ...plainWalk(seconds, []),
  weather: SNOWFALL
})
export const storm = (seconds: number, actors: WalkActor[] = []): Walk => ({
  ...plainWalk(seconds, actors),
  weather: STORM
})

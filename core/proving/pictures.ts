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
      words:
        'Nothing can be painted for this camera: it has no simulated scene. Use a clip, or a person on site.'
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

const weather = (change: Partial<Walk['weather']>): Walk['weather'] => ({
  wind: 0,
  rain: 0,
  snow: 0,
  fog: 0,
  clouds: 0,
  ...change
})
export const snow = (seconds: number): Walk => ({
  ...plainWalk(seconds, []),
  weather: weather({ snow: 0.7, clouds: 0.5 })
})
export const storm = (seconds: number, actors: WalkActor[] = []): Walk => ({
  ...plainWalk(seconds, actors),
  weather: weather({ wind: 0.8, rain: 0.8, clouds: 0.6 })
})

import type { Walk } from '../formats/walk.ts'
import type { Detection } from '../kinds/schemas.ts'
import type { Ask, Draft, Found, Gap } from './drafts.ts'
import { silence, storm } from './pictures.ts'
import type { Ways } from './shapeWays.ts'
import type { Way } from './stage.ts'
import type { Walks } from './walks.ts'

const MAX_TOGETHER = 8

/** A zone that counts several: a group of as many, and one fewer; short of the dwell; past it. */
export function together(
  ask: Ask,
  at: Walks,
  d: Extract<Detection, { atLeast: number }>,
  way: Way,
  ways: Ways,
  gaps: Gap[]
): Found {
  if (d.atLeast > MAX_TOGETHER || at.who !== 'adult')
    return {
      drafts: [],
      gaps: [
        ...gaps,
        {
          about: 'together',
          side: 'inside',
          words: `${d.atLeast} together cannot be walked here: at most ${MAX_TOGETHER} people can. Use a clip, or people on site.`
        }
      ],
      main: null
    }
  const group = (members: number, pause: number): Walk =>
    at.walk(
      [way[0]!, [way[1]![0], way[1]![1], pause], way[2]!],
      members > 1 ? { kind: 'group', members } : {}
    )
  const stays = d.dwellSeconds + 4
  const walk = group(d.atLeast, stays)
  const expect: Draft['expect'] = { what: 'trigger', from: 0, to: walk.seconds }
  const drafts: Draft[] = [
    {
      key: 'together.inside',
      name: `${d.atLeast} together`,
      about: 'together',
      side: 'inside',
      walk,
      expect
    },
    {
      key: 'together.outside',
      name: `${d.atLeast - 1} only`,
      about: 'together',
      side: 'outside',
      walk: group(d.atLeast - 1, stays),
      expect: silence
    }
  ]
  if (d.dwellSeconds > 4)
    drafts.push({
      key: 'dwell.shorter',
      name: 'They go in and come out at once',
      about: 'dwell',
      side: 'outside',
      walk: group(d.atLeast, 0),
      expect: silence
    })
  if (ways.beside)
    drafts.push({
      key: 'passer-by',
      name: 'They pass beside it',
      about: 'share',
      side: 'outside',
      walk: at.walk(ways.beside, { kind: 'group', members: d.atLeast }),
      expect: silence
    })
  if (ask.painted)
    drafts.push({
      key: 'nuisance.storm',
      name: 'Wind and rain, nobody there',
      about: 'nuisance',
      side: 'outside',
      walk: storm(9),
      through: 'pictures',
      expect: silence
    })
  return { drafts, gaps, main: { draft: drafts[0]! } }
}

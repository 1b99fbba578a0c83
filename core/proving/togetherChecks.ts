import { said } from '../messages/said.ts'
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
          words: said('checkGaps.tooManyTogether', d.atLeast, MAX_TOGETHER)
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
      name: said('checkNames.togetherEnough', d.atLeast),
      about: 'together',
      side: 'inside',
      walk,
      expect
    },
    {
      key: 'together.outside',
      name: said('checkNames.togetherFewer', d.atLeast - 1),
      about: 'together',
      side: 'outside',
      walk: group(d.atLeast - 1, stays),
      expect: silence
    }
  ]
  if (d.dwellSeconds > 4)
    drafts.push({
      key: 'dwell.shorter',
      name: said('checkNames.togetherShort'),
      about: 'dwell',
      side: 'outside',
      walk: group(d.atLeast, 0),
      expect: silence
    })
  if (ways.beside)
    drafts.push({
      key: 'passer-by',
      name: said('checkNames.togetherBeside'),
      about: 'share',
      side: 'outside',
      walk: at.walk(ways.beside, { kind: 'group', members: d.atLeast }),
      expect: silence
    })
  if (ask.painted)
    drafts.push({
      key: 'nuisance.storm',
      name: said('checkNames.stormEmpty'),
      about: 'nuisance',
      side: 'outside',
      walk: storm(9),
      through: 'pictures',
      expect: silence
    })
  return { drafts, gaps, main: { draft: drafts[0]! } }
}

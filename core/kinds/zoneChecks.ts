import { said, type Said } from '../messages/said.ts'
import { needOf } from '../detections/need.ts'
import type { ActorKind } from '../formats/walk.ts'
import { contains, type Point } from '../geometry/shapes.ts'
import type { Ask, Found, Gap } from '../proving/drafts.ts'
import type { Candidate } from '../proving/proposeIgnored.ts'
import { onStage, shapeChecks } from '../proving/shapeChecks.ts'
import type { Ways } from '../proving/shapeWays.ts'
import { groundOf, type Stage, type Way } from '../proving/stage.ts'
import type { Walks } from '../proving/walks.ts'
import type { ZoneDetection } from './schemas.ts'
import { zoneWays, type ZoneWays } from './zoneWays.ts'

/** What a kind of zone asks of the ways about it. */
export interface ZoneKind {
  /** What triggers, and what does not. */
  name: Said
  /** The way that triggers, of those that were found. `stays`: for how long whoever goes in stays. */
  counts: (found: ZoneWays, stays: number) => Way | null
  /** The other way, where there is one. */
  wrong?: (found: ZoneWays) => { way: Way; name: Said } | null
  /** Whether somewhat more and somewhat less of the body can be told by going into the zone and out again. */
  deep: boolean
  shallow: boolean
}

/** Into the zone, and out again after a stay. */
export const inAndOut = ({ into }: ZoneWays, stays: number): Way | null =>
  into && [into[0]!, [into[1]![0], into[1]![1], stays], into[2]!]

/** Into the zone, out of it, past it, and every gate. */
export const zoneChecks = (ask: Ask, d: ZoneDetection, kind: ZoneKind): Found =>
  onStage(ask, (stage) =>
    shapeChecks(ask, d, stage, {
      ways: (on, who) => waysOfZone(on, who, d, kind),
      places: (at) => staying(at, d, ask.ignore)
    })
  )

function waysOfZone(stage: Stage, who: ActorKind, d: ZoneDetection, kind: ZoneKind): Ways {
  const found = zoneWays({ stage, who }, d)
  const need = needOf(d.sensitivity)
  const way = kind.counts(found, 'dwellSeconds' in d ? d.dwellSeconds + 1 : 1)
  const wrong = kind.wrong?.(found)
  const gaps: Gap[] = way
    ? []
    : [
        {
          about: 'passes',
          side: 'inside',
          words:
            found.most < need
              ? said('checkGaps.noRoomInZone', need, found.most)
              : said('checkGaps.zoneFillsView')
        }
      ]
  return {
    counts: way ? [{ way, key: 'passes', name: kind.name }] : [],
    wrong: wrong ? [wrong] : [],
    beside: found.beside,
    deep: kind.deep ? found.deep : null,
    shallow: kind.shallow ? found.shallow : null,
    gaps
  }
}

/** How finely an area is tried. */
const STEPS = 9

function* staying(
  at: Walks,
  d: ZoneDetection,
  areas: readonly (readonly Point[])[]
): Generator<Candidate> {
  const stays = 'dwellSeconds' in d ? d.dwellSeconds + 1 : 2
  for (const area of areas) {
    const [xs, ys] = [area.map(([x]) => x), area.map(([, y]) => y)]
    for (let j = 1; j < STEPS; j++)
      for (let i = 1; i < STEPS; i++) {
        const [x, y] = [
          Math.min(...xs) + ((Math.max(...xs) - Math.min(...xs)) * i) / STEPS,
          Math.min(...ys) + ((Math.max(...ys) - Math.min(...ys)) * j) / STEPS
        ]
        const ground = contains(area, x, y) ? groundOf(at.stage.pose, x, y) : null
        if (ground)
          yield {
            way: [
              [...ground, stays],
              [ground[0] + 0.05, ground[1]]
            ]
          }
      }
  }
}

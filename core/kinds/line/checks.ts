import { said } from '../../messages/said.ts'
import { needOf } from '../../detections/need.ts'
import type { Direction } from '../../detections/types.ts'
import type { ActorKind } from '../../formats/walk.ts'
import type { Ask, Draft, Found, Gap } from '../../proving/drafts.ts'
import type { Candidate } from '../../proving/proposeIgnored.ts'
import { onStage, shapeChecks } from '../../proving/shapeChecks.ts'
import type { Ways } from '../../proving/shapeWays.ts'
import type { Stage } from '../../proving/stage.ts'
import type { Walks } from '../../proving/walks.ts'
import { sidesOf } from './path.ts'
import type { LineDetection } from './schema.ts'
import { lineWays } from './ways.ts'

/** Both directions, the wrong one, near the ends of the line, and every gate. */
export const lineChecks = (ask: Ask, d: LineDetection): Found =>
  onStage(ask, (stage) =>
    shapeChecks(ask, d, stage, {
      ways: (on, who) => waysOfLine(on, who, d),
      places: (at) => overLine(at, d),
      more: (at, main, drafts, gaps) => ends(at, d, main.direction, drafts, gaps)
    })
  )

function waysOfLine(stage: Stage, who: ActorKind, d: LineDetection): Ways {
  const found = lineWays({ stage, who }, d)
  const named = (direction: Direction) => said('checkNames.fromTo', ...sidesOf(d, direction))
  const counted = d.direction === 'both' ? (['leftToRight', 'rightToLeft'] as const) : [d.direction]
  const counts = counted.flatMap((direction) =>
    found[direction]
      ? [
          {
            way: found[direction],
            key: `direction.${direction}`,
            name: named(direction),
            direction
          }
        ]
      : []
  )
  const other = d.direction === 'leftToRight' ? 'rightToLeft' : 'leftToRight'
  const gaps: Gap[] = counted
    .filter((direction) => !found[direction])
    .map((direction) => ({
      about: 'direction',
      side: 'inside',
      words: said('checkGaps.noRoomOverLine', named(direction), needOf(d.sensitivity))
    }))
  if (!found.beside)
    gaps.push({
      about: 'share',
      side: 'outside',
      words: said('checkGaps.noPathBeside')
    })
  return {
    counts,
    wrong:
      d.direction !== 'both' && found[other]
        ? [{ way: found[other], name: said('checkNames.notCounted', named(other)) }]
        : [],
    beside: found.beside,
    deep: found.deep,
    shallow: found.shallow,
    gaps
  }
}

/** The same near both ends of a line: a line is crossed where it suits whoever crosses it. */
function ends(
  at: Walks,
  d: LineDetection,
  direction: Direction | undefined,
  drafts: Draft[],
  gaps: Gap[]
): void {
  for (const [key, name, place] of [
    ['begin', said('checkNames.nearFirstVertex'), 0.12],
    ['end', said('checkNames.nearLastVertex'), 0.88]
  ] as const) {
    const way = lineWays({ stage: at.stage, who: at.who }, d, [place])[direction ?? 'leftToRight']
    if (!way)
      gaps.push({
        about: 'passes',
        side: 'inside',
        words: said('checkGaps.noPathThere', name)
      })
    else
      drafts.push({
        key: `place.${key}`,
        name,
        about: 'passes',
        side: 'inside',
        walk: at.walk(way),
        expect: at.trigger(at.walk(way), direction)
      })
  }
}

/** How finely a line is tried. */
const STEPS = 9

function* overLine(at: Walks, d: LineDetection): Generator<Candidate> {
  const direction = d.direction === 'rightToLeft' ? 'rightToLeft' : 'leftToRight'
  for (let i = 1; i < STEPS; i++) {
    const way = lineWays({ stage: at.stage, who: at.who }, d, [i / STEPS])[direction]
    if (way) yield { way, direction }
  }
}

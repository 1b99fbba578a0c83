import type { Detection } from '../formats/plan.ts'
import { contains, type Point } from '../geometry/shapes.ts'
import type { Draft, Gap } from './drafts.ts'
import { boxesOf, groundOf, type Way } from './stage.ts'
import type { Walks } from './walks.ts'
import { lineWays } from './ways.ts'

/** How finely an area, or a line, is tried. */
const STEPS = 9

/** Somebody who does at the shape what would trigger, with the feet in an ignore area. */
export function ignored(
  at: Walks,
  d: Walks['d'],
  areas: readonly (readonly Point[])[],
  drafts: Draft[],
  gaps: Gap[]
): void {
  if (!areas.length) return
  for (const { way, direction } of d.kind === 'line' ? overLine(at, d) : staying(at, d, areas)) {
    const walk = at.walk(way)
    const moment = at.moment(walk, direction)
    if (moment === null) continue
    // Until the end of the walk: who comes out of the area while the condition holds does trigger.
    const after = boxesOf(at.stage.tracksOf(walk), 1).filter(({ time }) => time >= moment - 1e-6)
    if (!after.every(({ x, y, w, h }) => areas.some((area) => contains(area, x + w / 2, y + h))))
      continue
    drafts.push({
      key: 'ignore.inside',
      name: 'In an ignore area: does not count',
      about: 'ignore',
      side: 'outside',
      walk,
      expect: { what: 'silence' }
    })
    return
  }
  gaps.push({
    about: 'ignore',
    side: 'outside',
    words: 'No ignore area lies where this could trigger.'
  })
}

type Candidate = { way: Way; direction?: 'leftToRight' | 'rightToLeft' }

function* overLine(at: Walks, d: Extract<Detection, { kind: 'line' }>): Generator<Candidate> {
  const direction = d.direction === 'rightToLeft' ? 'rightToLeft' : 'leftToRight'
  for (let i = 1; i < STEPS; i++) {
    const way = lineWays({ stage: at.stage, who: at.who }, d, [i / STEPS])[direction]
    if (way) yield { way, direction }
  }
}

function* staying(
  at: Walks,
  d: Walks['d'],
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

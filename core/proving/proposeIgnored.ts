import { said } from '../messages/said.ts'
import type { Direction } from '../detections/types.ts'
import { contains, type Point } from '../geometry/shapes.ts'
import type { Draft, Gap } from './drafts.ts'
import { boxesOf, type Way } from './stage.ts'
import type { Walks } from './walks.ts'

/** A way that may trigger, and in which direction. */
export type Candidate = { way: Way; direction?: Direction }

/** Somebody who does at the shape what would trigger, with the feet in an ignore area. */
export function ignored(
  at: Walks,
  candidates: Iterable<Candidate>,
  areas: readonly (readonly Point[])[],
  drafts: Draft[],
  gaps: Gap[]
): void {
  if (!areas.length) return
  for (const { way, direction } of candidates) {
    const walk = at.walk(way)
    const moment = at.moment(walk, direction)
    if (moment === null) continue
    // Until the end of the walk: who comes out of the area while the condition holds does trigger.
    const after = boxesOf(at.stage.tracksOf(walk), 1).filter(({ time }) => time >= moment - 1e-6)
    if (!after.every(({ x, y, w, h }) => areas.some((area) => contains(area, x + w / 2, y + h))))
      continue
    drafts.push({
      key: 'ignore.inside',
      name: said('checkNames.insideIgnoreArea'),
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
    words: said('checkGaps.noIgnoreArea')
  })
}

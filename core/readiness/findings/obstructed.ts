import { said } from '../../messages/said.ts'
import { contains, type Point } from '../../geometry/shapes.ts'
import { ofDetection, perDetection } from '../facts.ts'
import { isAt, pathsFor, pointsOf, timeOf } from '../seen.ts'

/** Ends of targets within this part of the picture are at one place. */
const NEAR = 0.04
const LEAST = 4
/** Nearer to the edge a target has left the picture. */
const EDGE = 0.03

export const obstructed = perDetection('obstructed', (d, camera) => {
  if (!('classes' in d) || !pointsOf(d).length) return []
  const ends = pathsFor(camera, d).flatMap(({ clip: { tracks }, rows }): Point[] => {
    const i = rows[rows.length - 1]!
    const [x, y, w, h] = [tracks.x[i]!, tracks.y[i]!, tracks.w[i]!, tracks.h[i]!]
    const left = x < EDGE || y < EDGE || x + w > 1 - EDGE || y + h > 1 - EDGE
    const cut = timeOf(tracks, i) > timeOf(tracks, tracks.length - 1) - 1
    const there = 'zone' in d ? contains(d.zone, x + w / 2, y + h) : isAt(d, tracks, i)
    return left || cut || !there ? [] : [[x + w / 2, y + h]]
  })
  const most = Math.max(
    0,
    ...ends.map(
      ([ax, ay]) => ends.filter(([bx, by]) => Math.hypot(ax - bx, ay - by) <= NEAR).length
    )
  )
  if (most < LEAST) return []
  return ofDetection('hint', 'drawn', camera, d, said('readiness.obstructed', d.name, most))
})

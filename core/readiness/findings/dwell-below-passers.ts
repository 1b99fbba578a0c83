import type { Detection } from '../../formats/plan.ts'
import { edit, ofDetection, perDetection } from '../facts.ts'
import { footIn, pathsFor, quantile, rounded, timeOf, type Path } from '../seen.ts'

/** Who goes this straight is passing by, and not staying. */
const STRAIGHT = 0.7
const LEAST_PASSERS = 3

/** How long somebody takes who comes into a zone, goes straight across it, and leaves it; null: does not do that. */
function crossing({ clip: { tracks }, rows }: Path, zone: Extract<Detection, { zone: unknown }>['zone']): number | null {
  const inside = rows.map((i) => footIn(zone, tracks, i))
  const [first, last] = [inside.indexOf(true), inside.lastIndexOf(true)]
  if (first <= 0 || last === rows.length - 1) return null
  const at = (i: number): [number, number] => [tracks.x[rows[i]] + tracks.w[rows[i]] / 2, tracks.y[rows[i]] + tracks.h[rows[i]]]
  let length = 0
  for (let i = first; i < last; i++) length += Math.hypot(at(i + 1)[0] - at(i)[0], at(i + 1)[1] - at(i)[1])
  const straight = Math.hypot(at(last)[0] - at(first)[0], at(last)[1] - at(first)[1])
  return length > 0 && straight / length >= STRAIGHT ? timeOf(tracks, rows[last]) - timeOf(tracks, rows[first]) : null
}

export const dwellBelowPassers = perDetection('dwell-below-passers', (d, camera) => {
  if ((d.kind !== 'intrusion' && d.kind !== 'loitering') || d.dwellSeconds === 0) return []
  const took = pathsFor(camera, d).flatMap((path) => crossing(path, d.zone) ?? [])
  if (took.length < LEAST_PASSERS) return []
  const usual = quantile(took, 0.9)
  if (d.dwellSeconds > usual) return []
  const above = Math.ceil(usual + 0.5)
  return ofDetection('dwell-below-passers', 'hint', 'drawn', camera, d, `${d.name}: passers-by on the clips take up to ${rounded(usual)} s across it, and its dwell is ${d.dwellSeconds} s: it triggers for those who only pass.`, edit(camera, { ...d, dwellSeconds: above }, `Set the dwell to ${above} s`))
})

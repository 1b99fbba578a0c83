import { said } from '../../messages/said.ts'
import { edit, ofDetection, perDetection } from '../facts.ts'
import { boxesAt } from '../seen.ts'
import type { Detection } from '../../formats/plan.ts'

/** How much room is left around what was seen. */
const ROOM = 0.85

export const framesRejectAll = perDetection('frames-reject-all', (d, camera) => {
  if (!('classes' in d) || !d.size || !(d.size.min ?? d.size.max)) return []
  const { min, max } = d.size
  const boxes = boxesAt(d, camera)
  const fits = ({ w, h }: { w: number; h: number }): boolean =>
    !(min && w <= min.w && h <= min.h) && !(max && (w > max.w || h > max.h))
  if (!boxes.length || boxes.some(fits)) return []
  const [w, h] = [boxes.map((b) => b.w), boxes.map((b) => b.h)]
  const of = (list: number[], take: (...values: number[]) => number, by: number): number =>
    Math.min(1, Math.round(take(...list) * by * 1000) / 1000)
  const fitted = {
    ...d,
    size: {
      ...d.size,
      ...(min && { min: { w: of(w, Math.min, ROOM), h: of(h, Math.min, ROOM) } }),
      ...(max && { max: { w: of(w, Math.max, 1 / ROOM), h: of(h, Math.max, 1 / ROOM) } })
    }
  } as Detection
  return ofDetection(
    'warning',
    'drawn',
    camera,
    d,
    said('readiness.framesRejectAll', d.name),
    edit(camera, fitted, said('readiness.fitSizes'))
  )
})

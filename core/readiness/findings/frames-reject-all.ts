import { edit, inUse, ofDetection, type Check } from '../facts.ts'
import { isAt, pathsFor } from '../seen.ts'
import type { Detection } from '../../formats/plan.ts'

/** How much room is left around what was seen. */
const ROOM = 0.85

export const framesRejectAll: Check = {
  code: 'frames-reject-all',
  find: ({ cameras }) =>
    cameras.flatMap((camera) =>
      inUse(camera).flatMap((d) => {
        if (!('classes' in d) || !d.size || !(d.size.min ?? d.size.max)) return []
        const { min, max } = d.size
        const boxes = pathsFor(camera, d).flatMap(({ clip: { tracks }, rows }) => rows.filter((i) => isAt(d, tracks, i)).map((i) => ({ w: tracks.w[i], h: tracks.h[i] })))
        const fits = ({ w, h }: { w: number; h: number }): boolean => !(min && w <= min.w && h <= min.h) && !(max && (w > max.w || h > max.h))
        if (!boxes.length || boxes.some(fits)) return []
        const [w, h] = [boxes.map((b) => b.w), boxes.map((b) => b.h)]
        const of = (list: number[], take: (...values: number[]) => number, by: number): number => Math.min(1, Math.round(take(...list) * by * 1000) / 1000)
        const fitted = { ...d, size: { ...d.size, ...(min && { min: { w: of(w, Math.min, ROOM), h: of(h, Math.min, ROOM) } }), ...(max && { max: { w: of(w, Math.max, 1 / ROOM), h: of(h, Math.max, 1 / ROOM) } }) } } as Detection
        return ofDetection('frames-reject-all', 'warning', 'drawn', camera, d, `${d.name}: on the clips its size frames let no target through; it would not have triggered once.`, edit(camera, fitted, 'Fit the frames to the clips'))
      })
    )
}

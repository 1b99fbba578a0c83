import type { Detection } from '../../../core/formats/plan.ts'
import type { Point } from '../../../core/geometry/shapes.ts'
import { pointsOf } from './shape.ts'
import { hasShape } from '../../../core/kinds/schemas.ts'

/**
 * Where the feet of the smallest and of the largest frame stand: at the shape's far and near ends;
 * without a shape, in the picture's.
 */
export function framePlaces(d: Detection): { min: Point; max: Point } {
  if (!hasShape(d)) return { min: [0.35, 0.45], max: [0.65, 0.92] }
  const points = [...pointsOf(d)].sort((a, b) => a[1] - b[1])
  const [far, near] = [points[0]!, points[points.length - 1]!]
  // A level line has no far end: the two stand beside each other then.
  if (Math.abs(near[1] - far[1]) < 0.02) {
    const [left, right] = [...points]
      .sort((a, b) => a[0] - b[0])
      .filter((_, i, all) => i === 0 || i === all.length - 1) as [Point, Point]
    return { min: left, max: right }
  }
  return { min: far, max: near }
}

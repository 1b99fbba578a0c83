import type { Point } from '../geometry/shapes.ts'
import { shareInZone } from '../geometry/share.ts'
import type { Sighting } from './types.ts'

/** A zone that tells the share of a target's box in it; targets that are nowhere near cost next to nothing. */
export class Zone {
  private readonly polygon: readonly Point[]
  private readonly left: number
  private readonly top: number
  private readonly right: number
  private readonly bottom: number

  constructor(polygon: readonly Point[]) {
    this.polygon = polygon
    const xs = polygon.map(([x]) => x)
    const ys = polygon.map(([, y]) => y)
    this.left = Math.min(...xs)
    this.right = Math.max(...xs)
    this.top = Math.min(...ys)
    this.bottom = Math.max(...ys)
  }

  share({ x, y, w, h }: Sighting): number {
    if (x >= this.right || y >= this.bottom || x + w <= this.left || y + h <= this.top) return 0
    return shareInZone(this.polygon, x, y, w, h)
  }
}

import type { Point } from '../geometry/shapes.ts'
import { shareInOutline } from '../geometry/share.ts'
import type { Sighting } from './types.ts'

const zones = new WeakMap<readonly Point[], Zone>()

/** A zone that tells the share of a target's box in it; targets that are nowhere near cost next to nothing. */
export class Zone {
  private readonly xs: Float64Array
  private readonly ys: Float64Array
  private readonly left: number
  private readonly top: number
  private readonly right: number
  private readonly bottom: number

  constructor(polygon: readonly Point[]) {
    this.xs = Float64Array.from(polygon, ([x]) => x)
    this.ys = Float64Array.from(polygon, ([, y]) => y)
    this.left = Math.min(...this.xs)
    this.right = Math.max(...this.xs)
    this.top = Math.min(...this.ys)
    this.bottom = Math.max(...this.ys)
  }

  /** The zone of a polygon; of the same one always the same, so that detections that share it share its answers. */
  static of(polygon: readonly Point[]): Zone {
    let zone = zones.get(polygon)
    if (!zone) zones.set(polygon, (zone = new Zone(polygon)))
    return zone
  }

  /** The same of a row that the engine looks at, worked out once for all that ask one after the other. */
  shareAt(s: Sighting): number {
    if (s.zone !== this) {
      s.zone = this
      s.zoneShare = this.share(s)
    }
    return s.zoneShare
  }

  share({ x, y, w, h }: Pick<Sighting, 'x' | 'y' | 'w' | 'h'>): number {
    if (x >= this.right || y >= this.bottom || x + w <= this.left || y + h <= this.top) return 0
    return shareInOutline(this.xs, this.ys, x, y, w, h)
  }
}

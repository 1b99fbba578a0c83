import type { Point } from './shapes.ts'

/**
 * The part of a polygon's area that lies left of x = c or above y = c can be integrated edge by edge, so the
 * area of polygon ∩ box needs no clipped polygon at all: it is the sum, over the edges, of the signed area
 * between the edge and the box's left side, after clamping the edge to the box. The polygon may be concave.
 *
 * For one edge from (x1, y1) to (x2, y2): the edge is cut to the box's band in y; along what is left, x is
 * clamped to [0, w] (relative to the box's left), which makes at most three straight pieces; each adds
 * Δy · mean(x). Summed with the sign of Δy this is the shoelace area of the clipped polygon (Green's theorem).
 */
function edgeArea(x1: number, y1: number, x2: number, y2: number, w: number, h: number): number {
  if (y1 === y2) return 0
  let sign = 1
  if (y1 > y2) {
    ;[x1, y1, x2, y2] = [x2, y2, x1, y1]
    sign = -1
  }
  if (y2 <= 0 || y1 >= h) return 0
  const slope = (x2 - x1) / (y2 - y1)
  if (y1 < 0) {
    x1 -= slope * y1
    y1 = 0
  }
  if (y2 > h) {
    x2 -= slope * (y2 - h)
    y2 = h
  }
  const dy = y2 - y1
  if (x1 <= 0 && x2 <= 0) return 0
  if (x1 >= w && x2 >= w) return sign * w * dy
  if (x1 >= 0 && x1 <= w && x2 >= 0 && x2 <= w) return (sign * (x1 + x2) * dy) / 2
  const low = Math.min(x1, x2)
  const high = Math.max(x1, x2)
  const span = high - low
  const inLow = Math.max(low, 0)
  const inHigh = Math.min(high, w)
  const beyond = Math.max(high - w, 0)
  return sign * (dy / span) * (((inLow + inHigh) / 2) * (inHigh - inLow) + beyond * w)
}

/**
 * The share of a box that lies in a polygon: area(box ∩ polygon) / area(box), 0 to 1.
 *
 * @param xs, ys vertices of a simple polygon, picture coordinates, either winding, concave allowed
 * @returns 0 for a box without area
 */
export function shareInOutline(
  xs: Float64Array,
  ys: Float64Array,
  x: number,
  y: number,
  w: number,
  h: number
): number {
  const area = w * h
  if (!(area > 0)) return 0
  let sum = 0
  const n = xs.length
  let px = xs[n - 1]! - x
  let py = ys[n - 1]! - y
  for (let i = 0; i < n; i++) {
    const qx = xs[i]! - x
    const qy = ys[i]! - y
    // Edges beyond one end of the box's height, or to its left, add nothing; most are.
    if (!((py <= 0 && qy <= 0) || (py >= h && qy >= h) || (px <= 0 && qx <= 0)))
      sum += edgeArea(px, py, qx, qy, w, h)
    px = qx
    py = qy
  }
  return Math.min(1, Math.abs(sum) / area)
}

/** `shareInOutline` of a polygon given as points. */
export const shareInZone = (
  polygon: readonly Point[],
  x: number,
  y: number,
  w: number,
  h: number
): number =>
  shareInOutline(
    Float64Array.from(polygon, (p) => p[0]),
    Float64Array.from(polygon, (p) => p[1]),
    x,
    y,
    w,
    h
  )

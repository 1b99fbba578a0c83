/** A point in normalised picture coordinates: x from the left, y from the top, both 0 to 1. */
export type Point = readonly [x: number, y: number]

export interface Box {
  x: number
  y: number
  w: number
  h: number
}

/** Shares, times and dwells are compared with this allowance (docs/detections.md, *Units*). */
export const ALLOWANCE = 1e-9

/** `a` is at least `b`, allowing for rounding; "below" is the opposite. */
export const atLeast = (a: number, b: number): boolean => a >= b - ALLOWANCE

/**
 * Which side of the directed line `a→b` the point `p` is on. Negative: left, as seen by someone going from
 * `a` to `b` on the picture (y points down). Twice the signed area of the triangle.
 */
export const side = (
  ax: number,
  ay: number,
  bx: number,
  by: number,
  px: number,
  py: number
): number => (bx - ax) * (py - ay) - (by - ay) * (px - ax)

/**
 * Whether a point lies in a polygon, by the even–odd rule with half-open edges, so that of two polygons
 * sharing an edge exactly one has a point on it. Source: W. R. Franklin's PNPOLY crossing test.
 */
export function contains(polygon: readonly Point[], px: number, py: number): boolean {
  let inside = false
  for (let i = 0, j = polygon.length - 1; i < polygon.length; j = i++) {
    const [xi, yi] = polygon[i]!
    const [xj, yj] = polygon[j]!
    if (yi > py !== yj > py && px < ((xj - xi) * (py - yi)) / (yj - yi) + xi) inside = !inside
  }
  return inside
}

/** Signed area of a polygon (shoelace); its absolute value is the area in picture units squared. */
export function signedArea(polygon: readonly Point[]): number {
  let sum = 0
  for (let i = 0, j = polygon.length - 1; i < polygon.length; j = i++)
    sum += polygon[j]![0] * polygon[i]![1] - polygon[i]![0] * polygon[j]![1]
  return sum / 2
}

const onSegment = (a: Point, b: Point, p: Point): boolean =>
  Math.min(a[0], b[0]) <= p[0] &&
  p[0] <= Math.max(a[0], b[0]) &&
  Math.min(a[1], b[1]) <= p[1] &&
  p[1] <= Math.max(a[1], b[1])

/**
 * Whether two closed segments share a point. Source: Cormen et al., *Introduction to Algorithms*,
 * 33.1 (from memory).
 */
export function segmentsMeet(a: Point, b: Point, c: Point, d: Point): boolean {
  const d1 = side(c[0], c[1], d[0], d[1], a[0], a[1])
  const d2 = side(c[0], c[1], d[0], d[1], b[0], b[1])
  const d3 = side(a[0], a[1], b[0], b[1], c[0], c[1])
  const d4 = side(a[0], a[1], b[0], b[1], d[0], d[1])
  if (d1 * d2 < 0 && d3 * d4 < 0) return true
  return (
    (d1 === 0 && onSegment(c, d, a)) ||
    (d2 === 0 && onSegment(c, d, b)) ||
    (d3 === 0 && onSegment(a, b, c)) ||
    (d4 === 0 && onSegment(a, b, d))
  )
}

/**
 * The first pair of edges of a polygon that meet although they are not neighbours, or neighbours that fold
 * back onto each other; null for a simple polygon. Edge i runs from vertex i to the next one.
 */
export function selfCrossing(polygon: readonly Point[]): [number, number] | null {
  const n = polygon.length
  for (let i = 0; i < n; i++) {
    const a = polygon[i]!
    const b = polygon[(i + 1) % n]!
    for (let j = i + 1; j < n; j++) {
      const c = polygon[j]!
      const d = polygon[(j + 1) % n]!
      const next = j === i + 1
      const wraps = i === 0 && j === n - 1
      if (next || wraps) {
        const [shared, one, other] = next ? [b, a, d] : [a, b, c]
        const straight = side(one[0], one[1], shared[0], shared[1], other[0], other[1]) === 0
        const back =
          (one[0] - shared[0]) * (other[0] - shared[0]) +
            (one[1] - shared[1]) * (other[1] - shared[1]) >
          0
        if (straight && back) return [i, j]
      } else if (segmentsMeet(a, b, c, d)) return [i, j]
    }
  }
  return null
}

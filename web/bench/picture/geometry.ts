import type { Point } from '../../../core/geometry/shapes.ts'

export interface Barb {
  at: [number, number]
  /** Unit vector, in pixels, towards the side to which a crossing counts. */
  towards: [number, number]
}

export const toPixels = (
  points: readonly Point[],
  width: number,
  height: number
): [number, number][] => points.map(([x, y]) => [x * width, y * height])

/** Barbs at even distances along a line, pointing to its right (as seen from its first vertex to its last). */
export function barbsAlong(pixels: readonly [number, number][], every: number): Barb[] {
  const barbs: Barb[] = []
  for (let i = 0; i + 1 < pixels.length; i++) {
    const [ax, ay] = pixels[i]!
    const [bx, by] = pixels[i + 1]!
    const length = Math.hypot(bx - ax, by - ay)
    const count = Math.max(1, Math.floor(length / every))
    for (let k = 0; k < count; k++) {
      const t = (k + 0.5) / count
      barbs.push({
        at: [ax + (bx - ax) * t, ay + (by - ay) * t],
        towards: [-(by - ay) / length, (bx - ax) / length]
      })
    }
  }
  return barbs
}

/** Where the name of a side stands: off the middle of the line, to its right (sign 1) or left (sign -1). */
export function sideLabelAt(
  pixels: readonly [number, number][],
  sign: 1 | -1,
  away: number
): [number, number] {
  const lengths = pixels
    .slice(1)
    .map(([x, y], i) => Math.hypot(x - pixels[i]![0], y - pixels[i]![1]))
  let half = lengths.reduce((a, b) => a + b, 0) * 0.72
  let i = 0
  while (i < lengths.length - 1 && half > lengths[i]!) half -= lengths[i++]!
  const [ax, ay] = pixels[i]!
  const [bx, by] = pixels[i + 1]!
  const t = lengths[i]! > 0 ? half / lengths[i]! : 0
  return [
    ax + (bx - ax) * t - (sign * (by - ay) * away) / lengths[i]!,
    ay + (by - ay) * t + (sign * (bx - ax) * away) / lengths[i]!
  ]
}

const clamp = (v: number): number => Math.min(1, Math.max(0, v))

/** A point of the picture, kept inside it and rounded to a hundredth of a percent. */
export const pointOf = (x: number, y: number): Point => [
  Math.round(clamp(x) * 1e4) / 1e4,
  Math.round(clamp(y) * 1e4) / 1e4
]

/** The points moved together; stopped as a whole at the picture's edge, so that the shape keeps its form. */
export function moved(points: readonly Point[], dx: number, dy: number): Point[] {
  const xs = points.map(([x]) => x)
  const ys = points.map(([, y]) => y)
  const mx = Math.min(Math.max(dx, -Math.min(...xs)), 1 - Math.max(...xs))
  const my = Math.min(Math.max(dy, -Math.min(...ys)), 1 - Math.max(...ys))
  return points.map(([x, y]) => pointOf(x + mx, y + my))
}

/**
 * A place brought onto the nearest of the eight directions from another: 0°, 45°, 90° and so on, as
 * seen on the picture.
 */
export function snapped(from: Point, to: Point, aspect: number): Point {
  const [dx, dy] = [(to[0] - from[0]) * aspect, to[1] - from[1]]
  const angle = (Math.round(Math.atan2(dy, dx) / (Math.PI / 4)) * Math.PI) / 4
  const length = dx * Math.cos(angle) + dy * Math.sin(angle)
  // As far as the picture goes, so that the direction stays.
  const [ux, uy] = [Math.cos(angle) / aspect, Math.sin(angle)]
  const room = (v: number, u: number): number =>
    Math.abs(u) < 1e-12 ? Infinity : u > 0 ? (1 - v) / u : -v / u
  const reach = Math.max(0, Math.min(length, room(from[0], ux), room(from[1], uy)))
  return pointOf(from[0] + ux * reach, from[1] + uy * reach)
}

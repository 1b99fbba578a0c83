import type { Detection } from '../formats/plan.ts'
import type { Point } from '../geometry/shapes.ts'
import { groundAt, project, type CameraPose } from './camera.ts'

/** A shape brought to another camera's picture, and how. */
export interface Copied {
  points: Point[]
  /**
   * `ground`: it lies at the same place of the ground before both cameras; `picture`: at the same
   * place of the picture.
   */
  through: 'ground' | 'picture'
  /** How many times as large a target at the shape is on the other picture; 1 through the picture. */
  scale: number
  /** Part of it lies outside of the other picture, and was cut off. */
  cut: boolean
}

const round = (v: number): number => Math.round(v * 1e4) / 1e4
const tidy = (points: readonly (readonly [number, number])[]): Point[] =>
  points
    .map(([x, y]): Point => [round(x), round(y)])
    .filter(([x, y], i, all) => i === 0 || x !== all[i - 1]![0] || y !== all[i - 1]![1])

/**
 * A shape drawn on one camera's picture, for another's. With both scenes measured, each vertex goes through the ground:
 * it stands as many metres before and beside the foot of the other camera as before the first. A straight edge on one
 * pinhole's picture of the ground is straight on the other's, so that the vertices are enough.
 *
 * @param closed a zone rather than a line
 * @returns through the picture, scaled with it, unless both are measured and the shape lies on ground that both see
 */
export function copyShape(
  points: readonly Point[],
  closed: boolean,
  from: CameraPose | null,
  to: CameraPose | null
): Copied {
  const same: Copied = { points: [...points], through: 'picture', scale: 1, cut: false }
  if (!from || !to) return same
  const grounds = points.map(([x, y]) => groundAt(from, x, y))
  if (grounds.some((g) => g === null)) return same
  const seen = grounds.map((g) => project(to, g!))
  if (seen.some(({ depth }) => depth <= 0.01)) return same
  const there = seen.map(({ x, y }): [number, number] => [x, y])
  const inside = closed ? clipPolygon(there) : clipLine(there)
  const kept = tidy(inside)
  if (
    closed &&
    kept.length > 1 &&
    kept[0]![0] === kept[kept.length - 1]![0] &&
    kept[0]![1] === kept[kept.length - 1]![1]
  )
    kept.pop()
  if (kept.length < (closed ? 3 : 2)) return same
  const scale =
    seen.reduce((sum, { perMetre }, i) => sum + perMetre / project(from, grounds[i]!).perMetre, 0) /
    seen.length
  return {
    points: kept,
    through: 'ground',
    scale,
    cut: there.some(([x, y]) => x < -1e-9 || x > 1 + 1e-9 || y < -1e-9 || y > 1 + 1e-9)
  }
}

type P = readonly [number, number]

const edges: { inside: (p: P) => boolean; meet: (a: P, b: P) => P }[] = [
  { inside: ([x]) => x >= 0, meet: (a, b) => at(a, b, (0 - a[0]) / (b[0] - a[0])) },
  { inside: ([x]) => x <= 1, meet: (a, b) => at(a, b, (1 - a[0]) / (b[0] - a[0])) },
  { inside: ([, y]) => y >= 0, meet: (a, b) => at(a, b, (0 - a[1]) / (b[1] - a[1])) },
  { inside: ([, y]) => y <= 1, meet: (a, b) => at(a, b, (1 - a[1]) / (b[1] - a[1])) }
]
const at = (a: P, b: P, t: number): P => [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t]

/** The part of a polygon on the picture. Source: Sutherland and Hodgman, *Reentrant Polygon Clipping* (from memory). */
function clipPolygon(polygon: readonly P[]): P[] {
  return edges.reduce<P[]>(
    (points, { inside, meet }) => {
      const out: P[] = []
      points.forEach((p, i) => {
        const before = points[(i + points.length - 1) % points.length]!
        if (inside(p) !== inside(before)) out.push(meet(before, p))
        if (inside(p)) out.push(p)
      })
      return out
    },
    [...polygon]
  )
}

/** The longest stretch of a polyline on the picture; one that leaves it and comes back would be two lines. */
function clipLine(line: readonly P[]): P[] {
  const stretches: P[][] = [[]]
  for (let i = 1; i < line.length; i++) {
    const part = edges.reduce<P[] | null>(
      (pair, { inside, meet }) => {
        if (!pair) return null
        const [a, b] = pair as [P, P]
        if (inside(a) && inside(b)) return pair
        if (!inside(a) && !inside(b)) return null
        return inside(a) ? [a, meet(a, b)] : [meet(a, b), b]
      },
      [line[i - 1]!, line[i]!]
    )
    const last = stretches[stretches.length - 1]!
    if (!part) {
      if (last.length) stretches.push([])
      continue
    }
    if (!last.length) last.push(part[0]!)
    last.push(part[1]!)
    if (part[1] !== line[i]) stretches.push([])
  }
  const length = (s: readonly P[]): number =>
    s.slice(1).reduce((sum, [x, y], i) => sum + Math.hypot(x - s[i]![0], y - s[i]![1]), 0)
  return stretches.reduce((a, b) => (length(b) > length(a) ? b : a))
}

/** Size limits on the other picture, so many times as high and as wide. Metres stay. */
export function scaledSize<D extends Detection>(d: D, high: number, wide: number): D {
  if (!('size' in d) || !d.size) return d
  const frame = (f: { w: number; h: number }): { w: number; h: number } => ({
    w: Math.min(1, round(f.w * wide)),
    h: Math.min(1, round(f.h * high))
  })
  return {
    ...d,
    size: {
      ...d.size,
      ...(d.size.min && { min: frame(d.size.min) }),
      ...(d.size.max && { max: frame(d.size.max) })
    }
  }
}

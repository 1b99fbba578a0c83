import { type Said } from '../../../core/messages/said.ts'
import { shape as msg } from '../../../core/messages/en/bench/picture.ts'
import { InputError } from '../../../core/errors.ts'
import {
  type Detection,
  type LineDetection,
  type ShapeDetection,
  type ZoneDetection
} from '../../../core/formats/plan.ts'
import { contains, selfCrossing, signedArea, type Point } from '../../../core/geometry/shapes.ts'
import { LineSchema, ZoneSchema } from '../../../core/schema/parts.ts'
import { parseWith } from '../../../core/schema/parse.ts'

/** What can be drawn: a detection of a kind, or an area in which nothing counts. */
export type DrawnKind = ShapeDetection['kind'] | 'ignore'

/** A shape on the picture, whatever it is of. */
export interface PictureShape {
  kind: DrawnKind
  name: string
  points: readonly Point[]
}

export const isZone = (d: Detection): d is ZoneDetection => 'zone' in d

export const pointsOf = (d: ShapeDetection): readonly Point[] => (isZone(d) ? d.zone : d.line)
export const withPoints = (d: ShapeDetection, points: Point[]): ShapeDetection =>
  isZone(d) ? { ...d, zone: points } : { ...d, line: points }

export const shapeOf = (d: ShapeDetection): PictureShape => ({
  kind: d.kind,
  name: d.name,
  points: pointsOf(d)
})
export const areaShape = (points: readonly Point[], index: number): PictureShape => ({
  kind: 'ignore',
  name: msg.ignoreArea(index + 1),
  points
})

export const shapeName = (kind: DrawnKind): string =>
  kind === 'line' ? msg.line : kind === 'ignore' ? msg.ignoreArea2 : msg.zone
export const isClosed = (kind: DrawnKind): boolean => kind !== 'line'

/** How few vertices a shape needs, and how many it may have. */
export const limitsOf = (kind: DrawnKind): { least: number; most: number } =>
  kind === 'line' ? { least: 2, most: 10 } : { least: 3, most: 40 }

/** What is wrong with the vertices of a shape; null: nothing. */
export function shapeFault(kind: DrawnKind, points: readonly Point[]): Said | string | null {
  try {
    parseWith(kind === 'line' ? LineSchema : ZoneSchema, points)
    return null
  } catch (error) {
    if (error instanceof InputError) return error.said
    throw error
  }
}

/** The two edges of a zone that cross, as pairs of vertices; null: none do. */
export function crossingEdges(zone: readonly Point[]): [Point, Point][] | null {
  const pair = zone.length > 3 ? selfCrossing(zone) : null
  return pair && pair.map((i) => [zone[i], zone[(i + 1) % zone.length]] as [Point, Point])
}

const segments = ({ kind, points }: PictureShape): [Point, Point][] => {
  const open = points.slice(1).map((p, i): [Point, Point] => [points[i]!, p])
  return isClosed(kind) ? [...open, [points[points.length - 1]!, points[0]!]] : open
}

/** How far a place is from a segment. */
function distanceTo([[ax, ay], [bx, by]]: [Point, Point], [px, py]: Point): number {
  const t = Math.min(
    1,
    Math.max(0, ((px - ax) * (bx - ax) + (py - ay) * (by - ay)) / ((bx - ax) ** 2 + (by - ay) ** 2))
  )
  return Math.hypot(ax + (bx - ax) * t - px, ay + (by - ay) * t - py)
}

/** With a vertex more, on the edge that is nearest to a place; null: there are as many as there may be. */
export function withVertexAt(shape: PictureShape, at: Point): Point[] | null {
  const { kind, points } = shape
  if (points.length >= limitsOf(kind).most) return null
  const distances = segments(shape).map((segment) => distanceTo(segment, at))
  const best = distances.indexOf(Math.min(...distances))
  const more = [...points.slice(0, best + 1), at, ...points.slice(best + 1)]
  return shapeFault(kind, more) === null ? more : null
}

/**
 * With a vertex more in the middle of the edge that follows one; null: there are as many as there
 * may be, or no edge follows.
 */
export function withVertexAfter(shape: PictureShape, index: number): Point[] | null {
  const { kind, points } = shape
  const next = points[index + 1] ?? (isClosed(kind) ? points[0] : undefined)
  if (!next || points.length >= limitsOf(kind).most) return null
  const [ax, ay] = points[index]!
  const more = [
    ...points.slice(0, index + 1),
    [(ax + next[0]) / 2, (ay + next[1]) / 2] as const,
    ...points.slice(index + 1)
  ]
  return shapeFault(kind, more) === null ? more : null
}

/** With a vertex less; null: it would be no shape. */
export function withoutVertex({ kind, points }: PictureShape, index: number): Point[] | null {
  const less = points.filter((_, i) => i !== index)
  return shapeFault(kind, less) === null ? less : null
}

/**
 * Which shapes are under a place of the picture: those whose outline is near, or that have it inside. In their order.
 *
 * @param near how near an outline counts, as a share of the picture's width
 */
export function shapesAt(
  shapes: readonly PictureShape[],
  at: Point,
  near: number,
  aspect: number
): number[] {
  const even = ([x, y]: Point): Point => [x, y / aspect]
  return shapes.flatMap((shape, i) => {
    const inside = isClosed(shape.kind) && contains(shape.points, at[0], at[1])
    return inside ||
      segments(shape).some(([a, b]) => distanceTo([even(a), even(b)], even(at)) <= near)
      ? [i]
      : []
  })
}

/** The line with the direction that counts turned over; where both count, the names of the sides change places. */
export function mirrored(line: LineDetection): LineDetection {
  if (line.direction !== 'both')
    return { ...line, direction: line.direction === 'leftToRight' ? 'rightToLeft' : 'leftToRight' }
  const { left, right } = line.sides ?? {}
  return {
    ...line,
    line: [...line.line].reverse(),
    sides: {
      ...(right !== undefined && { left: right }),
      ...(left !== undefined && { right: left })
    }
  }
}

/**
 * A shape cut in two at a vertex: a line at it, a zone along the diagonal from it that halves its area best. null: it
 * cannot be cut there.
 */
export function splitAt({ kind, points }: PictureShape, vertex: number): [Point[], Point[]] | null {
  if (!isClosed(kind))
    return vertex > 0 && vertex < points.length - 1
      ? [points.slice(0, vertex + 1), points.slice(vertex)]
      : null
  const around = [...points.slice(vertex), ...points.slice(0, vertex)]
  let best: [Point[], Point[]] | null = null
  let least = Infinity
  for (let to = 2; to < around.length - 1; to++) {
    const halves: [Point[], Point[]] = [around.slice(0, to + 1), [around[0]!, ...around.slice(to)]]
    if (halves.some((half) => shapeFault(kind, half) !== null)) continue
    const [a, b] = halves.map((half) => Math.abs(signedArea(half))) as [number, number]
    // A diagonal that runs outside makes two parts that are more than the whole.
    if (Math.abs(a + b - Math.abs(signedArea(points))) > 1e-9 || Math.abs(a - b) >= least) continue
    least = Math.abs(a - b)
    best = halves
  }
  return best
}

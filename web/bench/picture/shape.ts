import { InputError } from '../../../core/errors.ts'
import { DetectionSchema, LineSchema, ZoneSchema, parseWith, type Detection, type LineDetection } from '../../../core/formats/plan.ts'
import { selfCrossing, type Point } from '../../../core/geometry/shapes.ts'

/** Detections that are drawn on the picture: an open line, or a closed zone. */
export type ZoneDetection = Extract<Detection, { zone: unknown }>
export type DrawnDetection = LineDetection | ZoneDetection

export const ZONE_KINDS = ['intrusion', 'loitering', 'entry', 'exit'] as const satisfies readonly ZoneDetection['kind'][]
export type DrawnKind = DrawnDetection['kind']

export const isZone = (d: Detection): d is ZoneDetection => 'zone' in d
export const isDrawn = (d: Detection): d is DrawnDetection => d.kind === 'line' || isZone(d)

export const pointsOf = (d: DrawnDetection): readonly Point[] => (isZone(d) ? d.zone : d.line)
export const withPoints = (d: DrawnDetection, points: Point[]): DrawnDetection => (isZone(d) ? { ...d, zone: points } : { ...d, line: points })

export const shapeName = (kind: DrawnKind): 'line' | 'zone' => (kind === 'line' ? 'line' : 'zone')

/** How few vertices a shape needs, and how many it may have. */
export const limitsOf = (kind: DrawnKind): { least: number; most: number } => (kind === 'line' ? { least: 2, most: 10 } : { least: 3, most: 40 })

/** What is wrong with the vertices of a shape, in words; null: nothing. */
export function shapeFault(kind: DrawnKind, points: readonly Point[]): string | null {
  try {
    parseWith(kind === 'line' ? LineSchema : ZoneSchema, points)
    return null
  } catch (error) {
    if (error instanceof InputError) return error.message.replace(/^\$: /, '')
    throw error
  }
}

/** The two edges of a zone that cross, as pairs of vertices; null: none do. */
export function crossingEdges(zone: readonly Point[]): [Point, Point][] | null {
  const pair = zone.length > 3 ? selfCrossing(zone) : null
  return pair && pair.map((i) => [zone[i], zone[(i + 1) % zone.length]] as [Point, Point])
}

const segments = (d: DrawnDetection): [Point, Point][] => {
  const points = pointsOf(d)
  const open = points.slice(1).map((p, i): [Point, Point] => [points[i], p])
  return isZone(d) ? [...open, [points[points.length - 1], points[0]]] : open
}

/** A vertex more, on the edge that is nearest to a place; null: there are as many as there may be. */
export function withVertexAt(d: DrawnDetection, [px, py]: Point): DrawnDetection | null {
  const points = pointsOf(d)
  if (points.length >= limitsOf(d.kind).most) return null
  let best = 0
  let least = Infinity
  segments(d).forEach(([[ax, ay], [bx, by]], i) => {
    const t = Math.min(1, Math.max(0, ((px - ax) * (bx - ax) + (py - ay) * (by - ay)) / ((bx - ax) ** 2 + (by - ay) ** 2)))
    const distance = Math.hypot(ax + (bx - ax) * t - px, ay + (by - ay) * t - py)
    if (distance < least) [best, least] = [i, distance]
  })
  const more = withPoints(d, [...points.slice(0, best + 1), [px, py], ...points.slice(best + 1)])
  return shapeFault(d.kind, pointsOf(more)) === null ? more : null
}

/** A vertex less; null: the shape would be none. */
export function withoutVertex(d: DrawnDetection, index: number): DrawnDetection | null {
  const less = withPoints(d, pointsOf(d).filter((_, i) => i !== index))
  return shapeFault(d.kind, pointsOf(less)) === null ? less : null
}

/** The same zone as another kind: what both have stays, the rest gets its usual value. */
export function asZoneKind(d: ZoneDetection, kind: ZoneDetection['kind']): ZoneDetection {
  const { id, name, enabled, parked, holdOffSeconds, schedule, armInput, classes, confirmSeconds, size, sensitivity, zone } = d
  const both = { id, name, enabled, holdOffSeconds, classes, confirmSeconds, sensitivity, zone, kind, ...(parked !== undefined && { parked }), ...(schedule && { schedule }), ...(armInput && { armInput }), ...(size && { size }) }
  const stays = 'dwellSeconds' in d ? { countFirstSeenInside: d.countFirstSeenInside, atLeast: d.atLeast } : {}
  const own = kind === 'intrusion' ? { ...stays, dwellSeconds: 'dwellSeconds' in d ? d.dwellSeconds : 3 } : kind === 'loitering' ? { ...stays, dwellSeconds: 'dwellSeconds' in d ? Math.max(1, d.dwellSeconds) : 30 } : {}
  return parseWith(DetectionSchema, { ...both, ...own }) as ZoneDetection
}

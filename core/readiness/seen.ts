import { shapeOf } from '../kinds/schemas.ts'
import { needOf } from '../detections/index.ts'
import type { Point } from '../geometry/shapes.ts'
import { shareInZone } from '../geometry/share.ts'
import type { Detection, TargetGated } from '../formats/plan.ts'
import { frameTime, spansOf, type TargetSpan, type Tracks } from '../targets/tracks.ts'
import type { CameraFacts, ClipFacts } from './facts.ts'

/** A target's stay on a clip. */
export interface Path extends TargetSpan {
  clip: ClipFacts
}

const known = new WeakMap<ClipFacts, Path[]>()

/** The targets of a clip; found once, however many findings ask. */
export function pathsOn(clip: ClipFacts): Path[] {
  const paths = known.get(clip) ?? spansOf(clip.tracks).map((span) => ({ ...span, clip }))
  known.set(clip, paths)
  return paths
}

/** Targets of the classes that a detection wants; every class where it names none. */
export const pathsFor = (camera: CameraFacts, d: TargetGated): Path[] =>
  camera.clips
    .flatMap(pathsOn)
    .filter((path) => d.classes.length === 0 || (d.classes as readonly string[]).includes(path.cls))

export const timeOf = (tracks: Tracks, row: number): number =>
  frameTime(tracks.frame[row]!, tracks.fps)

/** Whether a box touches a polyline. */
function touchesLine(line: readonly Point[], x: number, y: number, w: number, h: number): boolean {
  for (let s = 0; s + 1 < line.length; s++) {
    // Liang and Barsky's clipping of a segment to a box, from the published method.
    let [t0, t1] = [0, 1]
    const [[ax, ay], [bx, by]] = [line[s]!, line[s + 1]!]
    const [dx, dy] = [bx - ax, by - ay]
    let out = false
    for (const [p, q] of [
      [-dx, ax - x],
      [dx, x + w - ax],
      [-dy, ay - y],
      [dy, y + h - ay]
    ] as const) {
      if (p === 0) out ||= q < 0
      else if (p < 0) t0 = Math.max(t0, q / p)
      else t1 = Math.min(t1, q / p)
    }
    if (!out && t0 <= t1) return true
  }
  return false
}

/** Whether a target's row is at the shape of a detection: its box touches the line, or enough of it is in the zone. */
export function isAt(d: Detection, tracks: Tracks, i: number): boolean {
  const [x, y, w, h] = [tracks.x[i]!, tracks.y[i]!, tracks.w[i]!, tracks.h[i]!]
  if ('line' in d) return touchesLine(d.line, x, y, w, h)
  if ('zone' in d) return shareInZone(d.zone, x, y, w, h) >= needOf(d.sensitivity)
  return true
}

/**
 * The boxes, as shares of the picture, of the targets of the wanted classes while they are at the
 * shape of a detection.
 */
export const boxesAt = (
  d: TargetGated & Detection,
  camera: CameraFacts
): { w: number; h: number }[] =>
  pathsFor(camera, d).flatMap(({ clip: { tracks }, rows }) =>
    rows.filter((i) => isAt(d, tracks, i)).map((i) => ({ w: tracks.w[i]!, h: tracks.h[i]! }))
  )

/** The points of a detection's shape. */
export const pointsOf = (d: Detection): readonly Point[] => shapeOf(d) ?? []

/** With a unit, to a sensible number of places: 5.2 s, 12 s. */
export const rounded = (value: number, places = 1): string =>
  String(Math.round(value * 10 ** places) / 10 ** places)

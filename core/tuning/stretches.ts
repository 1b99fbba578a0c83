import { evaluate, type Setting, type Trigger } from '../detections/index.ts'
import type { Camera, Detection, Plan } from '../formats/plan.ts'
import { shapeOf } from '../formats/plan.ts'
import type { ArmInputs } from '../arming/armInputs.ts'
import { emptyTracks, type Tracks } from '../targets/tracks.ts'

/** Some time of one camera, without a gap of the clock: a clip, or what was kept of an hour. */
export interface Stretch {
  tracks: Tracks
  /** The instant of frame 1, ms of UTC. */
  start: number
  inputs?: ArmInputs
}

/** Where a detection is tuned. */
export interface Place {
  plan: Pick<Plan, 'schedules' | 'timeZone' | 'position'>
  camera: Pick<Camera, 'ignore' | 'scene'>
}

/** The triggers that detections would have in a stretch, by detection; they count as switched on. */
export function triggersOfMany(
  { plan, camera }: Place,
  detections: readonly Detection[],
  { tracks, start, inputs }: Stretch
): Map<string, Trigger[]> {
  const setting: Setting = {
    plan,
    camera: {
      ...camera,
      detections: detections.map((d) => ({ ...d, enabled: true, parked: undefined }))
    },
    fps: tracks.fps,
    start,
    ...(inputs && { inputs })
  }
  const found = new Map<string, Trigger[]>(detections.map(({ id }) => [id, []]))
  for (const trigger of evaluate(setting, tracks)) found.get(trigger.detection)!.push(trigger)
  return found
}

/** The triggers of one detection. */
export const triggersIn = (place: Place, detection: Detection, stretch: Stretch): Trigger[] =>
  triggersOfMany(place, [detection], stretch).get(detection.id)!

/** The rows of some targets, the others left out. */
export function rowsOfTargets(t: Tracks, keep: (target: number, row: number) => boolean): Tracks {
  const rows: number[] = []
  for (let i = 0; i < t.length; i++) if (keep(t.id[i]!, i)) rows.push(i)
  const part: Tracks = { ...emptyTracks(rows.length, t.fps), ...(t.faces && { faces: t.faces }) }
  rows.forEach((row, i) => {
    part.frame[i] = t.frame[row]!
    part.id[i] = t.id[row]!
    part.x[i] = t.x[row]!
    part.y[i] = t.y[row]!
    part.w[i] = t.w[row]!
    part.h[i] = t.h[row]!
    part.cls[i] = t.cls[row]!
    part.confidence[i] = t.confidence[row]!
  })
  return part
}

/** The box around a detection's line or zone, larger by a margin; null where it has neither. */
export function boundsOf(
  d: Detection,
  margin = 0
): Record<'left' | 'top' | 'right' | 'bottom', number> | null {
  const shape = shapeOf(d)
  if (!shape) return null
  const xs = shape.map(([x]) => x)
  const ys = shape.map(([, y]) => y)
  return {
    left: Math.min(...xs) - margin,
    top: Math.min(...ys) - margin,
    right: Math.max(...xs) + margin,
    bottom: Math.max(...ys) + margin
  }
}

/**
 * The targets that come near a detection's line or zone: no other can trigger it, nor with its shape moved by so much.
 * A step over the shape between two rows counts.
 *
 * @param margin a share of the picture
 */
export function nearShape(t: Tracks, d: Detection, margin: number): Set<number> {
  const bounds = boundsOf(d, margin)
  if (!bounds) return new Set(t.id)
  const { left, top, right, bottom } = bounds
  const near = new Set<number>()
  const before = new Map<number, number>()
  for (let i = 0; i < t.length; i++) {
    const id = t.id[i]!
    if (near.has(id)) continue
    const j = before.get(id) ?? i
    before.set(id, i)
    if (
      Math.min(t.x[i]!, t.x[j]!) <= right &&
      Math.min(t.y[i]!, t.y[j]!) <= bottom &&
      Math.max(t.x[i]! + t.w[i]!, t.x[j]! + t.w[j]!) >= left &&
      Math.max(t.y[i]! + t.h[i]!, t.y[j]! + t.h[j]!) >= top
    )
      near.add(id)
  }
  return near
}

/** Whether each target triggers a detection, or does not, whatever others do. */
export const isAlone = (d: Detection): boolean =>
  d.holdOffSeconds === 0 && !('atLeast' in d && d.atLeast > 1)

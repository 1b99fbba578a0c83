import { CALM } from '../formats/weather.ts'
import type { Setting } from '../detections/index.ts'
import { evaluate, type Trigger } from '../detections/index.ts'
import type { Camera, Detection } from '../formats/plan.ts'
import type { Walk, WalkActor } from '../formats/walk.ts'
import { groundAt, type CameraPose } from '../scene/camera.ts'
import type { Tracks } from '../targets/tracks.ts'

/** Where walks are walked: a camera above measured ground, and who tells what it truly sees of a walk. */
export interface Stage {
  pose: CameraPose
  fps: number
  tracksOf(walk: Walk): Tracks
}

export type Ground = readonly [x: number, z: number]
export type Way = (
  readonly [x: number, z: number] | readonly [x: number, z: number, pause: number]
)[]

/** What happens while nothing special does. */
export const plainWalk = (seconds: number, actors: WalkActor[]): Walk => ({
  seconds,
  light: 'day',
  weather: CALM,
  headlights: [],
  insects: [],
  faults: [],
  actors,
  inputs: {},
  seed: 1
})

export const actor = (
  kind: WalkActor['kind'],
  way: Way,
  more: Partial<WalkActor> = {}
): WalkActor => ({
  kind,
  from: 0,
  members: 3,
  mask: false,
  way: way as unknown as WalkActor['way'],
  ...more
})

export const lengthOf = (way: Way): number =>
  way.slice(1).reduce((sum, [x, z], i) => sum + Math.hypot(x - way[i]![0], z - way[i]![1]), 0)
/** Seconds that a way takes at a speed, with its pauses. */
export const secondsOf = (way: Way, speed: number): number =>
  lengthOf(way) / speed + way.slice(0, -1).reduce((sum, point) => sum + (point[2] ?? 0), 0)

/** The farthest that ground is walked on: beyond, a person is too small to be seen. */
const FARTHEST = 60

export function groundOf(pose: CameraPose, x: number, y: number): Ground | null {
  const found = groundAt(pose, x, y)
  return found && found.z > 0.5 && found.z <= FARTHEST ? [found.x, found.z] : null
}

export interface Box {
  time: number
  x: number
  y: number
  w: number
  h: number
}

/** The boxes of one target over a walk. */
export function boxesOf(tracks: Tracks, id: number): Box[] {
  const boxes: Box[] = []
  for (let i = 0; i < tracks.length; i++)
    if (tracks.id[i] === id)
      boxes.push({
        time: (tracks.frame[i]! - 1) / tracks.fps,
        x: tracks.x[i]!,
        y: tracks.y[i]!,
        w: tracks.w[i]!,
        h: tracks.h[i]!
      })
  return boxes
}

/**
 * The triggers of a detection's own condition, with every gate before and after it open: what a way does at the line or
 * in the zone, whoever walks it and whenever. Says where a walk has to go, not whether the detection is set right.
 */
export function bare(
  detection: Detection,
  tracks: Tracks,
  change: Partial<Detection> = {}
): Trigger[] {
  const open = {
    ...detection,
    enabled: true,
    parked: undefined,
    schedule: undefined,
    armInput: undefined,
    holdOffSeconds: 0,
    ...('classes' in detection && { classes: [], confirmSeconds: 0, size: undefined }),
    ...change
  } as Detection
  const camera: Pick<Camera, 'ignore' | 'detections'> = { ignore: [], detections: [open] }
  const setting: Setting = {
    plan: { schedules: [], timeZone: 'UTC' },
    camera,
    fps: tracks.fps,
    start: 0
  }
  return evaluate(setting, tracks)
}

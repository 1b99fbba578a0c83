import { project, type CameraPose, type GroundPoint } from '../core/scene/camera.ts'
import type { Box } from '../core/geometry/shapes.ts'
import type { TargetClass } from '../core/targets/classes.ts'

export type ActorKind = 'adult' | 'dog' | 'gull'

/** A place on an actor's way: metres on the ground, metres above it for what flies, seconds to stay there. */
export interface WayPoint extends GroundPoint {
  pause?: number
}

export interface Actor {
  id: number
  kind: ActorKind
  /** Seconds from the start of the clip. */
  from: number
  /** Metres per second. */
  speed: number
  way: WayPoint[]
  /** Metres; adults 1.5 to 2. */
  height: number
  colours: { top: string; legs: string; hair: string }
}

export interface Script {
  name: string
  seconds: number
  fps: number
  width: number
  height: number
  camera: CameraPose
  /** The water's edge on the ground, from left to right, metres. */
  shore: GroundPoint[]
  actors: Actor[]
  seed: number
}

/** Where an actor is at a moment, and how it moves. */
export interface Pose {
  at: Required<GroundPoint>
  /** Unit direction of movement on the ground. */
  heading: [x: number, z: number]
  moving: boolean
  /** Metres walked so far; drives the legs. */
  walked: number
}

const distance = (a: GroundPoint, b: GroundPoint): number => Math.hypot(b.x - a.x, (b.y ?? 0) - (a.y ?? 0), b.z - a.z)

/** The pose of an actor at `time` seconds, or null before it has come and after it has gone. */
export function poseAt(actor: Actor, time: number): Pose | null {
  let left = time - actor.from
  if (left < 0) return null
  let walked = 0
  for (let i = 0; i + 1 < actor.way.length; i++) {
    const a = actor.way[i]
    const b = actor.way[i + 1]
    const length = distance(a, b)
    const heading: [number, number] = length > 0 ? [(b.x - a.x) / length, (b.z - a.z) / length] : [1, 0]
    const full = (p: GroundPoint): Required<GroundPoint> => ({ x: p.x, y: p.y ?? 0, z: p.z })
    if (left < (a.pause ?? 0)) return { at: full(a), heading, moving: false, walked }
    left -= a.pause ?? 0
    const takes = length / actor.speed
    if (left < takes) {
      const t = left / takes
      const [from, to] = [full(a), full(b)]
      return { at: { x: from.x + (to.x - from.x) * t, y: from.y + (to.y - from.y) * t, z: from.z + (to.z - from.z) * t }, heading, moving: true, walked: walked + length * t }
    }
    left -= takes
    walked += length
  }
  return null
}

const classes: Record<ActorKind, TargetClass> = { adult: 'person', dog: 'animal', gull: 'animal' }
/** Width over height of an actor as seen from the side. */
const widths: Record<ActorKind, number> = { adult: 0.42, dog: 1.45, gull: 2.6 }

export interface TrueTarget {
  id: number
  cls: TargetClass
  box: Box
}

/** What is truly in view at a moment: the box of each actor, not cut at the picture's edge. */
export function truth(script: Script, time: number): TrueTarget[] {
  return script.actors.flatMap((actor) => {
    const pose = poseAt(actor, time)
    if (!pose) return []
    const foot = project(script.camera, pose.at)
    if (foot.depth <= 0.5) return []
    const h = actor.height * foot.perMetre
    const w = (h * widths[actor.kind]) / script.camera.aspect
    return [{ id: actor.id, cls: classes[actor.kind], box: { x: foot.x - w / 2, y: foot.y - h, w, h } }]
  })
}

import { project, type GroundPoint } from '../core/scene/camera.ts'
import type { Box } from '../core/geometry/shapes.ts'
import type { TargetClass } from '../core/targets/classes.ts'
import { bodyOf } from './bodies.ts'
import type { ActorKind, Play } from './script.ts'
import { actorsOf, poseAt, turned, viewAt, type Actor, type Pose, type View } from './world.ts'

const classes: Record<ActorKind, TargetClass> = {
  adult: 'person',
  child: 'person',
  crouching: 'person',
  dog: 'animal',
  gull: 'animal',
  car: 'vehicle',
  van: 'vehicle',
  bicycle: 'cycle'
}
/** Width over height of an actor as seen from the side. */
const widths: Partial<Record<ActorKind, number>> = {
  adult: 0.42,
  child: 0.44,
  crouching: 0.75,
  dog: 1.45,
  gull: 2.6,
  bicycle: 1.0
}

/** The head in the figure's own frame: its middle and half sizes as shares of the figure's height. */
export const heads: Partial<Record<ActorKind, { x: number; y: number; rx: number; ry: number }>> = {
  adult: { x: 0, y: 0.92, rx: 0.058, ry: 0.075 },
  child: { x: 0, y: 0.89, rx: 0.078, ry: 0.1 },
  crouching: { x: 0.1, y: 0.85, rx: 0.095, ry: 0.125 }
}

export interface TrueFace {
  box: Box
  mask: boolean
  name: string | null
}

/** What is truly in view of one actor: its box, not cut at the picture's edge, and its face if it looks this way. */
export interface TrueTarget {
  id: number
  cls: TargetClass
  kind: ActorKind
  box: Box
  face: TrueFace | null
}

const NEAREST = 0.5

/** Whether a person who heads this way shows the face to the camera. */
export const showsFace = (heading: Pose['heading']): boolean => heading[1] < -0.25

/** Where an actor stood when its box was worked out last: who waits has the same one for minutes. */
const known = new WeakMap<Actor, { at: Pose['at']; view: View; box: Box | null }>()

/** @returns the box of an actor as it is seen, not cut at the picture's edge; null where it is too near or behind */
export function boxOf(actor: Actor, pose: Pose, view: View): Box | null {
  const last = known.get(actor)
  if (last?.at === pose.at && isSameView(last.view, view)) return last.box
  const box = workOut(actor, pose, view)
  if (!pose.moving) known.set(actor, { at: pose.at, view, box })
  return box
}

const isSameView = (a: View, b: View): boolean =>
  a === b ||
  (a.pan === b.pan &&
    a.tilt === b.tilt &&
    a.height === b.height &&
    a.fieldOfView === b.fieldOfView &&
    a.aspect === b.aspect)

function workOut(actor: Actor, pose: Pose, view: View): Box | null {
  const see = (p: GroundPoint): ReturnType<typeof project> => project(view, turned(view, p))
  const body = bodyOf(actor.kind)
  if (body) {
    // Down to the ground: the wheels belong to it.
    const corners = body
      .flatMap((part) =>
        part.corners(pose).flatMap((corner) => [corner, { ...corner, y: pose.at.y }])
      )
      .map(see)
    if (corners.some((c) => c.depth < NEAREST)) return null
    const [xs, ys] = [corners.map((c) => c.x), corners.map((c) => c.y)]
    const [x, y] = [Math.min(...xs), Math.min(...ys)]
    return { x, y, w: Math.max(...xs) - x, h: Math.max(...ys) - y }
  }
  const foot = see(pose.at)
  if (foot.depth < NEAREST) return null
  const h = foot.y - see({ ...pose.at, y: pose.at.y + actor.height }).y
  const across = actor.kind === 'bicycle' ? Math.max(0.4, Math.abs(pose.heading[0])) : 1
  const w = (h * (widths[actor.kind] ?? 1) * across) / view.aspect
  return { x: foot.x - w / 2, y: foot.y - h, w, h }
}

/** What is truly in view at a moment. */
export function truth(
  play: Play,
  time: number,
  actors: Actor[] = actorsOf(play.script)
): TrueTarget[] {
  const view = viewAt(play, time)
  return actors.flatMap((actor) => {
    const pose = poseAt(actor, time)
    const box = pose && boxOf(actor, pose, view)
    if (!box) return []
    const head = heads[actor.kind]
    const face =
      head && showsFace(pose.heading)
        ? {
            box: {
              x: box.x + box.w / 2 + ((head.x - head.rx) * box.h) / view.aspect,
              y: box.y + box.h * (1 - head.y - head.ry),
              w: (2 * head.rx * box.h) / view.aspect,
              h: 2 * head.ry * box.h
            },
            mask: actor.mask,
            name: actor.name
          }
        : null
    return [{ id: actor.id, cls: classes[actor.kind], kind: actor.kind, box, face }]
  })
}

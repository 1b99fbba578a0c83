import { USUAL_ACTORS } from '../core/formats/walk.ts'
import type { CameraPose, GroundPoint } from '../core/scene/camera.ts'
import { randomFrom } from './random.ts'
import type { ActorKind, FaultKind, Play, Scene, Script, ScriptActor } from './script.ts'

/** Somebody or something that moves; groups have become their members. */
export interface Actor {
  id: number
  kind: ActorKind
  from: number
  /** Metres per second. */
  speed: number
  /** Metres; of a bicycle, with its rider. */
  height: number
  way: WayPoint[]
  mask: boolean
  name: string | null
  colours: Colours
}

export interface WayPoint extends Required<GroundPoint> {
  /** Seconds to stay there. */
  pause: number
}

export interface Colours {
  top: string
  legs: string
  hair: string
}

const coats: Record<NonNullable<ScriptActor['coat']>, Colours> = {
  navy: { top: '#27364d', legs: '#3a3d44', hair: '#2b211c' },
  red: { top: '#8c3438', legs: '#2f3440', hair: '#5b4632' },
  green: { top: '#3f5b45', legs: '#2c2a33', hair: '#1f1b19' },
  grey: { top: '#4b4e55', legs: '#23262c', hair: '#8a8378' },
  ochre: { top: '#a77b32', legs: '#353b4a', hair: '#3a2b20' },
  white: { top: '#d9dad6', legs: '#3b3f47', hair: '#4a3a2c' },
  black: { top: '#1d1f24', legs: '#191b20', hair: '#16130f' }
}
const ownColours: Partial<Record<ActorKind, Colours>> = {
  dog: { top: '#4a3526', legs: '#3d2c20', hair: '#2c1f16' },
  gull: { top: '#e9ecec', legs: '#d8a032', hair: '#9aa3a8' }
}
const people = Object.keys(coats) as (keyof typeof coats)[]

/** Where the members of a group walk beside the first, metres. */
const abreast = [
  [0, 0],
  [0.7, 0.3],
  [-0.6, 0.5],
  [0.2, 1.1],
  [-0.9, -0.5],
  [1.1, -0.4],
  [0.6, 1.6],
  [-0.4, 1.9]
]

/** The actors of a script, numbered from 1. */
export function actorsOf(script: Script): Actor[] {
  const random = randomFrom(script.seed + 11)
  const all: Actor[] = []
  for (const actor of script.actors) {
    const kind: ActorKind = actor.kind === 'group' ? 'adult' : actor.kind
    const members = actor.kind === 'group' ? actor.members : 1
    for (let k = 0; k < members; k++) {
      const [dx, dz] = abreast[k % abreast.length]! as [number, number]
      const coat =
        k === 0 && actor.coat ? actor.coat : people[Math.floor(random() * people.length)]!
      all.push({
        id: all.length + 1,
        kind,
        from: actor.from,
        speed: actor.speed ?? USUAL_ACTORS[kind].speed,
        height:
          (actor.tall ?? USUAL_ACTORS[kind].tall) * (members > 1 ? 0.94 + 0.12 * random() : 1),
        way: actor.way.map(([x, z, pause = 0, y = 0]) => ({ x: x + dx, y, z: z + dz, pause })),
        mask: actor.mask,
        name: actor.name ?? null,
        colours: ownColours[kind] ?? coats[coat]
      })
    }
  }
  return all
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

const distance = (a: Required<GroundPoint>, b: Required<GroundPoint>): number =>
  Math.hypot(b.x - a.x, b.y - a.y, b.z - a.z)

/** The pose of an actor at `time` seconds, or null before it has come and after it has gone. */
export function poseAt(actor: Actor, time: number): Pose | null {
  let left = time - actor.from
  if (left < 0) return null
  let walked = 0
  for (let i = 0; i + 1 < actor.way.length; i++) {
    const a = actor.way[i]!
    const b = actor.way[i + 1]!
    const length = distance(a, b)
    const heading: [number, number] =
      length > 0 ? [(b.x - a.x) / length, (b.z - a.z) / length] : [1, 0]
    if (left < a.pause) return { at: a, heading, moving: false, walked }
    left -= a.pause
    const takes = length / actor.speed
    if (left < takes) {
      const t = left / takes
      return {
        at: { x: a.x + (b.x - a.x) * t, y: a.y + (b.y - a.y) * t, z: a.z + (b.z - a.z) * t },
        heading,
        moving: true,
        walked: walked + length * t
      }
    }
    left -= takes
    walked += length
  }
  return null
}

/** When an actor has gone, seconds. */
export const secondsOf = ({ from, speed, way }: Actor): number =>
  way.reduce(
    (sum, point, i) =>
      i + 1 < way.length ? sum + point.pause + distance(point, way[i + 1]!) / speed : sum,
    from
  )

/** Whether a fault is on at a moment, and for how many seconds it has been. */
export function faultAt(script: Script, kind: FaultKind, time: number): number | null {
  const fault = script.faults.find(
    (f) => f.kind === kind && time >= f.from && time < (f.to ?? Infinity)
  )
  return fault ? time - fault.from : null
}

/** Where the camera of a scene looks: its pose, and by how much it is turned aside. */
export interface View extends CameraPose {
  /** Degrees to the right. */
  pan: number
}

export const aspectOf = ({ width, height }: Scene): number => width / height

/** As cameras hang: asked for at each frame. */
const hanging = new WeakMap<Scene, View>()

function asItHangs(scene: Scene): View {
  let view = hanging.get(scene)
  if (!view) hanging.set(scene, (view = { ...scene.camera, aspect: aspectOf(scene), pan: 0 }))
  return view
}

/** The camera at a moment: as it hangs, or knocked aside. */
export function viewAt({ scene, script }: Play, time: number): View {
  const pose = asItHangs(scene)
  const since = faultAt(script, 'knocked', time)
  if (since === null) return pose
  const share = Math.min(1, since / 0.4)
  return { ...pose, pan: scene.camera.fieldOfView * 0.55 * share, tilt: pose.tilt + 5 * share }
}

/** A point of the world as the turned camera has it. */
export function turned({ pan }: View, { x, y = 0, z }: GroundPoint): Required<GroundPoint> {
  if (pan === 0) return { x, y, z }
  const angle = (pan * Math.PI) / 180
  return {
    x: x * Math.cos(angle) - z * Math.sin(angle),
    y,
    z: x * Math.sin(angle) + z * Math.cos(angle)
  }
}

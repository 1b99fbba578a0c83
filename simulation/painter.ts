import { horizon, project, type GroundPoint } from '../core/scene/camera.ts'
import { paintActor, type Painter2D } from './figures.ts'
import { randomFrom } from './random.ts'
import { poseAt, type Script } from './world.ts'

/** Paints what the camera of a script sees at `time`: sky, hills, water, quay, then the actors from far to near. */
export function paint(g: Painter2D, script: Script, time: number): void {
  paintScenery(g, script)
  paintWater(g, script, time)
  const seen = script.actors.flatMap((actor) => {
    const pose = poseAt(actor, time)
    return pose ? [{ actor, pose, foot: project(script.camera, pose.at), ground: project(script.camera, { ...pose.at, y: 0 }) }] : []
  })
  seen.sort((a, b) => b.foot.depth - a.foot.depth)
  for (const { actor, pose, foot, ground } of seen) {
    if (foot.depth < 0.5) continue
    const height = actor.height * foot.perMetre * script.height
    g.save()
    g.globalAlpha = actor.kind === 'gull' ? 0.1 : 0.22
    g.fillStyle = '#1a1d20'
    g.beginPath()
    g.ellipse(ground.x * script.width + height * 0.06, ground.y * script.height, height * 0.2, height * 0.035, 0, 0, 2 * Math.PI)
    g.fill()
    g.restore()
    paintActor(g, actor, pose, foot.x * script.width, foot.y * script.height, height)
  }
}

/** A polygon on the ground, filled; its corners must be in front of the camera. */
function ground(g: Painter2D, { camera, width, height }: Script, colour: string, corners: GroundPoint[]): void {
  g.fillStyle = colour
  g.beginPath()
  corners.forEach((corner, i) => {
    const p = project(camera, corner)
    if (i) g.lineTo(p.x * width, p.y * height)
    else g.moveTo(p.x * width, p.y * height)
  })
  g.closePath()
  g.fill()
}

/** A wall between two points of the ground. */
function wall(g: Painter2D, script: Script, colour: string, a: GroundPoint, b: GroundPoint, from: number, to: number): void {
  ground(g, script, colour, [{ ...a, y: from }, { ...b, y: from }, { ...b, y: to }, { ...a, y: to }])
}

function paintScenery(g: Painter2D, script: Script): void {
  const { width, height, camera, shore } = script
  const level = horizon(camera) * height
  const sky = g.createLinearGradient(0, 0, 0, level)
  sky.addColorStop(0, '#a9bac4')
  sky.addColorStop(1, '#cdd6d8')
  g.fillStyle = sky
  g.fillRect(0, 0, width, level + 1)

  const random = randomFrom(script.seed)
  for (const [colour, rise] of [['#8fa09f', 0.075], ['#74877f', 0.045]] as const) {
    g.fillStyle = colour
    g.beginPath()
    g.moveTo(0, level)
    const steps = 9
    for (let i = 0; i <= steps; i++) g.lineTo((i / steps) * width, level - height * rise * (0.35 + 0.65 * random()))
    g.lineTo(width, level)
    g.closePath()
    g.fill()
  }
  const water = g.createLinearGradient(0, level, 0, height)
  water.addColorStop(0, '#8fa7b0')
  water.addColorStop(1, '#5d7c8a')
  g.fillStyle = water
  g.fillRect(0, level, width, height - level)

  const near = 4
  const left = shore[0]
  const right = shore[shore.length - 1]
  // The face of the quay above the water, the quay, and the ramp that runs down into the water.
  for (let i = 0; i + 1 < shore.length; i++) wall(g, script, '#54565a', shore[i], shore[i + 1], -0.7, 0)
  ground(g, script, '#8d8a80', [...shore, { x: right.x + 20, z: near }, { x: left.x - 20, z: near }])
  ground(g, script, '#a19d91', [{ x: -14, z: 7.4 }, { x: 14, z: 7.4 }, { x: 14, z: 8.1 }, { x: -14, z: 8.1 }])
  const middle = (left.z + right.z) / 2
  ground(g, script, '#7b7970', [{ x: -2.6, z: 10 }, { x: 3, z: 10 }, { x: 3.6, z: middle + 7 }, { x: -3.2, z: middle + 6.4 }])
  ground(g, script, '#6a6a63', [{ x: -2.9, z: middle + 1.5 }, { x: 3.3, z: middle + 2 }, { x: 3.6, z: middle + 7 }, { x: -3.2, z: middle + 6.4 }])
  for (let i = 0; i < 6; i++) {
    const z = 10.6 + i * 1.5
    ground(g, script, '#74726a', [{ x: -2.7, z }, { x: 3.1, z }, { x: 3.1, z: z + 0.12 }, { x: -2.7, z: z + 0.12 }])
  }
  paintHut(g, script)
  for (const x of [-8.5, -5.6, 6.4]) {
    const z = left.z + ((x - left.x) / (right.x - left.x)) * (right.z - left.z) - 0.6
    wall(g, script, '#3f4143', { x: x - 0.16, z }, { x: x + 0.16, z }, 0, 0.5)
    wall(g, script, '#56585a', { x: x - 0.24, z }, { x: x + 0.24, z }, 0.4, 0.55)
  }
}

function paintHut(g: Painter2D, script: Script): void {
  const a = { x: 5.6, z: 11.6 }
  const b = { x: 10.4, z: 12.4 }
  const deep = { x: -0.5, z: 3 }
  const c = { x: a.x + deep.x, z: a.z + deep.z }
  const ridge = (p: GroundPoint): GroundPoint => ({ x: p.x + deep.x / 2, y: 3.1, z: p.z + deep.z / 2 })
  wall(g, script, '#6d4a38', c, a, 0, 2.1)
  ground(g, script, '#6d4a38', [{ ...a, y: 2.1 }, { ...c, y: 2.1 }, ridge(a)])
  wall(g, script, '#86583f', a, b, 0, 2.1)
  for (let i = 1; i < 6; i++) wall(g, script, '#7a503a', a, b, i * 0.35, i * 0.35 + 0.03)
  const along = (t: number): GroundPoint => ({ x: a.x + (b.x - a.x) * t, z: a.z + (b.z - a.z) * t - 0.01 })
  wall(g, script, '#33302d', along(0.22), along(0.42), 0, 1.85)
  wall(g, script, '#9fb0b5', along(0.6), along(0.8), 0.9, 1.55)
  ground(g, script, '#4a3a33', [{ x: a.x - 0.15, y: 2.05, z: a.z - 0.2 }, { x: b.x + 0.2, y: 2.05, z: b.z - 0.2 }, ridge(b), ridge(a)])
}

/** Glints that drift on the water; the only thing on the picture that moves without being anybody. */
function paintWater(g: Painter2D, script: Script, time: number): void {
  const { width, height, camera, shore } = script
  const random = randomFrom(script.seed + 1)
  const far = Math.max(...shore.map((p) => p.z))
  g.save()
  g.fillStyle = '#b9c9ce'
  for (let i = 0; i < 150; i++) {
    const z = far + 4 + 70 * random() ** 2
    const x = (random() * 2 - 1) * z * 0.75 + 0.25 * Math.sin(time * 0.5 + i)
    const p = project(camera, { x, z })
    g.globalAlpha = 0.1 + 0.1 * Math.sin(time * (0.6 + random()) + i * 2.4)
    if (g.globalAlpha <= 0.02 || Math.abs(x - 0.2) < 4.2 && z < far + 8) continue
    g.fillRect(p.x * width, p.y * height, Math.max(2, 0.9 * p.perMetre * height), Math.max(1, 0.03 * p.perMetre * height))
  }
  g.restore()
}

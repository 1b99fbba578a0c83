import { fillFace, see, shaded, type Painter2D, type Sheet } from './canvas.ts'
import { bodyOf } from '../bodies.ts'
import type { ActorKind } from '../script.ts'
import { heads, showsFace } from '../truth.ts'
import type { Actor, Pose } from '../world.ts'

const SKIN = '#c99a7b'

function limb(g: Painter2D, colour: string, width: number, ...points: [number, number][]): void {
  g.strokeStyle = colour
  g.lineWidth = width
  g.lineCap = 'round'
  g.lineJoin = 'round'
  g.beginPath()
  points.forEach(([x, y], i) => (i ? g.lineTo(x, y) : g.moveTo(x, y)))
  g.stroke()
}

/** The head: hair alone from behind, a face with or without a mask from the front. */
function paintHead(g: Painter2D, { kind, colours, mask }: Actor, { heading }: Pose): void {
  const { x, y, rx, ry } = heads[kind]!
  const oval = (colour: string, cx: number, cy: number, a: number, b: number): void => {
    g.fillStyle = colour
    g.beginPath()
    g.ellipse(x + cx * rx, y + cy * ry, a * rx, b * ry, 0, 0, 2 * Math.PI)
    g.fill()
  }
  oval(SKIN, 0, 0, 1, 1)
  if (!showsFace(heading)) {
    oval(colours.hair, 0, 0.25, 1.06, 0.8)
    return
  }
  oval(colours.hair, 0, 0.72, 0.98, 0.36)
  for (const side of [-1, 1]) {
    oval('#e9e4dc', side * 0.4, 0.14, 0.2, 0.1)
    oval('#2a211c', side * 0.4, 0.14, 0.1, 0.1)
    oval(colours.hair, side * 0.4, 0.32, 0.24, 0.045)
  }
  if (mask) {
    oval('#a9c6d3', 0, -0.45, 0.86, 0.5)
    return
  }
  oval('#b5835f', 0, -0.12, 0.14, 0.2)
  oval('#8f4a42', 0, -0.52, 0.34, 0.09)
}

/** A walking adult in a frame of its own: the foot at the origin, one unit high, y up. */
function paintAdult(g: Painter2D, actor: Actor, pose: Pose): void {
  const { colours } = actor
  const { walked, moving, heading } = pose
  const across = Math.abs(heading[0])
  const phase = walked * 4.2
  const swing = moving ? Math.sin(phase) * (0.05 + 0.11 * across) : 0.02
  const lift = moving ? Math.max(0, Math.cos(phase)) * 0.04 : 0
  limb(
    g,
    colours.legs,
    0.085,
    [-0.02, 0.48],
    [-swing * 0.6, 0.25],
    [-swing - 0.02, 0.03 + (swing > 0 ? lift : 0)]
  )
  limb(
    g,
    colours.legs,
    0.085,
    [0.02, 0.48],
    [swing * 0.6, 0.25],
    [swing + 0.02, 0.03 + (swing < 0 ? lift : 0)]
  )
  limb(g, '#22201e', 0.05, [-swing - 0.03, 0.02], [-swing + 0.02, 0.02])
  limb(g, '#22201e', 0.05, [swing, 0.02], [swing + 0.05, 0.02])
  limb(
    g,
    colours.top,
    0.07,
    [-0.09, 0.78],
    [-0.11 + swing * 0.5, 0.62],
    [-0.09 + swing * 0.9, 0.48]
  )
  g.fillStyle = colours.top
  g.beginPath()
  g.moveTo(-0.115, 0.82)
  g.quadraticCurveTo(0, 0.87, 0.115, 0.82)
  g.lineTo(0.095, 0.44)
  g.lineTo(-0.095, 0.44)
  g.closePath()
  g.fill()
  limb(g, colours.top, 0.07, [0.09, 0.78], [0.11 - swing * 0.5, 0.62], [0.09 - swing * 0.9, 0.48])
  paintHead(g, actor, pose)
}

function paintDog(g: Painter2D, { colours }: Actor, { walked, moving, heading }: Pose): void {
  const way = heading[0] < 0 ? -1 : 1
  const swing = moving ? Math.sin(walked * 9) * 0.16 : 0
  for (const [x, s] of [
    [-0.45, swing],
    [-0.36, -swing],
    [0.3, -swing],
    [0.4, swing]
  ] as const)
    limb(g, colours.legs, 0.11, [x * way, 0.45], [(x + s * 0.5) * way, 0.22], [(x + s) * way, 0.03])
  limb(g, colours.top, 0.34, [-0.42 * way, 0.6], [0.38 * way, 0.62])
  limb(g, colours.top, 0.22, [0.42 * way, 0.66], [0.58 * way, 0.84])
  limb(g, colours.hair, 0.14, [0.62 * way, 0.84], [0.74 * way, 0.8])
  limb(g, colours.hair, 0.08, [-0.52 * way, 0.7], [-0.68 * way, 0.88 + swing * 0.4])
}

function paintGull(g: Painter2D, { colours }: Actor, { walked }: Pose): void {
  const beat = Math.sin(walked * 2.4) * 0.55
  limb(g, colours.hair, 0.22, [-1.15, 0.5 + beat], [-0.5, 0.72 + beat * 0.4], [0, 0.5])
  limb(g, colours.hair, 0.22, [1.15, 0.5 + beat], [0.5, 0.72 + beat * 0.4], [0, 0.5])
  limb(g, colours.top, 0.34, [-0.38, 0.46], [0.36, 0.5])
}

/** Somebody who moves bent down, knees and hands near the ground. */
function paintCrouching(g: Painter2D, actor: Actor, pose: Pose): void {
  const { colours } = actor
  const way = pose.heading[0] < 0 ? -1 : 1
  const swing = pose.moving ? Math.sin(pose.walked * 6) * 0.08 : 0
  limb(
    g,
    colours.legs,
    0.15,
    [-0.22 * way, 0.5],
    [(0.02 + swing) * way, 0.32],
    [(-0.16 + swing) * way, 0.04]
  )
  limb(
    g,
    colours.legs,
    0.15,
    [-0.18 * way, 0.5],
    [(0.1 - swing) * way, 0.34],
    [(-0.02 - swing) * way, 0.04]
  )
  limb(g, colours.top, 0.3, [-0.18 * way, 0.52], [0.04 * way, 0.7])
  limb(g, colours.top, 0.11, [0.06 * way, 0.68], [(0.2 + swing) * way, 0.4])
  paintHead(g, actor, pose)
}

function paintBicycle(g: Painter2D, actor: Actor, pose: Pose): void {
  const { colours } = actor
  const across = Math.max(0.3, Math.abs(pose.heading[0])) * (pose.heading[0] < 0 ? -1 : 1)
  const turn = pose.walked * 3
  const at = (x: number, y: number): [number, number] => [x * across, y]
  for (const x of [-0.3, 0.3]) {
    g.strokeStyle = '#191b1e'
    g.lineWidth = 0.03
    g.beginPath()
    g.ellipse(x * across, 0.2, 0.19 * Math.abs(across), 0.19, 0, 0, 2 * Math.PI)
    g.stroke()
  }
  limb(
    g,
    '#7a2f2c',
    0.03,
    at(-0.3, 0.2),
    at(-0.08, 0.46),
    at(0.22, 0.48),
    at(0.02, 0.2),
    at(-0.08, 0.46)
  )
  limb(g, '#7a2f2c', 0.03, at(0.3, 0.2), at(0.22, 0.54))
  const pedal = at(0.02 + 0.07 * Math.cos(turn), 0.2 + 0.07 * Math.sin(turn))
  limb(g, colours.legs, 0.075, at(-0.1, 0.55), at(0.08, 0.4), pedal)
  limb(g, colours.top, 0.13, at(-0.1, 0.56), at(0.06, 0.8))
  limb(g, colours.top, 0.055, at(0.06, 0.78), at(0.2, 0.58))
  g.fillStyle = SKIN
  g.beginPath()
  g.ellipse(0.1 * across, 0.92, 0.055, 0.072, 0, 0, 2 * Math.PI)
  g.fill()
  g.fillStyle = '#d8d4c4'
  g.beginPath()
  g.ellipse(0.09 * across, 0.955, 0.065, 0.045, 0, 0, 2 * Math.PI)
  g.fill()
}

const figures: Partial<Record<ActorKind, (g: Painter2D, actor: Actor, pose: Pose) => void>> = {
  adult: paintAdult,
  child: paintAdult,
  crouching: paintCrouching,
  dog: paintDog,
  gull: paintGull,
  bicycle: paintBicycle
}

const paints = ['#5b6e7f', '#8b3a36', '#c9cac6', '#2d3136', '#4d6a52']

/** A car or van: its boxes from behind to front, wheels on the sides that are seen. */
function paintVehicle(sheet: Sheet, actor: Actor, pose: Pose): void {
  const { g } = sheet
  const paint = actor.kind === 'van' ? '#bcbbb3' : paints[actor.id % paints.length]!
  const faces = bodyOf(actor.kind)!.flatMap((part) => {
    const c = part.corners(pose)
    const quad = (light: number, ...at: number[]): { corners: typeof c; colour: string } => ({
      corners: at.map((i) => c[i]!),
      colour: shaded(part.role === 'glass' ? '#39444c' : paint, light)
    })
    return [
      quad(0.78, 0, 1, 5, 4),
      quad(0.78, 2, 3, 7, 6),
      quad(0.9, 1, 2, 6, 5),
      quad(0.7, 3, 0, 4, 7),
      quad(1.15, 4, 5, 6, 7)
    ]
  })
  const depthOf = (corners: { x: number; y: number; z: number }[]): number =>
    corners.reduce((sum, p) => sum + see(sheet, p).depth, 0)
  faces.sort((a, b) => depthOf(b.corners) - depthOf(a.corners))
  for (const { corners, colour } of faces) {
    if (corners.some((p) => see(sheet, p).depth < 0.5)) return
    fillFace(sheet, colour, corners)
  }
  const [hx, hz] = pose.heading
  for (const along of [-1.35, 1.35]) {
    // The side that faces the camera: of the two, the one that is nearer.
    const [one, other] = [0.9, -0.9].map((b) =>
      see(sheet, {
        x: pose.at.x + along * hx - b * hz,
        y: 0.32,
        z: pose.at.z + along * hz + b * hx
      })
    )
    const near = one!.depth < other!.depth ? one! : other!
    g.fillStyle = '#17181a'
    g.beginPath()
    g.ellipse(
      near.x,
      near.y,
      Math.max(0.1, 0.32 * Math.abs(hx)) * near.perMetre,
      0.32 * near.perMetre,
      0,
      0,
      2 * Math.PI
    )
    g.fill()
  }
}

/** Paints an actor where it stands, with the shadow that it throws on dry ground. */
export function paintActor(sheet: Sheet, actor: Actor, pose: Pose, shadow: number): void {
  const { g } = sheet
  const foot = see(sheet, pose.at)
  if (foot.depth < 0.5) return
  // The head is seen where it is, not as high above the foot as a flat board would be.
  const height = foot.y - see(sheet, { ...pose.at, y: pose.at.y + actor.height }).y
  const ground = see(sheet, { ...pose.at, y: 0 })
  const [hx, hz] = pose.heading
  const [wide, deep] = bodyOf(actor.kind)
    ? [(1.7 * Math.abs(hx) + 0.7 * Math.abs(hz)) * foot.perMetre, 0.16 * foot.perMetre]
    : [height * 0.2, height * 0.036]
  g.save()
  g.globalAlpha = shadow * (actor.kind === 'gull' ? 0.1 : 0.22)
  g.fillStyle = '#1a1d20'
  g.beginPath()
  g.ellipse(ground.x + height * 0.06, ground.y, wide, deep, 0, 0, 2 * Math.PI)
  g.fill()
  g.restore()
  if (bodyOf(actor.kind)) return paintVehicle(sheet, actor, pose)
  g.save()
  g.translate(foot.x, foot.y)
  g.scale(height, -height)
  figures[actor.kind]?.(g, actor, pose)
  g.restore()
}

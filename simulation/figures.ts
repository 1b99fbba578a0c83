import type { Actor, Pose } from './world.ts'

/** The part of a canvas context that is used; a browser's and the server's both have it. */
export type Painter2D = Pick<
  CanvasRenderingContext2D,
  'fillStyle' | 'strokeStyle' | 'lineWidth' | 'lineCap' | 'lineJoin' | 'globalAlpha' | 'save' | 'restore' | 'translate' | 'scale' | 'beginPath' | 'moveTo' | 'lineTo' | 'quadraticCurveTo' | 'closePath' | 'fill' | 'stroke' | 'ellipse' | 'fillRect' | 'createLinearGradient'
>

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

/** A walking adult in a frame of its own: the foot at the origin, one unit high, y up. */
function paintAdult(g: Painter2D, { colours }: Actor, { walked, moving, heading }: Pose): void {
  const across = Math.abs(heading[0])
  const phase = walked * 4.2
  const swing = moving ? Math.sin(phase) * (0.05 + 0.11 * across) : 0.02
  const lift = moving ? Math.max(0, Math.cos(phase)) * 0.04 : 0
  limb(g, colours.legs, 0.085, [-0.02, 0.48], [-swing * 0.6, 0.25], [-swing - 0.02, 0.03 + (swing > 0 ? lift : 0)])
  limb(g, colours.legs, 0.085, [0.02, 0.48], [swing * 0.6, 0.25], [swing + 0.02, 0.03 + (swing < 0 ? lift : 0)])
  limb(g, '#22201e', 0.05, [-swing - 0.03, 0.02], [-swing + 0.02, 0.02])
  limb(g, '#22201e', 0.05, [swing, 0.02], [swing + 0.05, 0.02])
  limb(g, colours.top, 0.07, [-0.09, 0.78], [-0.11 + swing * 0.5, 0.62], [-0.09 + swing * 0.9, 0.48])
  g.fillStyle = colours.top
  g.beginPath()
  g.moveTo(-0.115, 0.82)
  g.quadraticCurveTo(0, 0.87, 0.115, 0.82)
  g.lineTo(0.095, 0.44)
  g.lineTo(-0.095, 0.44)
  g.closePath()
  g.fill()
  limb(g, colours.top, 0.07, [0.09, 0.78], [0.11 - swing * 0.5, 0.62], [0.09 - swing * 0.9, 0.48])
  g.fillStyle = SKIN
  g.beginPath()
  g.ellipse(0, 0.92, 0.058, 0.075, 0, 0, 2 * Math.PI)
  g.fill()
  g.fillStyle = colours.hair
  g.beginPath()
  g.ellipse(0, 0.955, 0.062, 0.045, 0, 0, 2 * Math.PI)
  g.fill()
}

function paintDog(g: Painter2D, { colours }: Actor, { walked, moving, heading }: Pose): void {
  const way = heading[0] < 0 ? -1 : 1
  const swing = moving ? Math.sin(walked * 9) * 0.16 : 0
  for (const [x, s] of [[-0.45, swing], [-0.36, -swing], [0.3, -swing], [0.4, swing]])
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

const figures = { adult: paintAdult, dog: paintDog, gull: paintGull }

/** Paints an actor with its foot at (x, y) and the given height, in pixels. */
export function paintActor(g: Painter2D, actor: Actor, pose: Pose, x: number, y: number, height: number): void {
  g.save()
  g.translate(x, y)
  g.scale(height, -height)
  figures[actor.kind](g, actor, pose)
  g.restore()
}

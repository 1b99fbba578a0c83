import { horizon } from '../../core/scene/camera.ts'
import { randomFrom } from '../random.ts'
import type { Place, Play, Thing } from '../script.ts'
import {
  contextOf,
  fillFace,
  see,
  shaded,
  type MakeCanvas,
  type Sheet,
  type Canvas
} from './canvas.ts'

export const pointOf = ([x, z, y = 0]: Place): { x: number; y: number; z: number } => ({ x, y, z })

/** All that stands still in a scene, painted once for a view: sky, hills, water, ground, walls. */
export function paintScenery(make: MakeCanvas, play: Play, view: Sheet['view']): Canvas {
  const { width, height } = play.scene
  const canvas = make(width, height)
  const sheet: Sheet = { g: contextOf(canvas), width, height, view }
  paintBackdrop(sheet, play)
  for (const thing of play.scene.things) paintThing(sheet, thing)
  return canvas
}

function paintBackdrop(
  { g, width, height, view }: Sheet,
  { scene: { backdrop }, script: { seed } }: Play
): void {
  const level = horizon(view) * height
  if (backdrop === 'room') {
    const wall = g.createLinearGradient(0, 0, 0, height)
    wall.addColorStop(0, '#b9b2a2')
    wall.addColorStop(1, '#8f8a7d')
    g.fillStyle = wall
    g.fillRect(0, 0, width, height)
    return
  }
  const sky = g.createLinearGradient(0, 0, 0, Math.max(1, level))
  sky.addColorStop(0, '#a9bac4')
  sky.addColorStop(1, '#cdd6d8')
  g.fillStyle = sky
  g.fillRect(0, 0, width, Math.max(0, level) + 1)
  const random = randomFrom(seed + 5)
  for (const [colour, rise] of [
    ['#8fa09f', 0.075],
    ['#74877f', 0.045]
  ] as const) {
    g.fillStyle = colour
    g.beginPath()
    g.moveTo(0, level)
    const steps = 9
    for (let i = 0; i <= steps; i++)
      g.lineTo((i / steps) * width, level - height * rise * (0.35 + 0.65 * random()))
    g.lineTo(width, level)
    g.closePath()
    g.fill()
  }
  const ground = g.createLinearGradient(0, level, 0, height)
  const [far, near] = backdrop === 'sea' ? ['#8fa7b0', '#5d7c8a'] : ['#8b9378', '#77805f']
  ground.addColorStop(0, far)
  ground.addColorStop(1, near)
  g.fillStyle = ground
  g.fillRect(0, level, width, height - level)
}

function paintThing(sheet: Sheet, thing: Thing): void {
  if (thing.kind === 'face') fillFace(sheet, thing.colour, thing.corners.map(pointOf))
  else if (thing.kind === 'wall') {
    const [a, b] = [pointOf(thing.from), pointOf(thing.to)]
    fillFace(sheet, thing.colour, [
      { ...a, y: thing.bottom },
      { ...b, y: thing.bottom },
      { ...b, y: thing.top },
      { ...a, y: thing.top }
    ])
  } else if (thing.kind === 'block') paintBlock(sheet, thing)
  else if (thing.kind === 'posts') {
    const [a, b] = [pointOf(thing.from), pointOf(thing.to)]
    for (let i = 0; i < thing.count; i++) {
      const t = thing.count > 1 ? i / (thing.count - 1) : 0
      const [x, z] = [a.x + (b.x - a.x) * t, a.z + (b.z - a.z) * t]
      const half = thing.width / 2
      fillFace(sheet, thing.colour, [
        { x: x - half, z },
        { x: x + half, z },
        { x: x + half, y: thing.height, z },
        { x: x - half, y: thing.height, z }
      ])
    }
  } else if (thing.kind === 'lamp') {
    const { x, z } = pointOf(thing.at)
    fillFace(sheet, '#3c4043', [
      { x: x - 0.06, z },
      { x: x + 0.06, z },
      { x: x + 0.05, y: thing.height, z },
      { x: x - 0.05, y: thing.height, z }
    ])
    fillFace(sheet, '#d8d4c4', [
      { x: x - 0.22, y: thing.height, z },
      { x: x + 0.22, y: thing.height, z },
      { x: x + 0.16, y: thing.height + 0.16, z },
      { x: x - 0.16, y: thing.height + 0.16, z }
    ])
  }
}

function paintBlock(
  sheet: Sheet,
  { colour, at, size: [w, d, h], turn }: Extract<Thing, { kind: 'block' }>
): void {
  const { x, y, z } = pointOf(at)
  const angle = (turn * Math.PI) / 180
  const [c, s] = [Math.cos(angle), Math.sin(angle)]
  const corner = (a: number, b: number, up: number): { x: number; y: number; z: number } => ({
    x: x + a * c - b * s,
    y: y + up,
    z: z + a * s + b * c
  })
  const ring = [
    [-w / 2, -d / 2],
    [w / 2, -d / 2],
    [w / 2, d / 2],
    [-w / 2, d / 2]
  ] as const
  // Far sides first, so that near ones cover them.
  const sides = ring
    .map((p, i) => ({ p, q: ring[(i + 1) % 4]!, light: [1, 0.8, 0.9, 0.72][i]! }))
    .map((side) => ({
      ...side,
      depth: see(sheet, corner((side.p[0] + side.q[0]) / 2, (side.p[1] + side.q[1]) / 2, h / 2))
        .depth
    }))
    .sort((a, b) => b.depth - a.depth)
  for (const { p, q, light } of sides)
    fillFace(sheet, shaded(colour, light), [
      corner(...p, 0),
      corner(...q, 0),
      corner(...q, h),
      corner(...p, h)
    ])
  if (y + h < sheet.view.height)
    fillFace(
      sheet,
      shaded(colour, 1.12),
      ring.map((p) => corner(...p, h))
    )
}

/** Glints that drift on the water; beyond its shore line only. */
export function paintGlitter(sheet: Sheet, { scene, script }: Play, time: number): void {
  const { g, view } = sheet
  for (const thing of scene.things) {
    if (thing.kind !== 'water') continue
    const random = randomFrom(script.seed + 1)
    const far = Math.max(...thing.shore.map(([, z]) => z))
    const rough = 1 + 1.6 * script.weather.wind
    g.save()
    g.fillStyle = '#b9c9ce'
    for (let i = 0; i < 150; i++) {
      const z = far + 4 + 70 * random() ** 2
      const x = (random() * 2 - 1) * z * 0.75 + 0.25 * rough * Math.sin(time * 0.5 * rough + i)
      const p = see(sheet, { x, z })
      g.globalAlpha = Math.max(
        0,
        0.1 * rough + 0.1 * Math.sin(time * (0.6 + random()) * rough + i * 2.4)
      )
      if (g.globalAlpha <= 0.02 || p.depth < 1 || (Math.abs(x - 0.2) < 4.2 && z < far + 8)) continue
      g.fillRect(
        p.x,
        p.y,
        Math.max(2, 0.9 * p.perMetre),
        Math.max(1, 0.03 * p.perMetre * (view.height > 6 ? 2 : 1))
      )
    }
    g.restore()
  }
}

/** What the wind moves: painted in the order of depth, among the actors. */
export function plantsOf({
  scene,
  script
}: Play): { depth: (sheet: Sheet) => number; paint: (sheet: Sheet, time: number) => void }[] {
  const wind = 0.06 + script.weather.wind
  return scene.things.flatMap((thing) => {
    if (thing.kind === 'tree')
      return [
        {
          depth: (sheet: Sheet) => see(sheet, pointOf(thing.at)).depth,
          paint: (sheet: Sheet, time: number) => paintTree(sheet, thing, time, wind, script.seed)
        }
      ]
    if (thing.kind === 'reeds')
      return [
        {
          depth: (sheet: Sheet) => see(sheet, pointOf(thing.from)).depth,
          paint: (sheet: Sheet, time: number) => paintReeds(sheet, thing, time, wind, script.seed)
        }
      ]
    return []
  })
}

const gust = (time: number, i: number): number =>
  Math.sin(time * 1.7 + i * 0.4) * 0.6 +
  Math.sin(time * 4.3 + i * 1.9) * 0.3 +
  Math.sin(time * 0.6) * 0.4

function paintTree(
  sheet: Sheet,
  { at, height }: Extract<Thing, { kind: 'tree' }>,
  time: number,
  wind: number,
  seed: number
): void {
  const { g } = sheet
  const foot = see(sheet, pointOf(at))
  if (foot.depth < 1) return
  const m = foot.perMetre
  const random = randomFrom(seed + 31)
  g.strokeStyle = '#4a3b2c'
  g.lineWidth = Math.max(1.5, 0.035 * height * m)
  g.lineCap = 'round'
  g.beginPath()
  g.moveTo(foot.x, foot.y)
  g.lineTo(foot.x, foot.y - 0.55 * height * m)
  g.stroke()
  const greens = ['#3d5638', '#4c6a42', '#5d7d4f', '#34492f']
  for (let i = 0; i < 46; i++) {
    const a = random() * 2 * Math.PI
    const r = Math.sqrt(random()) * 0.3 * height
    const up = 0.68 * height + Math.sin(a) * r * 0.9
    const sway = gust(time, i) * wind * 0.05 * up
    g.fillStyle = greens[i % greens.length]!
    g.beginPath()
    g.ellipse(
      foot.x + (Math.cos(a) * r + sway) * m,
      foot.y - (up + 0.4 * sway * Math.sin(i)) * m,
      (0.05 + 0.05 * random()) * height * m,
      (0.04 + 0.04 * random()) * height * m,
      0,
      0,
      2 * Math.PI
    )
    g.fill()
  }
}

function paintReeds(
  sheet: Sheet,
  { from, to, count, height }: Extract<Thing, { kind: 'reeds' }>,
  time: number,
  wind: number,
  seed: number
): void {
  const { g } = sheet
  const [a, b] = [pointOf(from), pointOf(to)]
  const random = randomFrom(seed + 41)
  const tones = ['#8a8552', '#a19a63', '#6e7443', '#b3aa78']
  g.lineCap = 'round'
  for (let i = 0; i < count; i++) {
    const t = random()
    const foot = see(sheet, {
      x: a.x + (b.x - a.x) * t + 0.4 * (random() - 0.5),
      z: a.z + (b.z - a.z) * t + 0.8 * (random() - 0.5)
    })
    const tall = height * (0.7 + 0.5 * random())
    if (foot.depth < 1) continue
    const sway = gust(time, 6 * t + 0.2 * random()) * wind * 0.3 * tall * foot.perMetre
    g.strokeStyle = tones[i % tones.length]!
    g.lineWidth = Math.max(1, 0.025 * foot.perMetre)
    g.beginPath()
    g.moveTo(foot.x, foot.y)
    g.quadraticCurveTo(
      foot.x + sway * 0.2,
      foot.y - tall * 0.6 * foot.perMetre,
      foot.x + sway,
      foot.y - tall * foot.perMetre + Math.abs(sway) * 0.2
    )
    g.stroke()
  }
}

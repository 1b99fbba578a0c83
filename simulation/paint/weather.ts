import { horizon } from '../../core/scene/camera.ts'
import { randomFrom } from '../random.ts'
import type { Play } from '../script.ts'
import { see, type Sheet } from './canvas.ts'
import { pointOf } from './scenery.ts'

/** Shadows of clouds that drift over the ground. */
export function paintCloudShadows(sheet: Sheet, { script }: Play, time: number): void {
  const { clouds, wind } = script.weather
  if (clouds === 0) return
  const { g } = sheet
  const random = randomFrom(script.seed + 51)
  g.save()
  g.globalAlpha = 0.3 * clouds
  g.fillStyle = '#10161c'
  for (let i = 0; i < 5; i++) {
    const z = 12 + 26 * random()
    const x = ((random() * 120 + time * (1.2 + 3 * wind)) % 120) - 60
    const p = see(sheet, { x, z })
    if (p.depth < 1) continue
    const size = (5 + 6 * random()) * p.perMetre
    g.beginPath()
    g.ellipse(p.x, p.y, size, size * 0.22, 0, 0, 2 * Math.PI)
    g.fill()
  }
  g.restore()
}

/** Fog: the further away, the less is seen. */
export function paintFog({ g, width, height, view }: Sheet, fog: number, time: number): void {
  if (fog === 0) return
  const level = Math.max(0, Math.min(1, horizon(view)))
  const thick = fog * (0.94 + 0.06 * Math.sin(time * 0.21))
  const veil = g.createLinearGradient(0, 0, 0, height)
  veil.addColorStop(0, `rgba(196,202,203,${0.86 * thick})`)
  veil.addColorStop(Math.min(0.98, level + 0.02), `rgba(196,202,203,${0.86 * thick})`)
  veil.addColorStop(1, `rgba(190,196,197,${0.3 * thick})`)
  g.fillStyle = veil
  g.fillRect(0, 0, width, height)
}

/** Rain as streaks, snow as flakes; new places at every moment, some near and some far. */
export function paintFalling({ g, width, height }: Sheet, { script }: Play, time: number): void {
  const { rain, snow, wind } = script.weather
  if (rain === 0 && snow === 0) return
  const bright = script.light === 'night' ? 0.35 : 1
  const random = randomFrom(script.seed + 61)
  g.save()
  g.strokeStyle = '#d7dee2'
  g.lineCap = 'round'
  for (let i = 0; i < rain * 260; i++) {
    const near = random() ** 3
    const speed = height * (1.6 + 2.4 * near)
    const long = height * (0.02 + 0.06 * near)
    const [x0, y0] = [random() * width * 1.3 - 0.15 * width, random() * height]
    const y = ((y0 + time * speed) % (height * 1.2)) - 0.1 * height
    const x = x0 + wind * 0.25 * (y - height / 2)
    g.globalAlpha = bright * (0.12 + 0.22 * near)
    g.lineWidth = 0.6 + 1.1 * near
    g.beginPath()
    g.moveTo(x, y)
    g.lineTo(x + wind * 0.25 * long, y + long)
    g.stroke()
  }
  g.fillStyle = '#eef1f3'
  for (let i = 0; i < snow * 420; i++) {
    const near = random() ** 3
    const speed = height * (0.12 + 0.4 * near)
    const drift = wind * speed * 0.9
    const [x0, y0] = [random() * width, random() * height]
    const x = (x0 + time * drift + 9 * Math.sin(time * 1.3 + i)) % (width * 1.1)
    const y = (y0 + time * speed) % (height * 1.1)
    g.globalAlpha = bright * (0.45 + 0.45 * near)
    g.beginPath()
    g.ellipse(x, y, 0.9 + 3.2 * near, 0.9 + 3.2 * near, 0, 0, 2 * Math.PI)
    g.fill()
  }
  g.restore()
}

/** An insect on the lens: dark, out of focus, crawling. */
export function paintInsects({ g, width, height }: Sheet, { script }: Play, time: number): void {
  for (const { from, to } of script.insects) {
    if (time < from || time >= to) continue
    const t = (time - from) / (to - from)
    const x = width * (0.05 + 0.9 * t) + 12 * Math.sin(time * 2.1)
    const y =
      height * (0.25 + 0.4 * Math.abs(Math.sin(2.2 * t * Math.PI))) + 8 * Math.cos(time * 3.7)
    const r = height * 0.075
    const blot = g.createRadialGradient(x, y, r * 0.2, x, y, r)
    blot.addColorStop(0, 'rgba(20,18,16,0.85)')
    blot.addColorStop(0.6, 'rgba(24,22,20,0.55)')
    blot.addColorStop(1, 'rgba(30,28,26,0)')
    g.fillStyle = blot
    g.fillRect(x - r, y - r, 2 * r, 2 * r)
  }
}

/** The hour of the day over everything painted so far, then what shines in it. */
export function paintLight(sheet: Sheet, play: Play, time: number): void {
  const { g, width, height } = sheet
  const { light, headlights } = play.script
  const tint = { day: null, dusk: '#8d8496', night: '#333b54', infrared: '#b4b4b4' }[light]
  if (light === 'infrared') {
    g.save()
    g.globalCompositeOperation = 'saturation'
    g.fillStyle = '#808080'
    g.fillRect(0, 0, width, height)
    g.restore()
  }
  if (tint) {
    g.save()
    g.globalCompositeOperation = 'multiply'
    g.fillStyle = tint
    g.fillRect(0, 0, width, height)
    if (light === 'infrared') {
      // The camera's own lamp: bright in the middle and near, dark far out and in the sky.
      const cone = g.createRadialGradient(
        width / 2,
        height * 0.8,
        height * 0.25,
        width / 2,
        height * 0.8,
        height * 1.25
      )
      cone.addColorStop(0, '#ffffff')
      cone.addColorStop(1, '#343434')
      g.fillStyle = cone
      g.fillRect(0, 0, width, height)
    }
    g.restore()
  }
  g.save()
  g.globalCompositeOperation = 'lighter'
  if (light === 'night' || light === 'dusk')
    for (const thing of play.scene.things) {
      if (thing.kind !== 'lamp') continue
      const head = see(sheet, { ...pointOf(thing.at), y: thing.height })
      const foot = see(sheet, pointOf(thing.at))
      if (head.depth < 1) continue
      glow(sheet, head.x, head.y, 1.1 * head.perMetre, light === 'night' ? 0.9 : 0.5, '255,226,170')
      glow(
        sheet,
        foot.x,
        foot.y,
        5 * foot.perMetre,
        light === 'night' ? 0.32 : 0.12,
        '210,180,120',
        0.4
      )
    }
  for (const { from, takes } of headlights) {
    const t = (time - from) / takes
    if (t < 0 || t > 1) continue
    const strength = (light === 'day' ? 0.12 : 0.5) * Math.sin(Math.PI * t)
    for (const side of [-1, 1])
      glow(
        sheet,
        width * (1.15 - 1.3 * t) + side * 0.05 * width,
        height * (0.5 + 0.15 * t),
        height * 0.42,
        strength,
        '240,236,214',
        0.55
      )
  }
  g.restore()
}

function glow(
  { g, width, height }: Sheet,
  x: number,
  y: number,
  radius: number,
  strength: number,
  rgb: string,
  flat = 1
): void {
  if (x + radius < 0 || x - radius > width || y + radius < 0 || y - radius > height) return
  g.save()
  g.translate(x, y)
  g.scale(1, flat)
  const light = g.createRadialGradient(0, 0, 0, 0, 0, radius)
  light.addColorStop(0, `rgba(${rgb},${strength})`)
  light.addColorStop(0.4, `rgba(${rgb},${strength * 0.4})`)
  light.addColorStop(1, `rgba(${rgb},0)`)
  g.fillStyle = light
  g.fillRect(-radius, -radius, 2 * radius, 2 * radius)
  g.restore()
}

import type { Play } from '../script.ts'
import { see, type Sheet } from './canvas.ts'
import { pointOf } from './scenery.ts'

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

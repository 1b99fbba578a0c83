import { see } from '../paint/canvas.ts'
import { randomFrom } from '../random.ts'
import type { Painting } from './painting.ts'

/** Shadows of clouds that drift over the ground. */
export const paintClouds: Painting = (sheet, { script }, clouds, time) => {
  const { wind } = script.weather
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

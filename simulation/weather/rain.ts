import { randomFrom } from '../random.ts'
import type { Painting } from './painting.ts'

/** Rain as streaks; new places at every moment, some near and some far. */
export const paintRain: Painting = ({ g, width, height }, { script }, rain, time) => {
  const { wind } = script.weather
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
  g.restore()
}

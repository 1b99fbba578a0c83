import { randomFrom } from '../random.ts'
import type { Painting } from './painting.ts'

/** Snow as flakes; new places at every moment, some near and some far. */
export const paintSnow: Painting = ({ g, width, height }, { script }, snow, time) => {
  const { rain, wind } = script.weather
  const bright = script.light === 'night' ? 0.35 : 1
  const random = randomFrom(script.seed + 61)
  // The streaks of rain have taken theirs from the same row.
  for (let i = 0; i < rain * 260; i++) for (let drawn = 0; drawn < 3; drawn++) random()
  g.save()
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

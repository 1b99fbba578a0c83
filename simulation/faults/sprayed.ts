import { randomFrom } from '../random.ts'
import type { FaultPainting } from './painting.ts'

export const paintSprayed: FaultPainting = ({ g, width, height }, { script }, sprayed) => {
  const random = randomFrom(script.seed + 71)
  const count = Math.min(1, sprayed / 1.2) * 150
  g.save()
  g.globalAlpha = 0.92
  for (let i = 0; i < count; i++) {
    g.fillStyle = i % 3 ? '#5c6a78' : '#64737f'
    g.beginPath()
    const r = height * (0.06 + 0.12 * random())
    g.ellipse(random() * width, random() * height, r, r, 0, 0, 2 * Math.PI)
    g.fill()
  }
  g.restore()
}

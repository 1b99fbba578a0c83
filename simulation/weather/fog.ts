import { horizon } from '../../core/scene/camera.ts'
import type { Painting } from './painting.ts'

/** Fog: the further away, the less is seen. */
export const paintFog: Painting = ({ g, width, height, view }, _, fog, time) => {
  const level = Math.max(0, Math.min(1, horizon(view)))
  const thick = fog * (0.94 + 0.06 * Math.sin(time * 0.21))
  const veil = g.createLinearGradient(0, 0, 0, height)
  veil.addColorStop(0, `rgba(196,202,203,${0.86 * thick})`)
  veil.addColorStop(Math.min(0.98, level + 0.02), `rgba(196,202,203,${0.86 * thick})`)
  veil.addColorStop(1, `rgba(190,196,197,${0.3 * thick})`)
  g.fillStyle = veil
  g.fillRect(0, 0, width, height)
}

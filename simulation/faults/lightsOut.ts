import type { FaultPainting } from './painting.ts'

export const paintLightsOut: FaultPainting = ({ g, width, height }) => {
  g.save()
  g.globalCompositeOperation = 'multiply'
  g.fillStyle = '#0a0a0c'
  g.fillRect(0, 0, width, height)
  g.restore()
}

import type { FaultPainting } from './painting.ts'

export const paintWashedOut: FaultPainting = ({ g, width, height }, _, washed) => {
  g.save()
  g.globalAlpha = 0.9 * Math.min(1, washed / 0.6)
  const glare = g.createRadialGradient(
    width * 0.55,
    height * 0.4,
    0,
    width * 0.55,
    height * 0.4,
    width * 0.9
  )
  glare.addColorStop(0, '#ffffff')
  glare.addColorStop(1, '#eceae2')
  g.fillStyle = glare
  g.fillRect(0, 0, width, height)
  g.restore()
}

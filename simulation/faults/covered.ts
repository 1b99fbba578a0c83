import type { FaultPainting } from './painting.ts'

export const paintCovered: FaultPainting = ({ g, width, height }, _, covered) => {
  // A hand with a cloth comes from the left.
  const reach = Math.min(1, covered / 0.5) * width * 1.15
  const cloth = g.createLinearGradient(0, 0, reach || 1, height)
  cloth.addColorStop(0, '#3c342d')
  cloth.addColorStop(1, '#4b4139')
  g.fillStyle = cloth
  g.fillRect(0, 0, reach, height)
}

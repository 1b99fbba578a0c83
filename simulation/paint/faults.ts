import { randomFrom } from '../random.ts'
import type { Play } from '../script.ts'
import { faultAt } from '../world.ts'
import type { Sheet } from './canvas.ts'

/** What is done to the lens or to the light of the place; after everything else. */
export function paintFaults({ g, width, height }: Sheet, { script }: Play, time: number): void {
  const covered = faultAt(script, 'covered', time)
  if (covered !== null) {
    // A hand with a cloth comes from the left.
    const reach = Math.min(1, covered / 0.5) * width * 1.15
    const cloth = g.createLinearGradient(0, 0, reach || 1, height)
    cloth.addColorStop(0, '#3c342d')
    cloth.addColorStop(1, '#4b4139')
    g.fillStyle = cloth
    g.fillRect(0, 0, reach, height)
  }
  const sprayed = faultAt(script, 'sprayed', time)
  if (sprayed !== null) {
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
  if (faultAt(script, 'lightsOut', time) !== null) {
    g.save()
    g.globalCompositeOperation = 'multiply'
    g.fillStyle = '#0a0a0c'
    g.fillRect(0, 0, width, height)
    g.restore()
  }
  const washed = faultAt(script, 'washedOut', time)
  if (washed !== null) {
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
}

import { shapeOf } from '../../core/kinds/schemas.ts'
import { createCanvas, loadImage } from '@napi-rs/canvas'
import type { Detection } from '../../core/formats/plan.ts'
import type { Box, Point } from '../../core/geometry/shapes.ts'

/** The outline of a detection's shape; kinds that look at the whole picture have none. */
function outlineOf(detection: Detection): readonly Point[] {
  const shape = shapeOf(detection) ?? []
  return 'zone' in detection ? [...shape, detection.zone[0]!] : shape
}

/** The picture of a trigger's moment with the detection's shape and the target's brackets over it, as JPEG. */
export async function drawSnapshot(
  png: Buffer,
  detection: Detection,
  target: Box | null
): Promise<Buffer> {
  const picture = await loadImage(png)
  const { width, height } = picture
  const canvas = createCanvas(width, height)
  const g = canvas.getContext('2d')
  g.drawImage(picture, 0, 0)
  const points = outlineOf(detection)
  const unit = Math.max(1, height / 360)
  const stroke = (trace: () => void): void => {
    for (const [colour, wide] of [
      ['rgba(17, 22, 28, 0.75)', 4.5],
      ['#ffffff', 2]
    ] as const) {
      g.strokeStyle = colour
      g.lineWidth = wide * unit
      g.beginPath()
      trace()
      g.stroke()
    }
  }
  stroke(() =>
    points.forEach(([x, y], i) =>
      i ? g.lineTo(x * width, y * height) : g.moveTo(x * width, y * height)
    )
  )
  if (target) {
    const [x, y, w, h] = [target.x * width, target.y * height, target.w * width, target.h * height]
    const arm = Math.min(w, h) * 0.3
    stroke(() => {
      for (const [cx, cy, sx, sy] of [
        [x, y, 1, 1],
        [x + w, y, -1, 1],
        [x, y + h, 1, -1],
        [x + w, y + h, -1, -1]
      ] as const) {
        g.moveTo(cx + sx * arm, cy)
        g.lineTo(cx, cy)
        g.lineTo(cx, cy + sy * arm)
      }
    })
  }
  return canvas.encode('jpeg', 85)
}

import './picture.css'
import { useEffect, useRef, type ReactNode } from 'react'
import type { Point } from '../../../core/geometry/shapes.ts'
import type { Frame } from './Fitted.tsx'

const SIZE = 132
/** So much larger than the picture is on the screen. */
const POWER = 3

/** What is under a vertex, enlarged, in the corner of the picture that is farthest from it. */
export function Magnifier({
  at: [x, y],
  frame: { width, height, offsetX, offsetY, roomWidth, roomHeight }
}: {
  at: Point
  frame: Frame
}): ReactNode {
  const canvas = useRef<HTMLCanvasElement>(null)
  useEffect(() => {
    const element = canvas.current
    const media = element
      ?.closest('.picture')
      ?.querySelector<HTMLVideoElement | HTMLImageElement>('video, img')
    const context = element?.getContext('2d')
    if (!element || !media || !context) return
    const [ownWidth, ownHeight] =
      media instanceof HTMLVideoElement
        ? [media.videoWidth, media.videoHeight]
        : [media.naturalWidth, media.naturalHeight]
    if (!ownWidth) return
    const [w, h] = [(SIZE / POWER / width) * ownWidth, (SIZE / POWER / height) * ownHeight]
    context.fillStyle = '#11161C'
    context.fillRect(0, 0, SIZE, SIZE)
    context.drawImage(media, x * ownWidth - w / 2, y * ownHeight - h / 2, w, h, 0, 0, SIZE, SIZE)
    for (const [colour, thick] of [
      ['#11161C', 3],
      ['#FFFFFF', 1.2]
    ] as const) {
      context.strokeStyle = colour
      context.lineWidth = thick
      context.beginPath()
      for (const [ax, ay, bx, by] of [
        [0, 0.5, 0.44, 0.5],
        [0.56, 0.5, 1, 0.5],
        [0.5, 0, 0.5, 0.44],
        [0.5, 0.56, 0.5, 1]
      ] as const) {
        context.moveTo(ax * SIZE, ay * SIZE)
        context.lineTo(bx * SIZE, by * SIZE)
      }
      context.stroke()
    }
  }, [x, y, width, height])
  const right = x * width - offsetX < roomWidth / 2
  const low = y * height - offsetY < roomHeight / 2
  return (
    <canvas
      ref={canvas}
      className="magnifier"
      width={SIZE}
      height={SIZE}
      style={{ [right ? 'right' : 'left']: 10, [low ? 'bottom' : 'top']: 10 }}
      aria-hidden="true"
    />
  )
}

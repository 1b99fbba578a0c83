import { createCanvas, loadImage, type Canvas, type Image } from '@napi-rs/canvas'

/** Wide enough to tell what a target was; some 20 KB. */
const WIDTH = 480
const QUALITY = 75

/** A picture made small, as JPEG. @throws Error for what is no picture */
export const smallPicture = async (picture: Buffer): Promise<Buffer> =>
  madeSmall(await loadImage(picture))

/** A picture that is decoded, or painted, made small, as JPEG. */
export function madeSmall(whole: Image | Canvas): Promise<Buffer> {
  const scale = Math.min(1, WIDTH / whole.width)
  const canvas = createCanvas(
    Math.max(1, Math.round(whole.width * scale)),
    Math.max(1, Math.round(whole.height * scale))
  )
  const g = canvas.getContext('2d')
  g.imageSmoothingQuality = 'high'
  g.drawImage(whole, 0, 0, canvas.width, canvas.height)
  return canvas.encode('jpeg', QUALITY)
}

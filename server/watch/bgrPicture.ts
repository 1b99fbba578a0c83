import { createCanvas, loadImage, type Canvas, type Image } from '@napi-rs/canvas'
import type { FrameSize } from '../../analysis/frames.ts'

/** Decodes pictures and gives them as the analysis wants them; canvases are kept from one to the next. */
export class BgrPictures {
  private readonly canvases = new Map<string, Canvas>()

  /** @throws Error for what is no picture */
  decode(picture: Buffer): Promise<Image> {
    return loadImage(picture)
  }

  /** A picture in a size, as blue, green, red bytes. */
  scaled(picture: Image, { width, height }: FrameSize): Uint8Array {
    const key = `${width} ${height}`
    const canvas = this.canvases.get(key) ?? createCanvas(width, height)
    this.canvases.set(key, canvas)
    const g = canvas.getContext('2d')
    g.imageSmoothingQuality = 'medium'
    g.drawImage(picture, 0, 0, width, height)
    const { data } = g.getImageData(0, 0, width, height)
    const bytes = new Uint8Array(width * height * 3)
    for (let from = 0, to = 0; to < bytes.length; from += 4, to += 3) {
      bytes[to] = data[from + 2]!
      bytes[to + 1] = data[from + 1]!
      bytes[to + 2] = data[from]!
    }
    return bytes
  }
}

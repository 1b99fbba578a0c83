import type CV from '@techstark/opencv-js'
import type { Box } from '../core/geometry/shapes.ts'
import type { FrameSize } from './frames.ts'
import { partsOf } from './parts.ts'

/** Whether a pixel of the picture is one of a body. */
export type IsOwn = (x: number, y: number) => boolean

/**
 * Finds connected bodies of moving pixels: a closing, which joins head, trunk and legs across a thin post, and connected
 * components. Both are OpenCV's, in the parts of the picture in which something moves.
 */
export class Bodies {
  private readonly cv: typeof CV
  private readonly size: FrameSize
  private readonly leastArea: number
  private readonly reach: CV.Mat
  private readonly labels: CV.Mat
  private readonly stats: CV.Mat
  private readonly centroids: CV.Mat

  /** @param leastArea of a body, in moving pixels */
  constructor(cv: typeof CV, size: FrameSize, leastArea: number) {
    this.cv = cv
    this.size = size
    this.leastArea = leastArea
    this.reach = cv.getStructuringElement(cv.MORPH_RECT, new cv.Size(3, 7))
    this.labels = new cv.Mat()
    this.stats = new cv.Mat()
    this.centroids = new cv.Mat()
  }

  /**
   * The bodies of a mask, which is closed, in the order in which OpenCV numbers those of the whole mask.
   *
   * @param describe called with each body, `isOwn` to be asked only within it and only until this returns
   */
  find<T>(mask: CV.Mat, describe: (body: Box & { area: number }, isOwn: IsOwn) => T): T[] {
    return partsOf(mask.data, this.size)
      .flatMap((part) => this.inPart(mask, part, describe))
      .sort((a, b) => a.first - b.first)
      .map(({ body }) => body)
  }

  private inPart<T>(
    mask: CV.Mat,
    { x: left, y: top, w: width, h: height }: Box,
    describe: (body: Box & { area: number }, isOwn: IsOwn) => T
  ): { first: number; body: T }[] {
    const { cv, labels, stats } = this
    const part = mask.roi(new cv.Rect(left, top, width, height))
    cv.morphologyEx(part, part, cv.MORPH_CLOSE, this.reach)
    const count = cv.connectedComponentsWithStats(part, labels, stats, this.centroids, 8, cv.CV_32S)
    part.delete()
    const [rows, label] = [stats.data32S, labels.data32S]
    const found = []
    for (let i = 1; i < count; i++) {
      const [x = 0, y = 0, w = 0, h = 0, area = 0] = rows.subarray(i * 5, i * 5 + 5)
      if (area < this.leastArea) continue
      const box = { x: left + x, y: top + y, w, h }
      const isOwn: IsOwn = (px, py) => label[(py - top) * width + px - left] === i
      found.push({
        first: firstOf(box, isOwn, this.size.width),
        body: describe({ ...box, area }, isOwn)
      })
    }
    return found
  }

  delete(): void {
    for (const one of [this.reach, this.labels, this.stats, this.centroids]) one.delete()
  }
}

/** OpenCV numbers bodies by their first square of 2 × 2 pixels. */
function firstOf({ x, y, w }: Box, isOwn: IsOwn, width: number): number {
  const top = y - (y % 2)
  const isIn = (px: number): boolean => isOwn(px, y) || (top === y && isOwn(px, y + 1))
  let px = x
  while (px < x + w && !isIn(px)) px++
  return top * width + px - (px % 2)
}

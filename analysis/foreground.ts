import type CV from '@techstark/opencv-js'
import type { Box } from '../core/geometry/shapes.ts'
import { describeColours } from './appearance.ts'
import { Bodies, type IsOwn } from './bodies.ts'
import { HEAD } from './faces.ts'
import type { FrameSize } from './frames.ts'
import { Wavering } from './wavering.ts'

/** A connected patch of moving pixels, in analysed pixels. */
export interface Blob {
  x: number
  y: number
  w: number
  h: number
  /** Moving pixels in the box. */
  area: number
  colours: Float32Array
  /** In a place where something starts to move again and again. */
  wavers: boolean
}

/** A patch as it was found. */
export interface Patch extends Blob {
  /** The middle of its top, where an upright figure has its head: arms may reach far to one side. */
  head: number
}

/** The part of OpenCV that its types leave out. */
interface Subtractor {
  apply(image: CV.Mat, mask: CV.Mat, learningRate: number): void
  getBackgroundImage(image: CV.Mat): void
  delete(): void
}
interface WithMixture {
  BackgroundSubtractorMOG2: new (
    history: number,
    varianceThreshold: number,
    detectShadows: boolean
  ) => Subtractor
}

/** The background is learned over this long; what stands still for an eighth of it becomes part of it (but resting.ts). */
const LEARNED_SECONDS = 100
/** Squared distance, in standard deviations, from which a pixel differs from the background. OpenCV's default is 16. */
const VARIANCE_THRESHOLD = 20
const SHADOW = 127
/** The smallest patch that can be somebody, as a share of the picture. */
const MIN_AREA = 0.00025

/**
 * Finds what moves: OpenCV's adaptive Gaussian mixture (Zivkovic 2004, `BackgroundSubtractorMOG2`, with its shadow
 * detection), then an opening against speckle, and the bodies that are left.
 */
export class Foreground {
  private readonly cv: typeof CV
  private readonly size: FrameSize
  private readonly subtractor: Subtractor
  private readonly frame: CV.Mat
  private readonly mask: CV.Mat
  private readonly speck: CV.Mat
  private readonly bodies: Bodies
  private readonly learnedFrames: number
  private readonly wavering: Wavering
  private frames = 0

  constructor(cv: typeof CV, size: FrameSize, fps: number) {
    this.cv = cv
    this.size = size
    this.learnedFrames = Math.round(LEARNED_SECONDS * fps)
    this.subtractor = new (cv as unknown as WithMixture).BackgroundSubtractorMOG2(
      this.learnedFrames,
      VARIANCE_THRESHOLD,
      true
    )
    this.wavering = new Wavering(size, fps)
    this.frame = new cv.Mat(size.height, size.width, cv.CV_8UC3)
    this.mask = new cv.Mat()
    this.speck = cv.getStructuringElement(cv.MORPH_RECT, new cv.Size(2, 2))
    this.bodies = new Bodies(cv, size, Math.max(12, size.width * size.height * MIN_AREA))
  }

  /** The patches of one frame; frames must come in order. */
  find(picture: Uint8Array): Patch[] {
    const { cv, frame, mask } = this
    frame.data.set(picture)
    // Learns quickly at first, so that who was there from the start leaves no ghost; but not so quickly that somebody
    // who stands still in the first minute is taken for the background, as OpenCV's own schedule (2 n) does.
    this.frames++
    this.subtractor.apply(frame, mask, 1 / Math.min(this.learnedFrames, 4 * this.frames))
    cv.threshold(mask, mask, SHADOW + 1, 255, cv.THRESH_BINARY)
    cv.morphologyEx(mask, mask, cv.MORPH_OPEN, this.speck)
    const patches = this.bodies.find(mask, (body, isOwn) => ({
      ...body,
      colours: describeColours(picture, this.size.width, body, isOwn),
      head: middleOfTop(body, isOwn)
    }))
    this.wavering.next(mask.data)
    return patches.map((patch) => ({ ...patch, wavers: this.wavering.holds(patch) }))
  }

  /** Of the last frame, what moves: not 0. */
  get moving(): Uint8Array {
    return this.mask.data
  }

  /** What is behind all that moves (blue, green, red bytes). */
  background(): Uint8Array {
    const image = new this.cv.Mat()
    this.subtractor.getBackgroundImage(image)
    const bytes = Uint8Array.from(image.data)
    image.delete()
    return bytes
  }

  delete(): void {
    for (const part of [this.subtractor, this.frame, this.mask, this.speck, this.bodies])
      part.delete()
  }
}

/** The middle of a patch's pixels in the rows of the head. */
function middleOfTop({ x, y, w, h }: Box, isOwn: IsOwn): number {
  let [sum, count] = [0, 0]
  for (let py = y; py < y + Math.max(1, HEAD * h); py++)
    for (let px = x; px < x + w; px++)
      if (isOwn(px, py)) {
        sum += px + 0.5
        count++
      }
  return count ? sum / count : x + w / 2
}

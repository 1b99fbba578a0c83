import { areGrey, colourOf, hueApart, medianColour, type Colour } from '../colour.ts'
import type { FrameSize } from '../frames.ts'

/** In pixels of a picture. */
export type Point = readonly [x: number, y: number]

/*
 * Landmarks of a face, by their numbers. Source: MediaPipe's canonical face model (from memory); checked by laying them
 * over public pictures.
 */
/** What a mask leaves free: forehead, brow, bridge of the nose, below the outer corners of the eyes. */
const FREE = [151, 9, 6, 108, 337, 117, 346]
/** What it covers: chin, cheeks beside the mouth, above the upper lip. */
const COVERED = [199, 200, 18, 205, 425, 187, 411, 164]
const [UPPER_LIP, LOWER_LIP, ABOVE_LIPS, BELOW_LIPS] = [0, 17, 164, 18] as const
const [LEFT_EYE, RIGHT_EYE] = [33, 263] as const

/** A spot of a face is the mean of so much of it, as a share of the way from eye to eye. */
const SPOT = 0.06

/**
 * Whether a face wears a mask: its lower half is set against its own brow and cheeks, and its lips against what is
 * around them, so that no colour of skin is expected. Limits from public pictures of faces with masks painted over them
 * (docs/classification.md).
 *
 * @param bgr blue, green, red bytes @param landmarks 468 of them @returns null: cannot be told, as with a full beard
 */
export function maskOf(
  bgr: Uint8Array,
  size: FrameSize,
  landmarks: readonly Point[]
): boolean | null {
  const at = (i: number): Point => landmarks[i]!
  const [left, right] = [at(LEFT_EYE), at(RIGHT_EYE)]
  const radius = Math.max(0.5, SPOT * Math.hypot(left[0] - right[0], left[1] - right[1]))
  const spot = (point: Point): Colour => spotOf(bgr, size, point, radius)
  const free = medianColour(FREE.map((i) => spot(at(i))))
  const covered = medianColour(COVERED.map((i) => spot(at(i))))
  const [upper, lower] = [at(UPPER_LIP), at(LOWER_LIP)]
  const lips = spot([(upper[0] + lower[0]) / 2, (upper[1] + lower[1]) / 2])
  const around = medianColour([ABOVE_LIPS, BELOW_LIPS].map((i) => spot(at(i))))
  const apart = hueApart(free, covered)
  const darker = covered.brightness - free.brightness
  if (areGrey(free, covered)) {
    const shown = Math.abs(lips.brightness - around.brightness)
    if (shown < 0.06 && (darker > 0.45 || darker < -0.8)) return true
    return shown >= 0.12 && Math.abs(darker) < 0.4 ? false : null
  }
  const shown = Math.abs(lips.redness - around.redness)
  if (shown < 0.04 && (apart >= 0.22 || darker < -0.8)) return true
  return shown >= 0.04 && apart < 0.2 && Math.abs(darker) < 0.55 ? false : null
}

/** The mean colour around a point; black where it lies outside the picture. */
function spotOf(
  bgr: Uint8Array,
  { width, height }: FrameSize,
  [x, y]: Point,
  radius: number
): Colour {
  let [b, g, r, n] = [0, 0, 0, 0]
  for (let py = Math.round(y - radius); py <= Math.round(y + radius); py++)
    for (let px = Math.round(x - radius); px <= Math.round(x + radius); px++) {
      if (px < 0 || py < 0 || px >= width || py >= height) continue
      const k = 3 * (py * width + px)
      b += bgr[k]!
      g += bgr[k + 1]!
      r += bgr[k + 2]!
      n++
    }
  return n ? colourOf(b / n, g / n, r / n) : colourOf(0, 0, 0)
}

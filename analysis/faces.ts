import type { Box } from '../core/geometry/shapes.ts'
import { areGrey, colourApart, colourOf, hueApart, medianColour, type Colour } from './colour.ts'
import type { FrameSize } from './frames.ts'

/** A face in analysed pixels. */
export interface FoundFace extends Box {
  /** Null: not told. */
  mask: boolean | null
}

/** Smaller figures than this, in analysed pixels, show too little of a face. */
const MIN_FIGURE = 56
/**
 * Where the head is, as shares of an upright figure's height (Drillis and Contini 1966, from
 * memory: head and neck 0.13 to 0.18).
 */
export const HEAD = 0.155
/** The bands of hair, of brow and eyes, and of mouth and chin. */
const CROWN = [0.012, 0.038] as const
const UPPER = [0.04, 0.07] as const
const LOWER = [0.098, 0.13] as const
/** From behind, hair goes on where a face would begin; from the front, its colour changes by this much. */
const FACE_APART = 0.45
/** Hair above a neck, from behind, differs from it by this much in brightness, and not in hue as a mask does. */
const NECK_APART = 0.4
/** A lower face that differs this much from the upper one is covered; one that differs by less than that is not. */
const MASK_APART = 0.26
const BARE_APART = 0.18

/**
 * The face of a figure that stands upright and looks this way, where it is too small, or drawn too simply, for the
 * detector's eyes: below the hair, the head has another colour. What that colour is does not matter. With a lower face
 * unlike the upper one it wears a mask; without colour, that is not told.
 *
 * @param figure with the middle of its head @returns null: it shows none
 */
export function findFace(
  bgr: Uint8Array,
  size: FrameSize,
  figure: Box & { head: number }
): FoundFace | null {
  const { x, y, w, h, head } = figure
  if (h < MIN_FIGURE || w > h) return null
  const half = 0.03 * h
  const band = ([from, to]: readonly [number, number]): Colour | null =>
    colourIn(bgr, size, head - half, head + half, y + from * h, y + to * h)
  const [crown, upper, lower] = [band(CROWN), band(UPPER), band(LOWER)]
  if (!crown || !upper || !lower || x < 1 || y < 1 || x + w > size.width - 1) return null
  if (colourApart(crown, upper) < FACE_APART) return null
  const apart = hueApart(upper, lower)
  if (apart < MASK_APART && Math.abs(upper.brightness - lower.brightness) > NECK_APART) return null
  return {
    x: head - 0.058 * h,
    y: y + 0.005 * h,
    w: 0.116 * h,
    h: 0.15 * h,
    mask: areGrey(upper, lower)
      ? null
      : apart >= MASK_APART
        ? true
        : apart < BARE_APART
          ? false
          : null
  }
}

/** The usual colour between two columns and two rows; null: nothing of that is in the picture. */
function colourIn(
  bgr: Uint8Array,
  { width, height }: FrameSize,
  left: number,
  right: number,
  top: number,
  bottom: number
): Colour | null {
  const colours: Colour[] = []
  const first = Math.round(top)
  for (
    let y = Math.max(0, first);
    y < Math.min(height, Math.max(Math.round(bottom), first + 1));
    y++
  )
    for (let x = Math.max(0, Math.round(left)); x < Math.min(width, Math.round(right)); x++) {
      const k = 3 * (y * width + x)
      colours.push(colourOf(bgr[k]!, bgr[k + 1]!, bgr[k + 2]!))
    }
  return colours.length ? medianColour(colours) : null
}

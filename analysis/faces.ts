import type { Box } from '../core/geometry/shapes.ts'
import type { FrameSize } from './frames.ts'

/** A face in analysed pixels. */
export interface FoundFace extends Box {
  mask: boolean | null
}

/** Smaller figures than this, in analysed pixels, show too little of a face. */
const MIN_FIGURE = 56
/**
 * Where the head is, as shares of an upright figure's height (Drillis and Contini 1966, from
 * memory: head and neck 0.13 to 0.18).
 */
const HEAD = 0.155
/** The band of brow and eyes, and that of mouth and chin. */
const UPPER = [0.045, 0.085] as const
const LOWER = [0.095, 0.132] as const

/**
 * Whether a pixel has the colour of skin in daylight or lamplight. Source: Kovač, Peer and Solina 2003 (from memory).
 * Says nothing in infra-red, where there is no colour, and so finds no face there.
 */
const isSkin = (b: number, g: number, r: number): boolean =>
  r > 95 &&
  g > 40 &&
  b > 20 &&
  Math.max(r, g, b) - Math.min(r, g, b) > 15 &&
  Math.abs(r - g) > 15 &&
  r > g &&
  r > b

/** Share of skin in a band of rows, between two columns. */
function skinIn(
  bgr: Uint8Array,
  { width, height }: FrameSize,
  left: number,
  right: number,
  top: number,
  bottom: number
): number {
  let skin = 0
  let all = 0
  for (
    let y = Math.max(0, Math.round(top));
    y < Math.min(height, Math.max(Math.round(bottom), Math.round(top) + 1));
    y++
  )
    for (let x = Math.max(0, Math.round(left)); x < Math.min(width, Math.round(right)); x++) {
      const k = 3 * (y * width + x)
      all++
      if (isSkin(bgr[k]!, bgr[k + 1]!, bgr[k + 2]!)) skin++
    }
  return all ? skin / all : 0
}

/**
 * The face of a figure that stands upright and looks this way: skin about the eyes. With skin there and none about the
 * mouth, it wears a mask.
 */
export function findFace(bgr: Uint8Array, size: FrameSize, figure: Box): FoundFace | null {
  const { x, y, w, h } = figure
  if (h < MIN_FIGURE || w > h) return null
  // The head's middle is that of the skin in the rows of the head; arms may reach far to one side.
  let [sum, count] = [0, 0]
  for (let py = Math.max(0, Math.round(y)); py < Math.min(size.height, y + HEAD * h); py++)
    for (let px = Math.max(0, Math.round(x)); px < Math.min(size.width, x + w); px++) {
      const k = 3 * (py * size.width + px)
      if (!isSkin(bgr[k]!, bgr[k + 1]!, bgr[k + 2]!)) continue
      sum += px
      count++
    }
  if (count < 6) return null
  const middle = sum / count + 0.5
  const half = 0.035 * h
  const band = ([from, to]: readonly [number, number]): number =>
    skinIn(bgr, size, middle - half, middle + half, y + from * h, y + to * h)
  const [upper, lower] = [band(UPPER), band(LOWER)]
  if (upper < 0.45) return null
  return {
    x: middle - 0.058 * h,
    y: y + 0.005 * h,
    w: 0.116 * h,
    h: 0.15 * h,
    mask: lower < 0.3 ? true : lower > 0.5 ? false : null
  }
}

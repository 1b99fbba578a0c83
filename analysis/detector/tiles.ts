import type { Box } from '../../core/geometry/shapes.ts'
import type { FrameSize } from '../frames.ts'

/** A square of a picture, as it is laid out for the detector. */
export interface Tile {
  /** Where in the picture, in its pixels; may reach over the edge. */
  from: { x: number; y: number; side: number }
  /** Where in what the detector is given. */
  to: { x: number; y: number; side: number }
}

/** A target fills not quite half of its tile: what is around it tells the detector what it is. */
const MARGIN = 2.2
/** A tile is not cut from less than this many pixels: so small a thing scaled up shows no more than it has. */
const LEAST_SIDE = 48

/** Square around a box, in a picture of that size: as large as its surroundings need, no larger than the picture. */
export function squareAround({ x, y, w, h }: Box, { width, height }: FrameSize): Tile['from'] {
  const side = Math.min(Math.max(LEAST_SIDE, MARGIN * Math.max(w, h)), Math.max(width, height))
  // Kept within the picture where it fits: what is beyond the edge says nothing.
  const within = (middle: number, length: number): number =>
    side >= length ? (length - side) / 2 : Math.min(Math.max(0, middle - side / 2), length - side)
  return { x: within(x + w / 2, width), y: within(y + h / 2, height), side }
}

/** Lays squares out in a picture of `size` pixels both ways, as few in a row as may be: 1, 4 or 9 in all. */
export function layOut(squares: readonly Tile['from'][], size: number): Tile[] {
  const across = Math.max(1, Math.ceil(Math.sqrt(squares.length)))
  const side = Math.floor(size / across)
  return squares.map((from, i) => ({
    from,
    to: { x: (i % across) * side, y: Math.floor(i / across) * side, side }
  }))
}

/** A box of what the detector was given, in the picture that the tile was cut from. */
export function boxInPicture({ x, y, w, h }: Box, { from, to }: Tile): Box {
  const scale = from.side / to.side
  return {
    x: from.x + (x - to.x) * scale,
    y: from.y + (y - to.y) * scale,
    w: w * scale,
    h: h * scale
  }
}

/** Whether a square holds the middle of a box. */
export const holdsMiddle = ({ x, y, side }: Tile['to'], box: Box): boolean =>
  box.x + box.w / 2 >= x &&
  box.x + box.w / 2 < x + side &&
  box.y + box.h / 2 >= y &&
  box.y + box.h / 2 < y + side

/** The tile that holds the middle of a box. */
export const tileOf = (box: Box, tiles: readonly Tile[]): Tile | undefined =>
  tiles.find(({ to }) => holdsMiddle(to, box))

/**
 * Cuts tiles out of a picture.
 *
 * @param bgr three bytes a pixel: blue, green, red @param size of the picture
 * @param side pixels both ways of what is made @returns three bytes a pixel: red, green, blue; grey where nothing is
 */
export function cutTiles(
  bgr: Uint8Array,
  size: FrameSize,
  tiles: readonly Tile[],
  side: number
): Uint8Array {
  const out = new Uint8Array(side * side * 3).fill(114)
  for (const { from, to } of tiles) {
    const scale = from.side / to.side
    // Scaled down, each pixel is the mean of those that it covers; scaled up, a mix of the four around it.
    const taps = Math.max(1, Math.round(scale))
    for (let row = 0; row < to.side; row++)
      for (let column = 0; column < to.side; column++) {
        let [r, g, b, n] = [0, 0, 0, 0]
        for (let t = 0; t < taps * taps; t++) {
          const px = from.x + (column + ((t % taps) + 0.5) / taps) * scale - 0.5
          const py = from.y + (row + (Math.floor(t / taps) + 0.5) / taps) * scale - 0.5
          if (px < -0.5 || py < -0.5 || px > size.width - 0.5 || py > size.height - 0.5) continue
          const [left, top] = [
            clamp(Math.floor(px), size.width),
            clamp(Math.floor(py), size.height)
          ]
          const [right, bottom] = [
            clamp(Math.floor(px) + 1, size.width),
            clamp(Math.floor(py) + 1, size.height)
          ]
          const [fx, fy] = [px - Math.floor(px), py - Math.floor(py)]
          const a = 3 * (top * size.width + left)
          const c = 3 * (top * size.width + right)
          const d = 3 * (bottom * size.width + left)
          const e = 3 * (bottom * size.width + right)
          const mix = (k: number): number =>
            (bgr[a + k]! * (1 - fx) + bgr[c + k]! * fx) * (1 - fy) +
            (bgr[d + k]! * (1 - fx) + bgr[e + k]! * fx) * fy
          b += mix(0)
          g += mix(1)
          r += mix(2)
          n++
        }
        if (!n) continue
        const k = 3 * ((to.y + row) * side + to.x + column)
        out[k] = r / n + 0.5
        out[k + 1] = g / n + 0.5
        out[k + 2] = b / n + 0.5
      }
  }
  return out
}

const clamp = (value: number, length: number): number => Math.min(Math.max(value, 0), length - 1)

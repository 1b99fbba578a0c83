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
): Uint8Array<ArrayBuffer> {
  const out = new Uint8Array(side * side * 3).fill(114)
  for (const { from, to } of tiles) {
    const scale = from.side / to.side
    // Scaled down, each pixel is the mean of those that it covers; scaled up, a mix of the four around it.
    const taps = Math.max(1, Math.round(scale))
    const across = tapsAlong(from.x, scale, taps, to.side, size.width)
    const down = tapsAlong(from.y, scale, taps, to.side, size.height)
    for (let row = 0; row < to.side; row++)
      for (let column = 0; column < to.side; column++) {
        let r = 0
        let g = 0
        let b = 0
        let n = 0
        for (let y = row * taps; y < (row + 1) * taps; y++) {
          const top = down.first[y]! * size.width
          if (top < 0) continue
          const bottom = down.second[y]! * size.width
          const fy = down.part[y]!
          for (let x = column * taps; x < (column + 1) * taps; x++) {
            const left = across.first[x]!
            if (left < 0) continue
            const right = across.second[x]!
            const fx = across.part[x]!
            const i = 3 * (top + left)
            const j = 3 * (top + right)
            const k = 3 * (bottom + left)
            const l = 3 * (bottom + right)
            const gx = 1 - fx
            const gy = 1 - fy
            b += (bgr[i]! * gx + bgr[j]! * fx) * gy + (bgr[k]! * gx + bgr[l]! * fx) * fy
            g +=
              (bgr[i + 1]! * gx + bgr[j + 1]! * fx) * gy +
              (bgr[k + 1]! * gx + bgr[l + 1]! * fx) * fy
            r +=
              (bgr[i + 2]! * gx + bgr[j + 2]! * fx) * gy +
              (bgr[k + 2]! * gx + bgr[l + 2]! * fx) * fy
            n++
          }
        }
        if (!n) continue
        const at = 3 * ((to.y + row) * side + to.x + column)
        out[at] = r / n + 0.5
        out[at + 1] = g / n + 0.5
        out[at + 2] = b / n + 0.5
      }
  }
  return out
}

/**
 * Where a row (or a column) of a tile takes its pixels from: for each tap, the two of the picture that it lies between,
 * and how far it is from the first, 0 to 1. The first is -1 where the picture has ended.
 */
function tapsAlong(
  from: number,
  scale: number,
  taps: number,
  count: number,
  length: number
): { first: Int32Array; second: Int32Array; part: Float64Array } {
  const [first, second] = [new Int32Array(count * taps), new Int32Array(count * taps)]
  const part = new Float64Array(count * taps)
  for (let i = 0; i < count * taps; i++) {
    const at = from + (Math.floor(i / taps) + ((i % taps) + 0.5) / taps) * scale - 0.5
    const whole = Math.floor(at)
    const isWithin = at >= -0.5 && at <= length - 0.5
    first[i] = isWithin ? clamp(whole, length) : -1
    second[i] = clamp(whole + 1, length)
    part[i] = at - whole
  }
  return { first, second, part }
}

const clamp = (value: number, length: number): number => Math.min(Math.max(value, 0), length - 1)

import { randomFrom } from './random.ts'

/** Standard deviation, in levels of 255, of a sensor's noise by day; at night the amplifier brings more. */
export const DAY_NOISE = 2.2
export const NIGHT_NOISE = 3.2

/** Normally distributed numbers of variance 1, enough of them that the same stretch is not met again soon. */
const GRAINS = 1 << 18
/** The sum of so many even ones has variance 1 (central limit). */
const SUMMED = 12

/** Tables that were made last; most walks have the same seed. */
const made = new Map<string, Int32Array>()
const MAX_KEPT = 4

/** Grains as they are added: in each of the three colours' bytes how far, in the sign which way. */
function grainsOf(seed: number, level: number): Int32Array {
  const key = `${seed} ${level}`
  const known = made.get(key)
  if (known) return known
  const random = randomFrom(seed)
  const grains = Int32Array.from({ length: GRAINS }, () => {
    let sum = -SUMMED / 2
    for (let k = 0; k < SUMMED; k++) sum += random()
    const grain = Math.round(level * sum)
    return (Math.abs(grain) * 0x010101) | (grain < 0 ? 1 << 31 : 0)
  })
  if (made.size >= MAX_KEPT) made.delete(made.keys().next().value!)
  made.set(key, grains)
  return grains
}

/** Noise of a sensor, from a table: a random number for every pixel would take longer than the picture. */
export class Noise {
  private readonly grains: Int32Array
  private readonly random: () => number

  /** @param level standard deviation in levels of 255 */
  constructor(seed: number, level: number) {
    this.grains = grainsOf(seed, level)
    this.random = randomFrom(seed, GRAINS * SUMMED)
  }

  /**
   * Adds noise to RGBA pixels in place; the same for all colours of a pixel, none below 0 or above 255. A pixel's bytes
   * are added at once: their lower seven bits, which carry into the eighth, then the eighth; where it carries on, the
   * byte is full. To take away is to add to what is missing to full.
   */
  add({ buffer, byteOffset, length }: Uint8ClampedArray): void {
    const { grains } = this
    // Red lies lowest, as on every machine that this runs on.
    const pixels = new Int32Array(buffer, byteOffset, length >> 2)
    let at = Math.floor(this.random() * GRAINS)
    for (let i = 0; i < pixels.length; i++) {
      const grain = grains[at]!
      at = (at + 1) & (GRAINS - 1)
      const away = grain >> 31
      const pixel = pixels[i]! ^ away
      const sum = (pixel & 0x7f7f7f7f) + (grain & 0x7fffffff)
      const over = pixel & sum & 0x808080
      pixels[i] = ((sum ^ (pixel & ~0x7f7f7f7f)) | ((over << 1) - (over >>> 7))) ^ away
    }
  }
}

/** How far a lens is out of focus, in pixels, so many seconds after somebody turned it. */
export const defocusRadius = (seconds: number, height: number): number =>
  Math.max(1, Math.round(Math.min(1, seconds / 0.8) * height * 0.022))

/** A lens out of focus: three box blurs, which come near to a Gaussian one (Wells 1986, from memory). RGBA in place. */
export function defocus(
  pixels: Uint8ClampedArray,
  width: number,
  height: number,
  radius: number
): void {
  const between = new Uint8ClampedArray(pixels.length)
  for (let round = 0; round < 3; round++) {
    blurRows(pixels, between, width, height, radius)
    blurColumns(between, pixels, width, height, radius)
  }
}

const held = (i: number, length: number): number => Math.min(length - 1, Math.max(0, i))

function blurRows(
  from: Uint8ClampedArray,
  to: Uint8ClampedArray,
  width: number,
  height: number,
  radius: number
): void {
  const size = 2 * radius + 1
  for (let y = 0; y < height; y++) {
    const start = 4 * width * y
    let [r, g, b] = [0, 0, 0]
    for (let i = -radius; i <= radius; i++) {
      const k = start + 4 * held(i, width)
      r += from[k]!
      g += from[k + 1]!
      b += from[k + 2]!
    }
    for (let x = 0, k = start; x < width; x++, k += 4) {
      to[k] = r / size
      to[k + 1] = g / size
      to[k + 2] = b / size
      const [ahead, behind] = [
        start + 4 * held(x + radius + 1, width),
        start + 4 * held(x - radius, width)
      ]
      r += from[ahead]! - from[behind]!
      g += from[ahead + 1]! - from[behind + 1]!
      b += from[ahead + 2]! - from[behind + 2]!
    }
  }
}

/** All columns at once, row by row: as the picture lies in memory. */
function blurColumns(
  from: Uint8ClampedArray,
  to: Uint8ClampedArray,
  width: number,
  height: number,
  radius: number
): void {
  const size = 2 * radius + 1
  const row = 4 * width
  const sums = new Int32Array(row)
  for (let i = -radius; i <= radius; i++)
    for (let x = 0, k = row * held(i, height); x < row; x++, k++) sums[x]! += from[k]!
  for (let y = 0; y < height; y++) {
    const [ahead, behind] = [row * held(y + radius + 1, height), row * held(y - radius, height)]
    for (let x = 0, k = row * y; x < row; x++, k++) {
      to[k] = sums[x]! / size
      sums[x]! += from[ahead + x]! - from[behind + x]!
    }
  }
}

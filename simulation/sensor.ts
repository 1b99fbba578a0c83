import { randomFrom } from './random.ts'

/** Standard deviation, in levels of 255, of a sensor's noise by day; at night the amplifier brings more. */
export const DAY_NOISE = 2.2
export const NIGHT_NOISE = 3.2

/** Normally distributed numbers of variance 1, enough of them that the same stretch is not met again soon. */
const GRAINS = 1 << 18

/** Noise of a sensor, from a table: a random number for every pixel would take longer than the picture. */
export class Noise {
  private readonly grains: Int8Array
  private readonly random: () => number

  /** @param level standard deviation in levels of 255 */
  constructor(seed: number, level: number) {
    this.random = randomFrom(seed)
    this.grains = new Int8Array(GRAINS)
    // The sum of twelve has variance 1 (central limit).
    for (let i = 0; i < GRAINS; i++) {
      let sum = -6
      for (let k = 0; k < 12; k++) sum += this.random()
      this.grains[i] = Math.round(level * sum)
    }
  }

  /** Adds noise to RGBA pixels in place; the same for all colours of a pixel. */
  add(pixels: Uint8ClampedArray): void {
    const { grains } = this
    let at = Math.floor(this.random() * GRAINS)
    for (let i = 0; i < pixels.length; i += 4) {
      const grain = grains[at]
      at = (at + 1) & (GRAINS - 1)
      pixels[i] += grain
      pixels[i + 1] += grain
      pixels[i + 2] += grain
    }
  }
}

/** A lens out of focus: three box blurs, which come near to a Gaussian one (Wells 1986, from memory). RGBA in place. */
export function defocus(pixels: Uint8ClampedArray, width: number, height: number, radius: number): void {
  const between = new Uint8ClampedArray(pixels.length)
  for (let round = 0; round < 3; round++) {
    blurRows(pixels, between, width, height, radius)
    blurColumns(between, pixels, width, height, radius)
  }
}

const held = (i: number, length: number): number => Math.min(length - 1, Math.max(0, i))

function blurRows(from: Uint8ClampedArray, to: Uint8ClampedArray, width: number, height: number, radius: number): void {
  const size = 2 * radius + 1
  for (let y = 0; y < height; y++) {
    const start = 4 * width * y
    let [r, g, b] = [0, 0, 0]
    for (let i = -radius; i <= radius; i++) {
      const k = start + 4 * held(i, width)
      r += from[k]
      g += from[k + 1]
      b += from[k + 2]
    }
    for (let x = 0, k = start; x < width; x++, k += 4) {
      to[k] = r / size
      to[k + 1] = g / size
      to[k + 2] = b / size
      const [ahead, behind] = [start + 4 * held(x + radius + 1, width), start + 4 * held(x - radius, width)]
      r += from[ahead] - from[behind]
      g += from[ahead + 1] - from[behind + 1]
      b += from[ahead + 2] - from[behind + 2]
    }
  }
}

/** All columns at once, row by row: as the picture lies in memory. */
function blurColumns(from: Uint8ClampedArray, to: Uint8ClampedArray, width: number, height: number, radius: number): void {
  const size = 2 * radius + 1
  const row = 4 * width
  const sums = new Int32Array(row)
  for (let i = -radius; i <= radius; i++) for (let x = 0, k = row * held(i, height); x < row; x++, k++) sums[x] += from[k]
  for (let y = 0; y < height; y++) {
    const [ahead, behind] = [row * held(y + radius + 1, height), row * held(y - radius, height)]
    for (let x = 0, k = row * y; x < row; x++, k++) {
      to[k] = sums[x] / size
      sums[x] += from[ahead + x] - from[behind + x]
    }
  }
}

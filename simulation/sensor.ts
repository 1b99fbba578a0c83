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
  const from = new Uint8ClampedArray(pixels.length)
  for (let round = 0; round < 3; round++) {
    boxBlur(pixels, from, height, width, 4 * width, 4, radius)
    boxBlur(from, pixels, width, height, 4, 4 * width, radius)
  }
}

/** Blurs `lines` lines of `length` pixels each; steps in bytes between lines and between pixels of a line. */
function boxBlur(from: Uint8ClampedArray, to: Uint8ClampedArray, lines: number, length: number, lineStep: number, step: number, radius: number): void {
  const size = 2 * radius + 1
  for (let line = 0; line < lines; line++)
    for (let c = 0; c < 3; c++) {
      const start = line * lineStep + c
      const at = (i: number): number => from[start + Math.min(length - 1, Math.max(0, i)) * step]
      let sum = 0
      for (let i = -radius; i <= radius; i++) sum += at(i)
      for (let i = 0; i < length; i++) {
        to[start + i * step] = sum / size
        sum += at(i + radius + 1) - at(i - radius)
      }
    }
}

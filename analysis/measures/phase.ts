import { grayOf, type Gray } from './pictures.ts'

/** Real and imaginary parts of a two-dimensional spectrum, row by row. */
interface Spectrum {
  re: Float64Array
  im: Float64Array
}

/** Fourier transform of lines whose length is a power of two (Cooley and Tukey 1965), in place. */
class Fourier {
  readonly n: number
  private readonly cos: Float64Array
  private readonly sin: Float64Array
  private readonly reversed: Uint16Array

  constructor(n: number) {
    this.n = n
    this.cos = Float64Array.from({ length: n / 2 }, (_, i) => Math.cos((2 * Math.PI * i) / n))
    this.sin = Float64Array.from({ length: n / 2 }, (_, i) => -Math.sin((2 * Math.PI * i) / n))
    const bits = Math.log2(n)
    this.reversed = Uint16Array.from({ length: n }, (_, i) => {
      let r = 0
      for (let b = 0; b < bits; b++) r |= ((i >> b) & 1) << (bits - 1 - b)
      return r
    })
  }

  /** Transforms the `n` numbers at `start`, `start + step`, …; the inverse is without its factor 1 / n. */
  run({ re, im }: Spectrum, start: number, step: number, inverse: boolean): void {
    const { n, cos, sin, reversed } = this
    for (let i = 0; i < n; i++) {
      const j = reversed[i]!
      if (j <= i) continue
      const [a, b] = [start + i * step, start + j * step]
      ;[re[a], re[b]] = [re[b]!, re[a]!]
      ;[im[a], im[b]] = [im[b]!, im[a]!]
    }
    for (let size = 2; size <= n; size *= 2) {
      const half = size / 2
      const stride = n / size
      for (let i = 0; i < n; i += size)
        for (let k = 0; k < half; k++) {
          const [wr, wi] = [cos[k * stride]!, inverse ? -sin[k * stride]! : sin[k * stride]!]
          const a = start + (i + k) * step
          const b = a + half * step
          const tr = re[b]! * wr - im[b]! * wi
          const ti = re[b]! * wi + im[b]! * wr
          re[b] = re[a]! - tr
          im[b] = im[a]! - ti
          re[a]! += tr
          im[a]! += ti
        }
    }
  }
}

export interface Shift {
  /** Pixels by which the picture has moved against the reference; right and down are positive. */
  x: number
  y: number
  /** How sure: 1 where one picture is the other one shifted, near 0 where they have nothing in common. */
  response: number
}

/**
 * Finds by how much a picture is shifted against a reference: phase correlation with a Hann window and the centroid of
 * 5 × 5 about the peak. Source: Kuglin and Hines 1975; the details as in OpenCV's `phaseCorrelate`.
 */
export class PhaseCorrelation {
  readonly width: number
  readonly height: number
  private readonly along: Fourier
  private readonly down: Fourier
  private readonly hann: Float64Array
  private readonly reference: Spectrum
  private readonly work: Spectrum

  /** @param width, height powers of two */
  constructor(width: number, height: number) {
    this.width = width
    this.height = height
    this.along = new Fourier(width)
    this.down = new Fourier(height)
    const window = (n: number): number[] =>
      Array.from({ length: n }, (_, i) => 0.5 * (1 - Math.cos((2 * Math.PI * i) / (n - 1))))
    const [wx, wy] = [window(width), window(height)]
    this.hann = Float64Array.from({ length: width * height }, (_, i) =>
      Math.sqrt(wx[i % width]! * wy[Math.floor(i / width)]!)
    )
    this.reference = this.spectrum()
    this.work = this.spectrum()
  }

  private spectrum(): Spectrum {
    const n = this.width * this.height
    return { re: new Float64Array(n), im: new Float64Array(n) }
  }

  private transform(s: Spectrum, inverse: boolean): void {
    for (let y = 0; y < this.height; y++) this.along.run(s, y * this.width, 1, inverse)
    for (let x = 0; x < this.width; x++) this.down.run(s, x, this.width, inverse)
  }

  private load(picture: Gray, s: Spectrum): void {
    for (let i = 0; i < s.re.length; i++) {
      s.re[i] = picture.data[i]! * this.hann[i]!
      s.im[i] = 0
    }
    this.transform(s, false)
  }

  setReference(picture: Gray): void {
    this.load(picture, this.reference)
  }

  shiftOf(picture: Gray): Shift {
    const { work, reference, width, height } = this
    this.load(picture, work)
    for (let i = 0; i < work.re.length; i++) {
      // Reference times the picture's conjugate, of which only the phase is kept.
      const re = reference.re[i]! * work.re[i]! + reference.im[i]! * work.im[i]!
      const im = reference.im[i]! * work.re[i]! - reference.re[i]! * work.im[i]!
      const size = Math.hypot(re, im) || 1
      work.re[i] = re / size
      work.im[i] = im / size
    }
    this.transform(work, true)
    let peak = 0
    for (let i = 1; i < work.re.length; i++) if (work.re[i]! > work.re[peak]!) peak = i
    const [px, py] = [peak % width, Math.floor(peak / width)]
    let [sx, sy, sum] = [0, 0, 0]
    for (let dy = -2; dy <= 2; dy++)
      for (let dx = -2; dx <= 2; dx++) {
        const value = work.re[((py + dy + height) % height) * width + ((px + dx + width) % width)]!
        sum += value
        sx += value * dx
        sy += value * dy
      }
    const centred = (p: number, n: number): number => (p > n / 2 ? p - n : p)
    const off = sum > 1e-12 ? [sx / sum, sy / sum] : [0, 0]
    return {
      x: -(centred(px, width) + off[0]!),
      y: -(centred(py, height) + off[1]!),
      response: sum / (width * height)
    }
  }
}

/** A picture brought to another size, each pixel taken between its four neighbours. */
export function resized(
  from: Gray,
  width: number,
  height: number,
  to = grayOf(width, height)
): Gray {
  for (let y = 0; y < height; y++) {
    const fy = Math.min(from.height - 1.001, ((y + 0.5) * from.height) / height - 0.5)
    const y0 = Math.max(0, Math.floor(fy))
    const ty = Math.max(0, fy - y0)
    for (let x = 0; x < width; x++) {
      const fx = Math.min(from.width - 1.001, ((x + 0.5) * from.width) / width - 0.5)
      const x0 = Math.max(0, Math.floor(fx))
      const tx = Math.max(0, fx - x0)
      const i = y0 * from.width + x0
      const top = from.data[i]! + (from.data[i + 1]! - from.data[i]!) * tx
      const bottom =
        from.data[i + from.width]! +
        (from.data[i + from.width + 1]! - from.data[i + from.width]!) * tx
      to.data[y * width + x] = top + (bottom - top) * ty
    }
  }
  return to
}

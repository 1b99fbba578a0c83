/** A picture of one channel, as numbers from 0 to 255. */
export interface Gray {
  width: number
  height: number
  data: Float32Array
}

/** The luma of a picture as it came, in whole levels; large, and gone through at every frame. */
export interface Luma {
  width: number
  height: number
  data: Uint8Array
}

export const emptyLuma = (width: number, height: number): Luma => ({
  width,
  height,
  data: new Uint8Array(width * height)
})

/**
 * Luma of blue, green, red bytes; returns how far it is from the last one, mean of all pixels. Source: ITU-R BT.601 in
 * the fixed-point form of OpenCV's `COLOR_BGR2GRAY`.
 */
export function lumaOf(bgr: Uint8Array, { data }: Luma, { data: last }: Luma): number {
  let change = 0
  for (let i = 0, k = 0; i < data.length; i++, k += 3) {
    // Typed as whole numbers, which halves the time.
    const value =
      (Math.imul(1868, bgr[k]!) +
        Math.imul(9617, bgr[k + 1]!) +
        Math.imul(4899, bgr[k + 2]!) +
        8192) >>
      14
    data[i] = value
    change = (change + Math.abs(value - last[i]!)) | 0
  }
  return change / data.length
}

const counts = new Uint32Array(256)

/** Mean and standard deviation, by way of the histogram. */
export function spreadOf({ data }: Luma): { mean: number; deviation: number } {
  counts.fill(0)
  for (let i = 0; i < data.length; i++) counts[data[i]!]!++
  let sum = 0
  let squares = 0
  for (let level = 0; level < 256; level++) {
    sum += counts[level]! * level
    squares += counts[level]! * level * level
  }
  const mean = sum / data.length
  return { mean, deviation: Math.sqrt(Math.max(0, squares / data.length - mean * mean)) }
}

/**
 * Sharpness: the variance of the Laplacian (Pech-Pacheco et al. 2000, from memory), with the kernel and the mirrored
 * border of OpenCV's `Laplacian` of aperture 1.
 */
export function sharpnessOf({ width, height, data }: Luma | Gray): number {
  let sum = 0
  let squares = 0
  for (let y = 0; y < height; y++) {
    const up = (y === 0 ? 1 : y - 1) * width
    const down = (y === height - 1 ? height - 2 : y + 1) * width
    const here = y * width
    const end = here + width - 1
    // The two ends of the row, whose neighbour is mirrored; then what is between, without a question asked.
    const first = data[up]! + data[down]! + 2 * data[here + 1]! - 4 * data[here]!
    const last =
      data[up + width - 1]! + data[down + width - 1]! + 2 * data[end - 1]! - 4 * data[end]!
    sum += first + last
    squares += first * first + last * last
    let left = data[here]!
    let middle = data[here + 1]!
    for (let i = here + 1, u = up + 1, d = down + 1; i < end; i++, u++, d++) {
      const right = data[i + 1]!
      const value = data[u]! + data[d]! + left + right - 4 * middle
      left = middle
      middle = right
      sum += value
      squares += value * value
    }
  }
  const mean = sum / data.length
  return squares / data.length - mean * mean
}

/** A picture of half the width and height, each pixel the mean of four. */
export function halve({ width, data }: Luma, to: Gray): void {
  const out = to.data
  for (let y = 0, o = 0; y < to.height; y++) {
    let i = 2 * y * width
    let j = i + width
    for (let x = 0; x < to.width; x++, i += 2, j += 2, o++)
      out[o] = 0.25 * (data[i]! + data[i + 1]! + data[j]! + data[j + 1]!)
  }
}

/**
 * Makes a picture smaller by whole factors, each pixel the mean of those it stands for; the rest at
 * the edge is left out.
 */
export function shrink(from: Gray, to: Gray): void {
  const fx = Math.floor(from.width / to.width)
  const fy = Math.floor(from.height / to.height)
  const per = 1 / (fx * fy)
  for (let y = 0; y < to.height; y++)
    for (let x = 0; x < to.width; x++) {
      let sum = 0
      for (let j = 0; j < fy; j++) {
        const row = (y * fy + j) * from.width + x * fx
        for (let i = 0; i < fx; i++) sum += from.data[row + i]!
      }
      to.data[y * to.width + x] = sum * per
    }
}

export const grayOf = (width: number, height: number): Gray => ({
  width,
  height,
  data: new Float32Array(width * height)
})

/** The edge picture: how steep the picture is at each place (central differences). */
export function edgesOf({ width, height, data }: Gray, edges: Gray): void {
  const out = edges.data
  for (let y = 1; y < height - 1; y++)
    for (let x = 1; x < width - 1; x++) {
      const i = y * width + x
      const dx = data[i + 1]! - data[i - 1]!
      const dy = data[i + width]! - data[i - width]!
      // Not Math.hypot: it guards against overflow at ten times the cost.
      out[i] = Math.sqrt(dx * dx + dy * dy)
    }
}

/**
 * Edges that vary by less than a thirtieth of what the reference's do (squared) are no edges: a mean over time keeps a
 * trace of what was there, which is where the reference has it however faint it is.
 */
const FADED = 1 / 900

/**
 * How far the edges of a picture are where those of the reference are: Pearson's correlation in blocks, their mean
 * weighted by how much edge the reference has in each. One large thing that stands in front so costs its own blocks
 * only; a camera that has moved costs them all. 0 where the reference has nothing in it.
 */
export function blockCorrelation(
  { width, height, data: one }: Gray,
  { data: other }: Gray,
  columns: number,
  rows: number
): number {
  let total = 0
  let weights = 0
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) {
      const [left, right] = [
        Math.floor((column * width) / columns),
        Math.floor(((column + 1) * width) / columns)
      ]
      const [top, bottom] = [
        Math.floor((row * height) / rows),
        Math.floor(((row + 1) * height) / rows)
      ]
      const n = (right - left) * (bottom - top)
      let sa = 0
      let sb = 0
      let saa = 0
      let sbb = 0
      let sab = 0
      for (let y = top; y < bottom; y++)
        for (let i = y * width + left, end = y * width + right; i < end; i++) {
          const p = one[i]!
          const q = other[i]!
          sa += p
          sb += q
          saa += p * p
          sbb += q * q
          sab += p * q
        }
      const [va, vb] = [saa - (sa * sa) / n, sbb - (sb * sb) / n]
      const weight = Math.sqrt(Math.max(0, vb))
      weights += weight
      if (va > 1e-6 && va > FADED * vb && vb > 1e-6)
        total += (weight * (sab - (sa * sb) / n)) / Math.sqrt(va * vb)
    }
  return weights > 1e-3 ? total / weights : 0
}

/**
 * RGBA pixels to blue, green, red bytes of a smaller picture by whole factors; what a camera's feed
 * needs before it is measured.
 */
export function shrinkRgba(
  rgba: Uint8ClampedArray,
  width: number,
  factor: number,
  bgr: Uint8Array
): void {
  const w = Math.floor(width / factor)
  const per = 1 / (factor * factor)
  const h = bgr.length / 3 / w
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      let [r, g, b] = [0, 0, 0]
      for (let j = 0; j < factor; j++)
        for (let i = 0; i < factor; i++) {
          const k = 4 * ((y * factor + j) * width + x * factor + i)
          r += rgba[k]!
          g += rgba[k + 1]!
          b += rgba[k + 2]!
        }
      const at = 3 * (y * w + x)
      bgr[at] = b * per + 0.5
      bgr[at + 1] = g * per + 0.5
      bgr[at + 2] = r * per + 0.5
    }
}

import { loadOpenCv } from '../../opencv.ts'
import { PhaseCorrelation } from '../phase.ts'
import { emptyLuma, grayOf, lumaOf, sharpnessOf, spreadOf, type Gray } from '../pictures.ts'

/**
 * Own frame measures beside OpenCV's, as JSON; in a process of its own, because OpenCV's WebAssembly does not load in
 * the test runner. The pictures are made from sines and a noise of fixed numbers, so that they can be made elsewhere too.
 */
const { cv } = await loadOpenCv()
const noise = (i: number): number => ((i * 7919) % 104729) / 104729

function bgrPicture(width: number, height: number, seed: number): Uint8Array {
  const data = new Uint8Array(width * height * 3)
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      for (let c = 0; c < 3; c++)
        data[3 * (y * width + x) + c] =
          110 +
          60 * Math.sin((x + seed) / (9 + c)) +
          40 * Math.cos(y / (7 + c + seed)) +
          40 * (noise(3 * (y * width + x) + c + seed) - 0.5)
  return data
}

const figures = [0, 1, 2].map((seed) => {
  const [width, height] = [320, 180]
  const bgr = bgrPicture(width, height, seed)
  const luma = emptyLuma(width, height)
  lumaOf(bgr, luma, emptyLuma(width, height))
  const { mean, deviation } = spreadOf(luma)
  const mat = cv.matFromArray(height, width, cv.CV_8UC3, [...bgr])
  const [gray, laplacian, m, d] = [new cv.Mat(), new cv.Mat(), new cv.Mat(), new cv.Mat()]
  cv.cvtColor(mat, gray, cv.COLOR_BGR2GRAY)
  cv.meanStdDev(gray, m, d)
  const [cvMean, cvDeviation] = [m.data64F[0], d.data64F[0]]
  cv.Laplacian(gray, laplacian, cv.CV_64F, 1)
  cv.meanStdDev(laplacian, m, d)
  return {
    own: { mean, deviation, sharpness: sharpnessOf(luma) },
    openCv: { mean: cvMean, deviation: cvDeviation, sharpness: d.data64F[0]! ** 2 }
  }
})

/** A picture of blobs, shifted by whole and broken pixels. */
function blobs(width: number, height: number, dx: number, dy: number): Gray {
  const gray = grayOf(width, height)
  for (let k = 0; k < 40; k++) {
    const [cx, cy, s, a] = [
      noise(k * 31 + 5) * width + dx,
      noise(k * 57 + 9) * height + dy,
      1.5 + 4 * noise(k * 13 + 2),
      40 + 160 * noise(k * 3 + 1)
    ]
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++)
        gray.data[y * width + x]! += a * Math.exp(-((x - cx) ** 2 + (y - cy) ** 2) / (2 * s * s))
  }
  return gray
}

/**
 * Phase correlation from OpenCV's own Fourier transform and window, as its `phaseCorrelate` does
 * (which this build lacks).
 */
function openCvShift(a: Gray, b: Gray): { x: number; y: number } {
  const { width, height } = a
  const window = new cv.Mat()
  // Exported, but left out of the types.
  ;(
    cv as unknown as { createHanningWindow(out: unknown, size: unknown, type: number): void }
  ).createHanningWindow(window, new cv.Size(width, height), cv.CV_64F)
  const spectrum = (g: Gray): Float64Array => {
    const mat = new cv.Mat(height, width, cv.CV_64FC2)
    for (let i = 0; i < g.data.length; i++)
      mat.data64F.set([g.data[i]! * window.data64F[i]!, 0], 2 * i)
    const out = new cv.Mat()
    cv.dft(mat, out, 0)
    return Float64Array.from(out.data64F)
  }
  const [fa, fb] = [spectrum(a), spectrum(b)]
  const cross = new cv.Mat(height, width, cv.CV_64FC2)
  for (let i = 0; i < width * height; i++) {
    const re = fa[2 * i]! * fb[2 * i]! + fa[2 * i + 1]! * fb[2 * i + 1]!
    const im = fa[2 * i + 1]! * fb[2 * i]! - fa[2 * i]! * fb[2 * i + 1]!
    const size = Math.hypot(re, im) || 1
    cross.data64F.set([re / size, im / size], 2 * i)
  }
  const back = new cv.Mat()
  cv.dft(cross, back, cv.DFT_INVERSE | cv.DFT_SCALE)
  const at = (x: number, y: number): number =>
    back.data64F[2 * (((y + height) % height) * width + ((x + width) % width))]!
  let [px, py, best] = [0, 0, -Infinity]
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) if (at(x, y) > best) [px, py, best] = [x, y, at(x, y)]
  let [sx, sy, sum] = [0, 0, 0]
  for (let j = -2; j <= 2; j++)
    for (let i = -2; i <= 2; i++) {
      sum += at(px + i, py + j)
      sx += i * at(px + i, py + j)
      sy += j * at(px + i, py + j)
    }
  const centred = (p: number, n: number): number => (p > n / 2 ? p - n : p)
  return { x: -(centred(px, width) + sx / sum), y: -(centred(py, height) + sy / sum) }
}

const shifts = [
  [3, 0],
  [-7, 4],
  [11.5, -6.25],
  [0.4, 20],
  [-30, -9]
].map(([dx, dy]) => {
  const [a, b] = [blobs(128, 64, 0, 0), blobs(128, 64, dx!, dy!)]
  const phase = new PhaseCorrelation(128, 64)
  phase.setReference(a)
  const { x, y, response } = phase.shiftOf(b)
  return { true: { x: dx, y: dy }, own: { x, y, response }, openCv: openCvShift(a, b) }
})

process.stdout.write(JSON.stringify({ figures, shifts }))

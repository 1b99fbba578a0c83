import type CV from '@techstark/opencv-js'
import { Bodies } from '../bodies.ts'
import { loadOpenCv } from '../opencv.ts'

/**
 * Bodies of made-up masks, and what OpenCV finds when it closes and labels the whole mask at once: OpenCV does not load in
 * the test runner.
 *
 * bodies.mts: prints JSON.
 */
const LEAST_AREA = 5
const { cv } = await loadOpenCv()

/** Numbers from 0 to 1. Source: the multiplicative congruential generator of Park and Miller, 1988. */
function randomFrom(seed: number): () => number {
  let state = seed
  return () => (state = (48_271 * state) % 2_147_483_647) / 2_147_483_647
}

/** Rectangles, some at the edge, with holes and gaps in them as thin as a post. */
function paint(mask: CV.Mat, random: () => number): void {
  const { cols: width, rows: height, data } = mask
  data.fill(0)
  const fill = (x: number, y: number, w: number, h: number, value: number): void => {
    for (let py = Math.max(0, y); py < Math.min(height, y + h); py++)
      data.fill(
        value,
        py * width + Math.max(0, x),
        py * width + Math.min(width, Math.max(0, x + w))
      )
  }
  const upTo = (n: number): number => Math.floor(n * random())
  for (let n = upTo(14); n >= 0; n--) {
    const [x, y, w, h] = [upTo(width + 20) - 10, upTo(height + 20) - 10, 1 + upTo(30), 1 + upTo(40)]
    fill(x, y, w, h, 255)
    if (random() < 0.5) fill(x + upTo(w), y, 1 + upTo(3), h, 0)
    if (random() < 0.5) fill(x, y + upTo(h), w, 1 + upTo(7), 0)
  }
}

/** What is in the whole mask, closed and labelled at once. */
function ofWhole(mask: CV.Mat): number[][] {
  const [labels, stats, centroids] = [new cv.Mat(), new cv.Mat(), new cv.Mat()]
  const reach = cv.getStructuringElement(cv.MORPH_RECT, new cv.Size(3, 7))
  cv.morphologyEx(mask, mask, cv.MORPH_CLOSE, reach)
  const count = cv.connectedComponentsWithStats(mask, labels, stats, centroids, 8, cv.CV_32S)
  const rows = Array.from({ length: count - 1 }, (_, i) => [
    ...stats.data32S.subarray(5 * i + 5, 5 * i + 10)
  ])
  for (const one of [labels, stats, centroids, reach]) one.delete()
  return rows.filter(([, , , , area]) => area! >= LEAST_AREA)
}

const masks = []
for (const [width, height] of [
  [320, 240],
  [180, 320],
  [97, 61]
] as const) {
  const bodies = new Bodies(cv, { width, height }, LEAST_AREA)
  const [mask, whole] = [cv.Mat.zeros(height, width, cv.CV_8UC1), new cv.Mat()]
  for (let seed = 1; seed <= 200; seed++) {
    paint(mask, randomFrom(seed * width))
    mask.copyTo(whole)
    const expected = ofWhole(whole)
    const found = bodies.find(mask, ({ x, y, w, h, area }, isOwn) => {
      let own = 0
      for (let py = y; py < y + h; py++) for (let px = x; px < x + w; px++) if (isOwn(px, py)) own++
      return { box: [x, y, w, h, area], own }
    })
    masks.push({
      mask: `${width}x${height}, ${seed}`,
      expected,
      found: found.map(({ box }) => box),
      own: found.map(({ own }) => own),
      isClosed: Buffer.compare(Buffer.from(mask.data), Buffer.from(whole.data)) === 0
    })
  }
  bodies.delete()
  mask.delete()
  whole.delete()
}
process.stdout.write(JSON.stringify(masks))

import type { Box } from '../core/geometry/shapes.ts'
import type { IsOwn } from './bodies.ts'

/** Levels per colour channel of the histogram; coarse, so that light and shade matter less. */
const LEVELS = 4
const BINS = LEVELS * LEVELS * LEVELS

/**
 * What somebody looks like, for telling people apart when a group parts: a colour histogram of the upper and one of
 * the lower half of the patch, each summing to a half.
 *
 * @param picture three bytes a pixel
 * @param box around the patch @param isOwn asked for pixels in it; only these count
 */
export function describeColours(
  picture: Uint8Array,
  width: number,
  box: Box,
  isOwn: IsOwn
): Float32Array {
  const histogram = new Float32Array(2 * BINS)
  const middle = box.y + box.h / 2
  const counts = [0, 0]
  for (let y = box.y; y < box.y + box.h; y++) {
    const half = y < middle ? 0 : 1
    for (let x = box.x; x < box.x + box.w; x++) {
      if (!isOwn(x, y)) continue
      const p = (y * width + x) * 3
      histogram[
        half * BINS +
          (picture[p]! >> 6) * LEVELS * LEVELS +
          (picture[p + 1]! >> 6) * LEVELS +
          (picture[p + 2]! >> 6)
      ]!++
      counts[half]!++
    }
  }
  for (let i = 0; i < histogram.length; i++)
    histogram[i]! /= 2 * Math.max(1, counts[i < BINS ? 0 : 1]!)
  return histogram
}

/** How different two histograms are: 0 the same, 1 nothing in common (one less their intersection). */
export function colourDistance(a: Float32Array, b: Float32Array): number {
  let common = 0
  for (let i = 0; i < a.length; i++) common += Math.min(a[i]!, b[i]!)
  return 1 - common
}

/** Moves a remembered histogram a little towards a new one. */
export function blendColours(kept: Float32Array, seen: Float32Array, weight: number): void {
  for (let i = 0; i < kept.length; i++) kept[i]! += weight * (seen[i]! - kept[i]!)
}

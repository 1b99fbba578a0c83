const STEP = 0x6d2b79f5

/**
 * Numbers from 0 to 1, the same for the same seed. Source: mulberry32, a public-domain generator (from memory).
 *
 * @param after so many of them are left out
 */
export function randomFrom(seed: number, after = 0): () => number {
  let state = (seed + Math.imul(after, STEP)) >>> 0
  return () => {
    state = (state + STEP) >>> 0
    let t = state
    t = Math.imul(t ^ (t >>> 15), t | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

import type { ZoneStay } from '../../core/tuning/stays.ts'

export interface StayBar {
  /** The middle of the bar's stretch of time, seconds. */
  middle: number
  passing: number
  staying: number
}

const BARS = 20
const WIDTHS = [0.5, 1, 2, 5, 10, 15, 30, 60, 120, 300]

/** Stays as bars of one width that a person would choose, from 0 to past the longest stay and the dwell. */
export function stayBins(
  stays: readonly ZoneStay[],
  dwell: number
): { bars: StayBar[]; end: number; width: number } {
  const longest = Math.max(dwell * 1.2, ...stays.map(({ seconds }) => seconds), 1)
  const width = WIDTHS.find((w) => longest / w <= BARS) ?? WIDTHS[WIDTHS.length - 1]!
  const count = Math.floor(longest / width) + 1
  const bars = Array.from({ length: count }, (_, i): StayBar => ({
    middle: (i + 0.5) * width,
    passing: 0,
    staying: 0
  }))
  for (const { seconds, passing } of stays)
    bars[Math.floor(seconds / width)]![passing ? 'passing' : 'staying']++
  return { bars, end: count * width, width }
}

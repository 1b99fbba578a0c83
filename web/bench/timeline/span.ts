/** The stretch of the clip that the timeline shows, seconds. */
export interface Stretch {
  from: number
  to: number
}

const MIN_SECONDS = 2

/** The stretch brought into the clip, as long as it is. */
function within({ from, to }: Stretch, seconds: number): Stretch {
  const length = Math.min(seconds, to - from)
  const start = Math.min(seconds - length, Math.max(0, from))
  return { from: start, to: start + length }
}

/** Nearer (factor above 1) or farther about a moment, which stays where it is. */
export function zoomed(
  { from, to }: Stretch,
  factor: number,
  at: number,
  seconds: number
): Stretch {
  const length = Math.min(seconds, Math.max(Math.min(MIN_SECONDS, seconds), (to - from) / factor))
  const share = (at - from) / (to - from)
  return within({ from: at - share * length, to: at - share * length + length }, seconds)
}

export const panned = ({ from, to }: Stretch, by: number, seconds: number): Stretch =>
  within({ from: from + by, to: to + by }, seconds)

/** The stretch moved just so far that a moment is in it. */
export function showing(stretch: Stretch, at: number, seconds: number): Stretch {
  if (at >= stretch.from && at <= stretch.to) return stretch
  const length = stretch.to - stretch.from
  return within({ from: at - length / 2, to: at + length / 2 }, seconds)
}

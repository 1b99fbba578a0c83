import jstat from 'jstat'

/**
 * The interval in which the true number of events lies, of which so many were counted.
 *
 * Source: Garwood, "Fiducial limits for the Poisson distribution", Biometrika 28, 1936: half the quantiles of chi-squared
 * with 2n and 2n + 2 degrees of freedom. It is exact: it holds the true number at least as often as it says.
 *
 * @param count events that were counted
 * @param confidence such as 0.95
 */
export function garwood(count: number, confidence = 0.95): [low: number, high: number] {
  const tail = (1 - confidence) / 2
  const half = (share: number, degrees: number): number =>
    jstat.jStat.chisquare.inv(share, degrees) / 2
  return [count === 0 ? 0 : half(tail, 2 * count), half(1 - tail, 2 * count + 2)]
}

/** How often a detection would trigger, by what was seen. */
export interface HowOften {
  count: number
  /** The days that were listened to, in parts too. */
  days: number
  perDay: number
  low: number
  high: number
}

/** @param days above 0 */
export function howOften(count: number, days: number): HowOften {
  const [low, high] = garwood(count)
  return { count, days, perDay: count / days, low: low / days, high: high / days }
}

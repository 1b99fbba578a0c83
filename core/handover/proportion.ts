import jstat from 'jstat'

/**
 * The interval in which the true share lies, of which so many of so many were counted.
 *
 * Source: Clopper and Pearson, "The use of confidence or fiducial limits illustrated in the case of the binomial",
 * Biometrika 26, 1934: quantiles of the beta distribution. It is exact: it holds the true share at least as often as it
 * says.
 *
 * @param of at least `count` @param confidence such as 0.95
 */
export function clopperPearson(
  count: number,
  of: number,
  confidence = 0.95
): [low: number, high: number] {
  const tail = (1 - confidence) / 2
  const { beta } = jstat.jStat
  return [
    count === 0 ? 0 : beta.inv(tail, count, of - count + 1),
    count === of ? 1 : beta.inv(1 - tail, count + 1, of - count)
  ]
}

/** Null: nothing was counted. */
export function shareOf(
  count: number,
  of: number
): { count: number; of: number; share: number; low: number; high: number } | null {
  if (of === 0) return null
  const [low, high] = clopperPearson(count, of)
  return { count, of, share: count / of, low, high }
}

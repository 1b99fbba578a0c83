import type { Direction, Trigger } from '../detections/index.ts'

/** A trigger that is expected: of a detection, about a moment; the direction only where it matters. */
export interface Expected {
  detection: string
  /** Seconds from the start of the clip at which the event begins. */
  time: number
  direction?: Direction
  /** Seconds after the event's start within which a trigger counts, and before it for clocks that differ. */
  within?: number
  early?: number
}

export interface Score {
  hits: { expected: Expected; seen: Trigger }[]
  misses: Expected[]
  false: Trigger[]
  recall: number
  precision: number
  f1: number
  /** With recall weighted by `alpha`: (α + 1)·R·P / (R + α·P). */
  weightedF1: number
}

/**
 * An alarm counts when it comes within 10 s of the start of the event. Source: UK Home Office
 * i-LIDS user guide (from memory).
 */
export const DEFAULT_WITHIN_SECONDS = 10
/** The weight of recall for an operational alert. Source: as above (from memory). */
export const DEFAULT_ALPHA = 0.65
const ALLOWANCE = 1e-9

const matches = (e: Expected, t: Trigger): boolean =>
  e.detection === t.detection &&
  (e.direction === undefined || e.direction === t.direction) &&
  t.time - e.time <= (e.within ?? DEFAULT_WITHIN_SECONDS) + ALLOWANCE &&
  e.time - t.time <= (e.early ?? 0) + ALLOWANCE

/**
 * Expected against seen triggers, one to one, so that as many as possible are hits (augmenting paths; source: Kuhn's
 * algorithm for bipartite matching, from memory). What is left over is a miss or a false alarm.
 *
 * @param alpha weight of the weighted F1
 */
export function score(
  expected: readonly Expected[],
  seen: readonly Trigger[],
  alpha = DEFAULT_ALPHA
): Score {
  const byExpected = expected.map((e) =>
    seen
      .map((t, i) => ({ i, apart: Math.abs(t.time - e.time), fits: matches(e, t) }))
      .filter(({ fits }) => fits)
      .sort((a, b) => a.apart - b.apart)
      .map(({ i }) => i)
  )
  const takenBy = new Map<number, number>()
  const place = (e: number, tried: Set<number>): boolean => {
    for (const t of byExpected[e]!) {
      if (tried.has(t)) continue
      tried.add(t)
      const holder = takenBy.get(t)
      if (holder !== undefined && !place(holder, tried)) continue
      takenBy.set(t, e)
      return true
    }
    return false
  }
  expected.forEach((_, e) => place(e, new Set()))
  const hits = [...takenBy]
    .map(([t, e]) => ({ expected: expected[e]!, seen: seen[t]! }))
    .sort((a, b) => a.seen.time - b.seen.time)
  const hit = new Set(takenBy.values())
  const recall = expected.length ? hits.length / expected.length : 1
  const precision = seen.length ? hits.length / seen.length : 1
  const weighted = (a: number): number =>
    recall + a * precision > 0 ? ((a + 1) * recall * precision) / (recall + a * precision) : 0
  return {
    hits,
    misses: expected.filter((_, e) => !hit.has(e)),
    false: seen.filter((_, t) => !takenBy.has(t)),
    recall,
    precision,
    f1: weighted(1),
    weightedF1: weighted(alpha)
  }
}

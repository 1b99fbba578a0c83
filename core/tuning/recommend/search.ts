import type { Scale } from '../scales.ts'
import { distance, isValid, neighbours, type Seen, type State } from './moves.ts'
import type { Trials } from './trials.ts'

/** How good a state is, by marks that are looked at: less of each is better, the first that differs decides. */
export type Rank = readonly [lost: number, nuisances: number, distance: number]

export const isBetter = (a: Rank, b: Rank): boolean => {
  for (let i = 0; i < a.length; i++) if (Math.abs(a[i]! - b[i]!) > 1e-9) return a[i]! < b[i]!
  return false
}
const asGood = (a: Rank, b: Rank): boolean => a[0] === b[0] && a[1] === b[1]

export interface Problem {
  original: State
  scales: readonly Scale[]
  seen: Seen
  trials: Trials
  /** The marks that are looked at, by number; the others are left out. */
  wanted: readonly number[]
  nuisances: readonly number[]
  /** Whether what must not change stays, such as the outcome of checks. Asked of what would be better only. */
  keeps?: (state: State) => boolean
  /** Called after each state; throws to stop. */
  tick?: () => void
}

/** So many states are followed from one round to the next: a step that helps only with another is not lost. */
const FOLLOWED = 2
const MOST_ROUNDS = 6

interface Tried {
  state: State
  rank: Rank
}

/**
 * The state that keeps most of what is wanted, then has the fewest nuisances, then is nearest to what is set. Changes of
 * one setting are tried over its whole range from the few best states of the round before; then every change is taken
 * back as far as nothing is lost by that.
 */
export function search(problem: Problem): Tried {
  let best = ranked(problem, problem.original)
  let followed = [best]
  for (let round = 0; round < MOST_ROUNDS && best.rank[0] + best.rank[1] > 0; round++) {
    const tried = new Map<string, Tried>()
    for (const from of followed)
      for (const next of steps(problem, from))
        tried.set(JSON.stringify([next.state.detection, next.state.ignore]), next)
    const found = [...tried.values()].sort((a, b) => (isBetter(a.rank, b.rank) ? -1 : 1))
    const top = found.find(
      ({ state, rank }) => isBetter(rank, best.rank) && (problem.keeps?.(state) ?? true)
    )
    if (!top || asGood(top.rank, best.rank)) break
    best = top
    followed = [top, ...found.filter((other) => other !== top)].slice(0, FOLLOWED)
  }
  return takenBack(problem, best)
}

/** What is worth following from a state: with no more lost than it has. */
function* steps(problem: Problem, from: Tried): Generator<Tried> {
  const most = from.rank[0]
  for (const scale of problem.scales) yield* alongScale(problem, from, scale)
  for (const state of neighbours(from.state, problem.original, problem.seen)) {
    if (!isValid(state.detection)) continue
    const next = ranked(problem, state, most)
    if (next.rank[0] <= most) yield next
  }
}

/** With a longer re-trigger delay there is no saying what more it would lose. */
const isMonotone = (scale: Scale): boolean => scale.name !== 'holdOffSeconds'

/**
 * The values of one setting that are worth following: in the direction in which more is lost, the last one before that;
 * in the other, the first one that loses least. As triggers only become fewer, or only more, along most settings, both
 * are found by halving.
 */
function* alongScale(problem: Problem, from: Tried, scale: Scale): Generator<Tried> {
  const set = scale.get(from.state.detection)
  const most = from.rank[0]
  const at = (value: number): Tried =>
    ranked(problem, { ...from.state, detection: scale.set(from.state.detection, value) }, most)
  if (!isMonotone(scale)) {
    for (const value of scale.coarse.filter(
      (v, i) => v !== set && i % 2 === 0 && v <= LONGEST_DELAY
    )) {
      const next = at(value)
      if (next.rank[0] <= most) yield next
    }
    return
  }
  for (const values of [
    scale.coarse.filter((value) => value > set),
    scale.coarse.filter((value) => value < set).reverse()
  ]) {
    if (!values.length) continue
    const end = at(values.at(-1)!)
    const wholly = end.rank[0] <= most
    // Nothing less is lost, and nothing that is a nuisance goes: the other direction is the tighter one.
    if (wholly && end.rank[0] === most && end.rank[1] >= from.rank[1]) continue
    const isRight = (tried: Tried): boolean =>
      wholly ? tried.rank[0] > end.rank[0] || tried.rank[1] > end.rank[1] : tried.rank[0] <= most
    let [low, high] = [-1, values.length - 1]
    let found: Tried | null = wholly ? end : null
    while (high - low > 1) {
      const middle = (low + high) >> 1
      const tried = at(values[middle]!)
      if (isRight(tried)) {
        low = middle
        if (!wholly) found = tried
      } else {
        high = middle
        if (wholly) found = tried
      }
    }
    if (found) yield found
  }
}

/** A delay longer than this hides what is wanted as well. */
const LONGEST_DELAY = 300

/** @param most what may be lost; of a state that loses more, nuisances are not counted */
function ranked(
  { original, scales, trials, wanted, nuisances, tick }: Problem,
  state: State,
  most = Infinity
): Tried {
  tick?.()
  const lost = wanted.length - trials.count(state, 'wanted', wanted)
  return {
    state,
    rank: [
      lost,
      lost > most ? Infinity : trials.count(state, 'nuisance', nuisances),
      distance(state, original, scales)
    ]
  }
}

/** Takes every change back as far as it does as well: wholly where it can, else to the nearest value. */
function takenBack(problem: Problem, from: Tried): Tried {
  const { original, scales } = problem
  let best = from
  const take = (state: State): boolean => {
    if (!isValid(state.detection)) return false
    const { rank } = ranked(problem, state, best.rank[0])
    if (!asGood(rank, best.rank) || rank[2] >= best.rank[2]) return false
    if (problem.keeps && !problem.keeps(state)) return false
    best = { state, rank }
    return true
  }
  const first = original.detection
  for (const fields of wholeChanges(first))
    take({ ...best.state, detection: { ...best.state.detection, ...fields } })
  for (const area of best.state.ignore)
    if (!original.ignore.includes(area))
      take({ ...best.state, ignore: best.state.ignore.filter((other) => other !== area) })
  for (const scale of scales) {
    const set = scale.get(first)
    if (scale.get(best.state.detection) === set) continue
    let steps = Math.round(Math.abs(scale.get(best.state.detection) - set) / scale.step)
    // Half of the way that is left, as long as there is any: what helped rarely stops helping farther on.
    for (let back = steps >> 1; back >= 1;) {
      const now = scale.get(best.state.detection)
      const value = Math.round((now - Math.sign(now - set) * back * scale.step) * 1e4) / 1e4
      if (take({ ...best.state, detection: scale.set(best.state.detection, value) })) {
        steps -= back
        back = Math.min(back, steps - 1)
      } else back >>= 1
    }
  }
  return best
}

/** Settings that are taken back as a whole, as they were first. */
function* wholeChanges(first: object): Generator<object> {
  for (const name of [
    'classes',
    'size',
    'zone',
    'line',
    'sensitivity',
    'dwellSeconds',
    'graceSeconds',
    'confirmSeconds',
    'holdOffSeconds'
  ])
    if (name in first) yield { [name]: (first as Record<string, unknown>)[name] }
    else if (name === 'size') yield { size: undefined }
}

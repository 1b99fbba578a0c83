import { wallText } from '../../arming/zone.ts'
import { judge, placeMarks, type PlacedMark } from '../../marks/judge.ts'
import type { Mark } from '../../marks/marks.ts'
import { said, type Said } from '../../messages/said.ts'
import type { Detection } from '../../formats/plan.ts'
import type { Point } from '../../geometry/shapes.ts'
import { CLASSES } from '../../targets/classes.ts'
import {
  boundsOf,
  nearShape,
  rowsOfTargets,
  triggersIn,
  type Place,
  type Stretch
} from '../stretches.ts'
import { areasOver } from './areas.ts'
import { SHAPE_REACH, scalesFor, type Seen, type State } from './moves.ts'
import { isBetter, search, type Problem } from './search.ts'
import { Trials, placed, type MarkedStretch } from './trials.ts'

/** With fewer marks of either kind there is too little to go by. */
export const LEAST_MARKS = 5
/** Fewer days with marks than this cannot be left out one after the other. */
export const LEAST_DAYS = 3
/** More parts than this are not left out: days are put together. */
const MOST_PARTS = 7

export interface Kept {
  /** Wanted marks that have a trigger, of so many. */
  kept: number
  wanted: number
  /** Nuisance marks that have none, of so many. */
  gone: number
  nuisances: number
}

export interface Recommendation extends Kept {
  /** The fields of the detection that change, as they would be. Empty: nothing better was found, or asked for. */
  settings: Partial<Detection>
  /** The camera's ignore areas as they would be. */
  ignore: Point[][]
  /** Triggers that no mark speaks of, with these settings. */
  unmarked: number
  /** On days that were left out when settings were looked for; null: marks are of too few days. */
  leftOut: (Kept & { days: number }) | null
  /** The same counts with what is set now. */
  now: Kept & { unmarked: number }
  reason: Said
}

export interface Ask {
  place: Place
  detection: Detection
  stretches: readonly Stretch[]
  marks: readonly Mark[]
  /** Whether what must not change stays so, such as what checks expect. */
  keeps?: (state: State) => boolean
  /** Called again and again with the share that is done, 0 to 1; throws to stop. */
  progress?: (share: number) => void
}

/**
 * The settings that keep every wanted mark and leave the fewest nuisances, nearest to what is set among equals
 * (docs/look-back.md, *Recommend*). What is set is among those that are tried, so that nothing gets worse by the marks.
 *
 * The figure to trust is `leftOut`: for each day, settings are looked for without its marks, and what they do on that
 * day is counted. Source of leaving out: Stone, "Cross-validatory choice and assessment of statistical predictions",
 * 1974 (from memory).
 */
export function recommend(ask: Ask): Recommendation {
  const { place, detection, stretches, marks } = ask
  const original: State = { detection, ignore: place.camera.ignore }
  const parts = partsOf(ask)
  const all = parts.flatMap((part) => part.marks).sort((a, b) => a.index - b.index)
  const numbers = (kind: Mark['mark']): number[] =>
    all.filter(({ mark }) => mark.mark === kind).map(({ index }) => index)
  const [wanted, nuisances] = [numbers('wanted'), numbers('nuisance')]
  const trials = new Trials(place, parts)
  const scales = scalesFor(detection, place.camera.scene !== undefined)
  // Everything is evaluated for these counts, of days of a busy camera millions of rows: once for each state.
  const now = countsOf(place, original, parts, marks)
  const days = daysOf(marks, stretches, place.plan.timeZone)
  const answer = (
    state: State,
    counts: Kept & { unmarked: number },
    leftOut: Recommendation['leftOut'],
    reason: Said
  ): Recommendation => ({ ...differences(detection, state), ...counts, leftOut, now, reason })
  if (wanted.length < LEAST_MARKS || nuisances.length < LEAST_MARKS)
    return answer(
      original,
      now,
      null,
      said('tuning.tooFewMarks', wanted.length, nuisances.length, LEAST_MARKS)
    )

  const groups = days.length >= LEAST_DAYS ? groupsOf(days) : []
  let searches = 0
  const total = groups.length + 1
  let ticks = 0
  const problem = (out: ReadonlySet<number>): Problem => ({
    original,
    scales,
    seen: seenOf(detection, parts, out),
    trials,
    wanted: wanted.filter((i) => !out.has(i)),
    nuisances: nuisances.filter((i) => !out.has(i)),
    ...(ask.keeps && { keeps: ask.keeps }),
    tick: () => {
      // How many states a search will try is not known; each brings it nearer to its end.
      ticks++
      ask.progress?.((searches + 1 - Math.exp(-ticks / 600)) / total)
    }
  })
  const done = <T>(value: T): T => {
    searches++
    ticks = 0
    return value
  }
  const found = done(search(problem(new Set())))
  const leftOut = groups.length ? sumOf(groups, (out) => done(search(problem(out)))) : null

  function sumOf(
    of: readonly ReadonlySet<number>[],
    find: (out: ReadonlySet<number>) => { state: State }
  ): Kept & { days: number } {
    const sum = { days: days.length, kept: 0, wanted: 0, gone: 0, nuisances: 0 }
    for (const out of of) {
      const { state } = find(out)
      const [others, bothers] = [wanted, nuisances].map((list) => list.filter((n) => out.has(n)))
      sum.wanted += others!.length
      sum.kept += trials.count(state, 'wanted', others!)
      sum.nuisances += bothers!.length
      sum.gone += bothers!.length - trials.count(state, 'nuisance', bothers!)
    }
    return sum
  }

  const after = countsOf(place, found.state, parts, marks)
  // With a re-trigger delay the search looked at what was near; what counts is the whole.
  const better = isBetter(
    [after.wanted - after.kept, after.nuisances - after.gone, 0],
    [now.wanted - now.kept, now.nuisances - now.gone, 0]
  )
  if (!better) return answer(original, now, leftOut, said('tuning.nothingBetter'))
  return answer(
    found.state,
    after,
    leftOut,
    leftOut
      ? said(
          'tuning.betterOnDaysLeftOut',
          leftOut.kept,
          leftOut.wanted,
          leftOut.gone,
          leftOut.nuisances,
          leftOut.days
        )
      : said(
          'tuning.betterOnMarks',
          after.kept,
          after.wanted,
          after.gone,
          after.nuisances,
          days.length,
          LEAST_DAYS
        )
  )
}

/** The stretches, each with its marks, and only with the targets that can matter. */
function partsOf({ detection, stretches, marks }: Ask): MarkedStretch[] {
  const placedMarks = placeMarks(
    marks,
    stretches.map(({ tracks }) => tracks)
  )
  return stretches.map((stretch, file) => {
    const near = nearShape(stretch.tracks, detection, SHAPE_REACH)
    const own = placedMarks
      .map((mark, index) => ({ mark, index }))
      .filter(({ mark }) => mark.file === file)
    return {
      stretch: { ...stretch, tracks: rowsOfTargets(stretch.tracks, (id) => near.has(id)) },
      marks: own
    }
  })
}

/** The days of the marks by the site's clock, each with its marks' numbers. */
function daysOf(
  marks: readonly Mark[],
  stretches: readonly Stretch[],
  timeZone: string
): Set<number>[] {
  const days = new Map<string, Set<number>>()
  marks.forEach(({ file, time }, index) => {
    const day = wallText(stretches[file]!.start + time * 1000, timeZone).slice(0, 10)
    days.set(day, (days.get(day) ?? new Set()).add(index))
  })
  return [...days].sort(([a], [b]) => (a < b ? -1 : 1)).map(([, of]) => of)
}

function groupsOf(days: readonly ReadonlySet<number>[]): Set<number>[] {
  const groups = Array.from({ length: Math.min(MOST_PARTS, days.length) }, () => new Set<number>())
  days.forEach((day, i) => day.forEach((index) => groups[i % groups.length]!.add(index)))
  return groups
}

/** What the marked targets are like, without those that are left out. */
function seenOf(
  detection: Detection,
  parts: readonly MarkedStretch[],
  out: ReadonlySet<number>
): Seen {
  const seen: { wanted: Seen['wanted']; nuisances: Seen['nuisances'] } = {
    wanted: [],
    nuisances: []
  }
  const feet: Point[][] = []
  for (const { stretch, marks } of parts) {
    const asked = marks.filter(({ index, mark }) => !out.has(index) && mark.target !== null)
    if (!asked.length) continue
    const byTarget = new Map<number, { mark: PlacedMark; box: Box; feet: Point[] }[]>()
    for (const { mark } of asked) {
      const of = byTarget.get(mark.target!) ?? []
      if (!of.length) byTarget.set(mark.target!, of)
      of.push({ mark, box: { cls: 0, w: 0, h: 0 }, feet: [] })
    }
    const { tracks: t } = stretch
    const near = nearRows(t, detection)
    for (let i = 0; i < t.length; i++)
      for (const of of byTarget.get(t.id[i]!) ?? []) {
        const time = (t.frame[i]! - 1) / t.fps
        if (time < of.mark.from - 1e-9 || time > of.mark.to + 1e-9 || !near(i)) continue
        of.box.w = Math.max(of.box.w, t.w[i]!)
        of.box.h = Math.max(of.box.h, t.h[i]!)
        of.box.cls = t.cls[i]!
        of.feet.push([t.x[i]! + t.w[i]! / 2, t.y[i]! + t.h[i]!])
      }
    for (const { mark, box, feet: at } of [...byTarget.values()].flat()) {
      if (!at.length) continue
      const like = { cls: CLASSES[box.cls]!, w: box.w, h: box.h }
      if (mark.mark === 'wanted') seen.wanted.push(like)
      else {
        seen.nuisances.push(like)
        feet.push(at)
      }
    }
  }
  return { ...seen, areas: areasOver(feet) }
}

interface Box {
  cls: number
  w: number
  h: number
}

/** Whether a row is at the detection's shape: its box meets the box of the shape. */
function nearRows(t: Stretch['tracks'], d: Detection): (i: number) => boolean {
  const bounds = boundsOf(d)
  if (!bounds) return () => true
  const { left, right, top, bottom } = bounds
  return (i) =>
    t.x[i]! <= right && t.y[i]! <= bottom && t.x[i]! + t.w[i]! >= left && t.y[i]! + t.h[i]! >= top
}

/** What becomes of all marks, and how much is not marked, by evaluating everything. */
function countsOf(
  place: Place,
  state: State,
  parts: readonly MarkedStretch[],
  marks: readonly Mark[]
): Kept & { unmarked: number } {
  const counts = {
    kept: 0,
    wanted: marks.filter(({ mark }) => mark === 'wanted').length,
    gone: marks.filter(({ mark }) => mark === 'nuisance').length,
    nuisances: marks.filter(({ mark }) => mark === 'nuisance').length,
    unmarked: 0
  }
  for (const part of parts) {
    const { ofTrigger, answered } = judge(
      triggersIn(placed(place, state), state.detection, part.stretch),
      part.marks.map(({ mark }) => mark)
    )
    counts.unmarked += ofTrigger.filter((mark) => mark === null).length
    for (const mark of answered)
      if (mark.mark === 'wanted') counts.kept++
      else counts.gone--
  }
  return counts
}

/** The fields that differ, as they would be. */
function differences(
  original: Detection,
  { detection, ignore }: State
): Pick<Recommendation, 'settings' | 'ignore'> {
  const [a, b]: Record<string, unknown>[] = [{ ...original }, { ...detection }]
  const names = new Set([...Object.keys(a!), ...Object.keys(b!)])
  const settings = Object.fromEntries(
    [...names]
      .filter((name) => JSON.stringify(a![name]) !== JSON.stringify(b![name]))
      .map((name) => [name, b![name] ?? null])
  )
  return { settings, ignore: ignore.map((area) => [...area]) }
}

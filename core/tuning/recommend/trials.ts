import type { MarkKind } from '../../marks/marks.ts'
import { judge, type PlacedMark } from '../../marks/judge.ts'
import type { Detection } from '../../formats/plan.ts'
import { isAlone, rowsOfTargets, triggersIn, type Place, type Stretch } from '../stretches.ts'
import type { State } from './moves.ts'

/** A stretch with what is known of it. */
export interface MarkedStretch {
  stretch: Stretch
  /** Those of the stretch; `index` is the mark's number among all. */
  marks: { mark: PlacedMark; index: number }[]
}

/** Targets that may silence a marked one by the re-trigger delay are looked for so many delays before it. */
const DELAYS_BEFORE = 3

/**
 * Asks the engine what becomes of the marks in a state. The marked targets' own rows are enough, as long as targets do
 * not matter to each other; otherwise those are evaluated with them that were there shortly before.
 */
export class Trials {
  private readonly place: Place
  /** The stretches of each kind of mark, with the rows of the marked targets alone. */
  private readonly own: Record<MarkKind, readonly MarkedStretch[]>
  private readonly whole: readonly MarkedStretch[]
  private near: readonly MarkedStretch[] = []
  private nearSeconds = -1
  private readonly known = new Map<string, Uint8Array>()
  private readonly marks: number

  constructor(place: Place, whole: readonly MarkedStretch[]) {
    this.place = place
    this.whole = whole
    this.marks = whole.reduce((sum, { marks }) => sum + marks.length, 0)
    const own = (kind: MarkKind): MarkedStretch[] =>
      whole
        .map((part) => ({ ...part, marks: part.marks.filter(({ mark }) => mark.mark === kind) }))
        .filter(({ marks }) => marks.length)
        .map((part) => narrowed(part, 0))
    this.own = { wanted: own('wanted'), nuisance: own('nuisance') }
  }

  /** How many of some marks, all of one kind, have a trigger in a state. @param of their numbers */
  count(state: State, kind: MarkKind, of: readonly number[]): number {
    const outcome = this.outcome(state, kind)
    let sum = 0
    for (const i of of) sum += outcome[i]!
    return sum
  }

  /** By mark, for those of one kind: 1 when it has a trigger in a state. */
  private outcome(state: State, kind: MarkKind): Uint8Array {
    const alone = isAlone(state.detection)
    const key = JSON.stringify([alone && kind, state.detection, state.ignore])
    let found = this.known.get(key)
    if (!found) {
      found = this.ask(state, alone ? this.own[kind] : this.partsBefore(state.detection))
      this.known.set(key, found)
    }
    return found
  }

  private partsBefore(d: Detection): readonly MarkedStretch[] {
    const seconds = Math.max(60, DELAYS_BEFORE * d.holdOffSeconds)
    if (seconds > this.nearSeconds) {
      this.nearSeconds = seconds
      this.near = this.whole
        .filter(({ marks }) => marks.length)
        .map((part) => narrowed(part, seconds))
    }
    return this.near
  }

  private ask(state: State, parts: readonly MarkedStretch[]): Uint8Array {
    const answers = new Uint8Array(this.marks)
    for (const { stretch, marks } of parts) {
      const { answered } = judge(
        triggersIn(placed(this.place, state), state.detection, stretch),
        marks.map(({ mark }) => mark)
      )
      for (const { mark, index } of marks) if (answered.has(mark)) answers[index] = 1
    }
    return answers
  }
}

/** Where a state's detection looks: the camera with its ignore areas. */
export const placed = (place: Place, { ignore }: State): Place => ({
  ...place,
  camera: { ...place.camera, ignore: ignore.map((area) => [...area]) }
})

/** The marked stays, and whatever is there up to so many seconds before them. */
function narrowed({ stretch, marks }: MarkedStretch, seconds: number): MarkedStretch {
  const { tracks } = stretch
  const stays = marks
    .map(({ mark }) => ({
      target: mark.target,
      from: Math.floor((mark.from - seconds) * tracks.fps) + 1,
      to: Math.ceil(mark.to * tracks.fps) + 1
    }))
    .sort((a, b) => a.from - b.from)
  const targets = new Set(stays.map(({ target }) => target))
  if (seconds === 0)
    return {
      marks,
      stretch: { ...stretch, tracks: rowsOfTargets(tracks, (id) => targets.has(id)) }
    }
  // Targets that are there at such a time, with all of their rows: what they do then began before.
  const there = new Set<number>()
  let next = 0
  let until = -1
  for (let i = 0; i < tracks.length; i++) {
    const frame = tracks.frame[i]!
    while (next < stays.length && stays[next]!.from <= frame)
      until = Math.max(until, stays[next++]!.to)
    if (frame <= until) there.add(tracks.id[i]!)
  }
  return { marks, stretch: { ...stretch, tracks: rowsOfTargets(tracks, (id) => there.has(id)) } }
}

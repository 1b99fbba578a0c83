import type { Trigger } from '../detections/index.ts'
import { RECORD_GAP_SECONDS, frameTime, type Tracks } from '../targets/tracks.ts'
import type { Mark } from './marks.ts'

/** A mark belongs to the trigger of its target that is nearest in time within this; else to the target. */
export const MARK_WITHIN_SECONDS = 2
const ALLOWANCE = 1e-9

/** A mark with the stay in the picture, of its target, that it means: seconds of its stretch. */
export interface PlacedMark extends Mark {
  from: number
  to: number
}

/**
 * Finds the stay of each mark's target: a gap of more than a second under the same id is another target, so that the
 * mark of one does not speak for the other. A mark of a target that is not there means its moment alone.
 *
 * @param tracks of each stretch, by number
 */
export function placeMarks(marks: readonly Mark[], tracks: readonly Tracks[]): PlacedMark[] {
  const stays = tracks.map((t, file) => {
    const asked = new Set(marks.filter((m) => m.file === file).map((m) => m.target))
    const found = new Map<number, [from: number, to: number][]>()
    for (let i = 0; i < t.length; i++) {
      const id = t.id[i]!
      if (!asked.has(id)) continue
      const time = frameTime(t.frame[i]!, t.fps)
      const of = found.get(id) ?? []
      if (!of.length) found.set(id, of)
      const last = of.at(-1)
      if (last && time - last[1] <= RECORD_GAP_SECONDS + ALLOWANCE) last[1] = time
      else of.push([time, time])
    }
    return found
  })
  return marks.map((mark) => {
    const of = (mark.target !== null && stays[mark.file]?.get(mark.target)) || []
    const away = ([from, to]: [number, number]): number =>
      Math.max(from - mark.time, mark.time - to, 0)
    let best: [number, number] | null = null
    for (const stay of of) if (!best || away(stay) < away(best)) best = stay
    const [from, to] =
      best && away(best) <= MARK_WITHIN_SECONDS + ALLOWANCE ? best : [mark.time, mark.time]
    return { ...mark, from, to }
  })
}

const isOf = (mark: Mark, { target, targets }: Trigger): boolean =>
  mark.target === null
    ? target === undefined
    : targets
      ? targets.includes(mark.target)
      : target === mark.target

/** What marks say of the triggers of one detection in one stretch. */
export interface Judged {
  /** By trigger: the mark that speaks of it; null: nothing does. */
  ofTrigger: (PlacedMark | null)[]
  /** The marks that have a trigger. */
  answered: Set<PlacedMark>
}

/**
 * Gives each mark its trigger: of its target, the nearest in time within 2 s. A mark without one belongs to the target,
 * and so to all of the target's triggers that no other mark is nearer to. Of two that disagree on one trigger the nearer
 * counts, and *wanted* where they are equally near: what is wanted is not to be lost.
 *
 * @param triggers of one detection in one stretch
 * @param marks of that stretch
 */
export function judge(triggers: readonly Trigger[], marks: readonly PlacedMark[]): Judged {
  const ofTrigger = new Array<PlacedMark | null>(triggers.length).fill(null)
  const answered = new Set<PlacedMark>()
  const ofTargets: PlacedMark[] = []
  const speaks = (mark: PlacedMark, i: number): void => {
    answered.add(mark)
    const now = ofTrigger[i]
    const gap = (m: Mark): number => Math.abs(m.time - triggers[i]!.time)
    if (!now || gap(mark) < gap(now) || (gap(mark) === gap(now) && mark.mark === 'wanted'))
      ofTrigger[i] = mark
  }
  for (const mark of marks) {
    let nearest = -1
    let gap = MARK_WITHIN_SECONDS + ALLOWANCE
    triggers.forEach((trigger, i) => {
      const apart = Math.abs(trigger.time - mark.time)
      if (apart > gap || !isOf(mark, trigger) || (nearest >= 0 && apart === gap)) return
      nearest = i
      gap = apart
    })
    if (nearest >= 0) speaks(mark, nearest)
    else ofTargets.push(mark)
  }
  const free = ofTrigger.map((mark) => mark === null)
  for (const mark of ofTargets)
    triggers.forEach((trigger, i) => {
      if (
        free[i] &&
        isOf(mark, trigger) &&
        trigger.time >= mark.from - ALLOWANCE &&
        trigger.time <= mark.to + ALLOWANCE
      )
        speaks(mark, i)
    })
  return { ofTrigger, answered }
}

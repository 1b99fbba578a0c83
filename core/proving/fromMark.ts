import type { Check } from '../formats/check.ts'
import { LONGEST_CLIP_MS } from '../lookBack/rows.ts'
import type { MarkKind } from '../marks/marks.ts'

/** Before somebody comes and after they have gone. */
const AROUND_SECONDS = 5
/** Of a trigger without a target there is no stay. */
const WITHOUT_TARGET_SECONDS = 20
/** A trigger may fall so much earlier or later and still be the same. */
const WITHIN_SECONDS = 2
const LONGEST_SECONDS = LONGEST_CLIP_MS / 1000

/**
 * The seconds of a clip that tell what happened at a marked moment.
 *
 * @param time of the moment, seconds @param stay of its target; null: not known @param length of the clip, seconds
 * @returns the moment is among them
 */
export function stretchAround(
  time: number,
  stay: { from: number; to: number } | null,
  length: number
): { from: number; to: number } {
  const [before, after] = stay
    ? [stay.from - AROUND_SECONDS, stay.to + AROUND_SECONDS]
    : [time - WITHOUT_TARGET_SECONDS, time + WITHOUT_TARGET_SECONDS]
  // Of somebody who stays for hours the part that leads to the moment counts.
  const from = Math.floor(Math.max(0, before, time - LONGEST_SECONDS + AROUND_SECONDS))
  return { from, to: Math.min(length, Math.ceil(after), from + LONGEST_SECONDS) }
}

/**
 * A mark as a check of a stretch of a clip: what was wanted must trigger, a nuisance must not.
 *
 * @param of.time of the marked moment, seconds of the clip
 * @param of.fired it has triggered there; else it may trigger anywhere in the stretch
 */
export function checkOfMark(of: {
  id: string
  detection: string
  name: string
  clip: { id: string; start: number }
  stretch: { from: number; to: number }
  time: number
  mark: MarkKind
  fired: boolean
}): Check {
  const { from, to } = of.stretch
  const at = of.time - from
  return {
    id: of.id,
    detection: of.detection,
    name: of.name,
    about: of.mark === 'wanted' ? 'passes' : 'nuisance',
    ...(of.mark === 'wanted' && { side: 'inside' as const }),
    by: { how: 'clip', clip: of.clip.id, from, to },
    at: of.clip.start,
    expect:
      of.mark === 'nuisance'
        ? { what: 'silence' }
        : {
            what: 'trigger',
            from: of.fired ? Math.max(0, at - WITHIN_SECONDS) : 0,
            to: of.fired ? Math.min(to - from, at + WITHIN_SECONDS) : to - from
          },
    effects: []
  }
}

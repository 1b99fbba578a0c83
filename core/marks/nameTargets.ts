import type { Detection } from '../formats/plan.ts'
import { shapeOf } from '../formats/plan.ts'
import { frameAt, firstRowOfFrame, frameTime, type Tracks } from '../targets/tracks.ts'
import {
  nearShape,
  rowsOfTargets,
  triggersIn,
  type Place,
  type Stretch
} from '../tuning/stretches.ts'
import type { Mark } from './marks.ts'

/** A device tells of a trigger some time after it, by a clock that is a little off. */
const LATE_SECONDS = 5

/**
 * Finds whom marks are of that name no target: many devices do not say who triggered. It is the target of the trigger
 * that the engine finds nearest in time within 5 s, with the settings as they are; else the only one that was at the
 * shape then. A mark of which neither can be said is left out: it could be counted for nothing.
 *
 * @param marks of detections that look at targets; of others they stay as they are
 */
export function nameTargets(
  place: Place,
  detection: Detection,
  stretches: readonly Stretch[],
  marks: readonly Mark[]
): Mark[] {
  if (!('classes' in detection) || !shapeOf(detection)) return [...marks]
  const near = new Map<number, ReturnType<typeof lookInto>>()
  return marks.flatMap((mark): Mark[] => {
    const stretch = stretches[mark.file]
    if (mark.target !== null || !stretch) return [mark]
    let found = near.get(mark.file)
    if (!found) near.set(mark.file, (found = lookInto(place, detection, stretch)))
    const trigger = found.triggers
      .filter(({ time }) => Math.abs(time - mark.time) <= LATE_SECONDS)
      .sort((a, b) => Math.abs(a.time - mark.time) - Math.abs(b.time - mark.time))[0]
    if (trigger?.target !== undefined)
      return [{ ...mark, target: trigger.target, time: trigger.time }]
    const there = targetsAround(found.tracks, mark.time)
    return there.size === 1 ? [{ ...mark, target: [...there][0]! }] : []
  })
}

function lookInto(place: Place, detection: Detection, stretch: Stretch) {
  const close = nearShape(stretch.tracks, detection, 0)
  const tracks = rowsOfTargets(stretch.tracks, (id) => close.has(id))
  return { tracks, triggers: triggersIn(place, detection, { ...stretch, tracks }) }
}

/** Who is in the picture at about a moment, of those who come to the shape at all. */
function targetsAround(t: Tracks, time: number): Set<number> {
  const there = new Set<number>()
  const first = firstRowOfFrame(t, Math.max(1, frameAt(time - LATE_SECONDS, t.fps)))
  for (let i = first; i < t.length && frameTime(t.frame[i]!, t.fps) <= time; i++)
    there.add(t.id[i]!)
  return there
}

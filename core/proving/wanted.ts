import type { Trigger } from '../detections/index.ts'
import type { TargetClass } from '../targets/classes.ts'
import { CLASSES } from '../targets/classes.ts'
import { firstRowOfFrame, type Tracks } from '../targets/tracks.ts'

/** Somebody who has been in the picture this long before a trigger, or comes this soon after it, may be its reason. */
const WITHIN_SECONDS = 0.5

/**
 * Whether somebody would want to hear of a trigger: a target of one of the classes is in the picture then, or within
 * half a second of it. By the ground truth where there is one, otherwise by the targets that were found.
 */
export function isWanted(
  trigger: Pick<Trigger, 'frame'>,
  present: Tracks,
  classes: readonly TargetClass[]
): boolean {
  const around = Math.round(WITHIN_SECONDS * present.fps)
  for (
    let i = firstRowOfFrame(present, trigger.frame - around);
    i < present.length && present.frame[i]! <= trigger.frame + around;
    i++
  )
    if (classes.includes(CLASSES[present.cls[i]!]!)) return true
  return false
}

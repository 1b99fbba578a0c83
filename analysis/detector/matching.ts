import type { Box } from '../../core/geometry/shapes.ts'
import type { TargetClass } from '../../core/targets/classes.ts'
import { iou, overlap } from '../target.ts'
import type { Detected } from './objects.ts'

/** What a target was told to be. */
export interface Opinion {
  cls: TargetClass
  likelihood: number
}

/** Boxes of what moves and of what is seen share this much when they are of the same thing: shadows and legs differ. */
const LEAST_IOU = 0.25
/** And this much when what is seen stands where it stood from the start. */
const LEAST_STANDING = 0.5
/** Or one lies within the other by this much, and is not a small part of it. */
const WITHIN = 0.75
const LEAST_PART = 0.06
/** A cycle under a rider lies within their patch, and is about as wide. */
const RIDDEN_WITHIN = 0.6
const RIDDEN_WIDTH = 0.5
/** Two boxes of one class that share more than this are one thing, seen in two tiles. */
const TWICE = 0.5

const area = ({ w, h }: Box): number => w * h

/** How well the two are the same thing, 0 to 1; 0: they are not. @param stands what is seen stands where it stood */
function fit(target: Box, seen: Box, stands: boolean): number {
  const common = overlap(target, seen)
  const shared = iou(target, seen)
  // What moves before a parked car is not a piece of it; only what sets off is nearly all of it.
  if (stands) return shared >= LEAST_STANDING ? shared : 0
  if (shared >= LEAST_IOU) return shared
  const [small, large] = [area(target), area(seen)].sort((a, b) => a - b) as [number, number]
  return small > 0 && common / small >= WITHIN && small / large >= LEAST_PART ? shared : 0
}

/** Leaves one of each thing that was seen in more than one tile: the most likely. */
export function seenOnce(seen: readonly Detected[]): Detected[] {
  const kept: Detected[] = []
  for (const one of [...seen].sort((a, b) => b.likelihood - a.likelihood))
    if (!kept.some((other) => other.cls === one.cls && iou(other, one) > TWICE)) kept.push(one)
  return kept
}

/**
 * What the detector says of each target: of what is seen, that which fits it best. Several may be of one thing, as
 * patches are when a post hides the middle of somebody. A person on a cycle is a cycle.
 *
 * @param targets their boxes, in the same pixels as what is seen
 * @param stands whether something that is seen stands where it stood when the clip began
 * @returns one for each target; null: nothing was seen there
 */
export function match(
  targets: readonly Box[],
  seen: readonly Detected[],
  stands: (one: Detected) => boolean = () => false
): (Opinion | null)[] {
  const opinions = targets.map((target): Opinion | null => {
    let [best, most]: [Detected | null, number] = [null, 0]
    for (const one of seen) {
      const found = fit(target, one, stands(one)) * Math.sqrt(one.likelihood)
      if (found > most) [best, most] = [one, found]
    }
    return best && { cls: best.cls, likelihood: best.likelihood }
  })
  return opinions.map((opinion, t) => {
    if (opinion?.cls !== 'person') return opinion
    const target = targets[t]!
    const ridden = seen.find(
      (one) =>
        one.cls === 'cycle' &&
        one.w >= RIDDEN_WIDTH * target.w &&
        overlap(one, target) >= RIDDEN_WITHIN * area(one)
    )
    return ridden ? { cls: 'cycle', likelihood: ridden.likelihood } : opinion
  })
}

import type { Stander } from './detector/standing.ts'
import { overlap, type Followed } from './target.ts'

/** A target: what stood there before it moved, and what moved; one of the two may be missing. */
export interface Whole {
  stood: Stander | null
  target: Followed | null
}

/** What sets off from where something stood is that thing when it covers so much of it, and is no larger than it. */
const COVERS = 0.4
const LARGEST = 2.5
/** Judged after so many seconds: at first, only a part of it moves. */
const JUDGED_AFTER = 0.5

/**
 * Puts together what stood still from the first picture on and what was followed: who sets off is one target with who
 * stood there. In the order in which they came into view.
 *
 * @param frames of the clip
 */
export function withStanders(
  targets: readonly Followed[],
  standers: readonly Stander[],
  fps: number,
  frames: number
): Whole[] {
  const free = new Set(targets)
  const wholes = standers.map((stander): Whole => {
    const [setsOff] = [...free]
      .filter((target) => isFrom(target, stander, fps))
      .sort((a, b) => a.rows[0]!.frame - b.rows[0]!.frame)
    if (setsOff) free.delete(setsOff)
    const to = setsOff ? setsOff.rows[0]!.frame - 1 : Math.min(stander.to, frames)
    return { stood: to >= stander.from ? { ...stander, to } : null, target: setsOff ?? null }
  })
  for (const target of free) wholes.push({ stood: null, target })
  const first = ({ stood, target }: Whole): { frame: number; x: number } =>
    stood ? { frame: stood.from, x: stood.x } : target!.rows[0]!
  return wholes
    .filter(({ stood, target }) => stood ?? target)
    .sort((a, b) => first(a).frame - first(b).frame || first(a).x - first(b).x)
}

/** Whether a target set off from where something stood. */
function isFrom({ rows }: Followed, stander: Stander, fps: number): boolean {
  if (rows[0]!.frame <= stander.from) return false
  const early = rows[Math.min(rows.length - 1, Math.round(JUDGED_AFTER * fps))]!
  const area = stander.w * stander.h
  return (
    overlap(rows[0]!, stander) > 0 &&
    overlap(early, stander) >= COVERS * area &&
    early.w * early.h <= LARGEST * area
  )
}

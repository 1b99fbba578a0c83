import type { Box } from '../../core/geometry/shapes.ts'
import type { TargetClass } from '../../core/targets/classes.ts'

/** What the detector said of a target at a frame. */
export interface Told {
  frame: number
  cls: TargetClass
  /** 0 to 1. */
  likelihood: number
}

/** When a target was last looked at. */
export interface Asked {
  frame: number
  /** Its height then, in any unit that stays the same. */
  height: number
}

/** A patch that is seen for the first time may be gone in the next frame. */
const SEEN_BEFORE = 2
/** A small one is more often a leaf: it must have been there for so many seconds. */
const SMALL_SEEN_SECONDS = 0.4
/** Pixels of the larger picture; what is smaller shows little. */
const SMALL = 24
/** Seconds after which it is worth a look of its own to ask again: while nothing is settled, and then. */
const UNSETTLED_GAP = 4
const SETTLED_GAP = 12
/** Seconds after which it is asked again when there is a look anyway. */
const BESIDE_GAP = 0.5
/** A target that has grown this much shows more than it did. */
const GROWN = 1.4
/** Answers agree when this much of their likelihood is of one class, and suffice when that is so much in all. */
const AGREED = 2 / 3
const ENOUGH = 0.8

/** Whether what was told of a target leaves nothing to ask for now. */
export function isSettled(told: readonly Told[]): boolean {
  const sums = new Map<TargetClass, number>()
  for (const { cls, likelihood } of told) sums.set(cls, (sums.get(cls) ?? 0) + likelihood)
  const most = Math.max(0, ...sums.values())
  const all = [...sums.values()].reduce((a, b) => a + b, 0)
  return most >= ENOUGH && most >= AGREED * all
}

/**
 * Why a target is looked at, what matters most first: it was never looked at; so, but it is small; to see whether it is
 * still what it was; because there is a look anyway; not now.
 */
export const NEEDS = ['new', 'small', 'again', 'beside', 'none'] as const
export type Need = (typeof NEEDS)[number]

/**
 * Why to look at a target at a frame: one that was never looked at; one whose answers do not agree, that has grown, or
 * that was not looked at for long.
 *
 * @param target frames in which it was seen; its larger side and its height in pixels of the larger picture; what is
 * known to have been told of it
 */
export function needOf(
  {
    seen,
    side,
    height,
    told
  }: { seen: number; side: number; height: number; told: readonly Told[] },
  asked: Asked | undefined,
  frame: number,
  fps: number
): Need {
  if (!asked) {
    if (seen < SEEN_BEFORE) return 'beside'
    if (side >= SMALL) return 'new'
    return seen >= SMALL_SEEN_SECONDS * fps ? 'small' : 'beside'
  }
  const waited = (frame - asked.frame) / fps + 1e-9
  if (waited < BESIDE_GAP) return 'none'
  const settled = isSettled(told)
  const gap = settled && height < GROWN * asked.height ? SETTLED_GAP : UNSETTLED_GAP
  return waited >= gap ? 'again' : 'beside'
}

const ROUNDING = 1e-6

/** Whether a box lies in a square, large enough in it to be told from what is around. */
export const isShownIn = (
  { x, y, w, h }: Box,
  square: { x: number; y: number; side: number }
): boolean =>
  x >= square.x - ROUNDING &&
  y >= square.y - ROUNDING &&
  x + w <= square.x + square.side + ROUNDING &&
  y + h <= square.y + square.side + ROUNDING &&
  Math.max(w, h) >= square.side / 6

import type { Box } from '../core/geometry/shapes.ts'
import type { Foreground, Patch } from './foreground.ts'
import type { FrameSize } from './frames.ts'
import { median } from './median.ts'
import { overlap, type Followed, type SeenRow } from './target.ts'

/** A target has stopped when its place has been the same for so long, to a share of its height. */
const STOPPED_SECONDS = 1.5
const STOPPED_WITHIN = 0.1
/** In so many of its rows: rain and snow add to a box now and then. */
const MOST = 0.8
/** It is still there while so many of its pixels look more like it than like what is behind it. */
const STILL = 0.65
/** What it looks like follows the light with this weight in each frame. */
const FOLLOWS = 0.02
/** Who stays for longer becomes part of the background. */
const LONGEST_SECONDS = 300
/** Pixels around it that are taken for it: its edge. */
const EDGE = 2
/** Fewer pixels say nothing. */
const LEAST_PIXELS = 12

/** A target that has stopped, and what its pixels look like, with it and without it. */
interface Resting {
  target: Followed
  /** As it was found last. */
  patch: Patch
  /** Its pixels, as places in the picture, with those of its edge. */
  covered: Uint32Array
  /** Its pixels alone. */
  own: Uint32Array
  /** Blue, green and red of `own`. */
  looks: Float32Array
  /** Blue, green and red of `covered`, and of `own`. */
  behind: Uint8Array
  behindOwn: Uint8Array
}

/**
 * Keeps targets that have come and stand still: the background is not learned where they are, and they are followed while
 * their place looks more like them than like what is behind them.
 */
export class Rests {
  private readonly size: FrameSize
  private readonly fps: number
  private resting: Resting[] = []
  /** For how many frames each has stood still. */
  private readonly stood = new WeakMap<Followed, number>()

  constructor(size: FrameSize, fps: number) {
    this.size = size
    this.fps = fps
  }

  /** Those that are still there in a picture; who is not is followed as others are from now on. */
  next(picture: Uint8Array): ReadonlySet<Followed> {
    this.resting = this.resting.filter((one) => !this.isOver(one.target) && isThere(one, picture))
    for (const { target } of this.resting) this.stood.set(target, (this.stood.get(target) ?? 0) + 1)
    return new Set(this.resting.map(({ target }) => target))
  }

  /** What they look like, as patches. */
  get patches(): Patch[] {
    return this.resting.map(({ patch }) => patch)
  }

  /** Puts what is behind them in their place, of a picture (blue, green, red bytes). */
  hide(picture: Uint8Array): void {
    for (const { covered, behind } of this.resting)
      covered.forEach((at, i) => {
        for (let c = 0; c < 3; c++) picture[3 * at + c] = behind[3 * i + c]!
      })
  }

  /** Whether a patch is a piece of one of them. */
  holds(patch: Box): boolean {
    return this.patches.some((one) => overlap(patch, one) > 0.5 * patch.w * patch.h)
  }

  /** Takes those of the targets that have stopped. */
  take(
    targets: readonly Followed[],
    picture: Uint8Array,
    patches: readonly Patch[],
    foreground: Pick<Foreground, 'moving' | 'background'>,
    isKept: (target: Followed) => boolean
  ): void {
    for (const target of targets)
      if (
        target.missed === 0 &&
        !this.isOver(target) &&
        !this.resting.some((one) => one.target === target) &&
        hasStopped(target.rows, this.fps) &&
        isKept(target)
      ) {
        const one = this.restOf(target, picture, patches, foreground)
        if (one) this.resting.push(one)
      }
  }

  private isOver(target: Followed): boolean {
    return (this.stood.get(target) ?? 0) >= LONGEST_SECONDS * this.fps
  }

  private restOf(
    target: Followed,
    picture: Uint8Array,
    patches: readonly Patch[],
    foreground: Pick<Foreground, 'moving' | 'background'>
  ): Resting | null {
    const { width, height } = this.size
    const { x, y, w, h } = target.rows.at(-1)!
    // At the edge of the picture more of it may come.
    const patch = patches.find((one) => one.x === x && one.y === y && one.w === w && one.h === h)
    if (!patch || x <= 1 || y <= 1 || x + w >= width - 1 || y + h >= height - 1) return null
    const moving = foreground.moving
    const own: number[] = []
    const covered: number[] = []
    for (let py = Math.max(0, y - EDGE); py < Math.min(height, y + h + EDGE); py++)
      for (let px = Math.max(0, x - EDGE); px < Math.min(width, x + w + EDGE); px++) {
        const at = py * width + px
        if (moving[at]) own.push(at)
        if (isNear(moving, this.size, px, py)) covered.push(at)
      }
    if (own.length < LEAST_PIXELS) return null
    const background = foreground.background()
    if (!standsOut(moving, own, width, picture, background)) return null
    const of = (from: Uint8Array, places: number[]): Uint8Array =>
      Uint8Array.from(places.flatMap((at) => [...from.subarray(3 * at, 3 * at + 3)]))
    return {
      target,
      patch,
      covered: Uint32Array.from(covered),
      own: Uint32Array.from(own),
      looks: Float32Array.from(of(picture, own)),
      behind: of(background, covered),
      behindOwn: of(background, own)
    }
  }
}

/** Whether its pixels look more like it than like what is behind it; what it looks like follows the light. */
function isThere({ own, looks, behindOwn }: Resting, picture: Uint8Array): boolean {
  let still = 0
  for (let i = 0; i < own.length; i++) {
    let [it, without] = [0, 0]
    for (let c = 0; c < 3; c++) {
      const now = picture[3 * own[i]! + c]!
      it += Math.abs(now - looks[3 * i + c]!)
      without += Math.abs(now - behindOwn[3 * i + c]!)
    }
    if (it > without) continue
    still++
    for (let c = 0; c < 3; c++)
      looks[3 * i + c]! += FOLLOWS * (picture[3 * own[i]! + c]! - looks[3 * i + c]!)
  }
  return still >= STILL * own.length
}

/**
 * Whether the outline of what moves is sharper in the picture than in the background: of what has gone from there, it is
 * the background that still shows it.
 */
function standsOut(
  moving: Uint8Array,
  own: readonly number[],
  width: number,
  picture: Uint8Array,
  background: Uint8Array
): boolean {
  let more = 0
  for (const at of own)
    for (const beside of [at - 1, at + 1, at - width, at + width]) {
      if (moving[beside]) continue
      for (let c = 0; c < 3; c++) {
        const [i, j] = [3 * at + c, 3 * beside + c]
        more += Math.abs(picture[i]! - picture[j]!) - Math.abs(background[i]! - background[j]!)
      }
    }
  return more > 0
}

function isNear(moving: Uint8Array, { width, height }: FrameSize, x: number, y: number): boolean {
  for (let py = Math.max(0, y - EDGE); py <= Math.min(height - 1, y + EDGE); py++)
    for (let px = Math.max(0, x - EDGE); px <= Math.min(width - 1, x + EDGE); px++)
      if (moving[py * width + px]) return true
  return false
}

/** Whether a target has been in its place for long enough, and is in it now, by rows that were measured. */
export function hasStopped(rows: readonly SeenRow[], fps: number): boolean {
  const last = rows.slice(-Math.round(STOPPED_SECONDS * fps))
  if (last.length < STOPPED_SECONDS * fps) return false
  const of = (figure: (row: SeenRow) => number): number => median(last.map(figure))
  const [middle, foot, height] = [of(middleOf), of(footOf), of(({ h }) => h)]
  const within =
    STOPPED_WITHIN *
    Math.max(
      height,
      of(({ w }) => w)
    )
  const isIn = (row: SeenRow): boolean =>
    row.measured &&
    Math.abs(middleOf(row) - middle) <= within &&
    Math.abs(footOf(row) - foot) <= within &&
    Math.abs(row.h - height) <= within
  return isIn(last.at(-1)!) && last.filter(isIn).length >= MOST * last.length
}

const middleOf = ({ x, w }: Box): number => x + w / 2
const footOf = ({ y, h }: Box): number => y + h

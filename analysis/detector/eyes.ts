import type { Box } from '../../core/geometry/shapes.ts'
import type { FrameSize } from '../frames.ts'
import type { Followed } from '../target.ts'
import { NEEDS, isShownIn, needOf, type Asked, type Need } from './asking.ts'
import type { Looks } from './inWorker.ts'
import { lookAt } from './lookAt.ts'
import { match } from './matching.ts'
import { Budget, Open } from './open.ts'
import type { Standing } from './standing.ts'
import { squareAround, type Tile } from './tiles.ts'

/** Pictures that may be looked at in a second of footage, and how many may be saved up for when much comes at once. */
const LOOKS_A_SECOND = 0.4
const SAVED_LOOKS = 6
/** So many must be saved up before one is spent on it: what comes into view in the next second must not wait. */
const SAVED_FOR: Readonly<Record<Need, number>> = {
  new: 1,
  small: 2,
  again: 3,
  beside: Infinity,
  none: Infinity
}
/** Targets in one look. */
const TILES = 9
/** What is smaller than this in the picture, in pixels, shows nothing. */
const LEAST_SIZE = 10
/** A box in a picture that is so many times as large, as far as it is in it. */
function shownOf({ x, y, w, h }: Box, by: number, { width, height }: FrameSize): Box {
  const [left, top] = [Math.max(0, x * by), Math.max(0, y * by)]
  return {
    x: left,
    y: top,
    w: Math.min(width, (x + w) * by) - left,
    h: Math.min(height, (y + h) * by) - top
  }
}

/** Decides what of which picture the detector looks at, and gives what it says to the targets. */
export class Eyes {
  private readonly looks: Looks
  private readonly fps: number
  private readonly analysed: FrameSize
  private readonly asked = new WeakMap<Followed, Asked>()
  private readonly standing: Pick<Standing, 'holds'>
  private readonly open: Open
  private readonly budget: Budget
  /** Pictures that were looked at. */
  count = 0

  /**
   * @param analysed size of the pictures in which targets are followed
   * @param standing what stands, asked before these eyes in each frame: answers come in the order of questions
   */
  constructor(
    looks: Looks,
    fps: number,
    analysed: FrameSize,
    standing: Pick<Standing, 'holds'> = { holds: () => false }
  ) {
    this.looks = looks
    this.standing = standing
    this.fps = fps
    this.analysed = analysed
    this.open = new Open(fps)
    this.budget = new Budget(LOOKS_A_SECOND, SAVED_LOOKS, fps)
  }

  /**
   * Looks at a frame, if some target in it is worth it. Resolves before the answer is there.
   *
   * @param picture the same frame, larger (blue, green, red bytes); it may be used again afterwards
   * @param targets that are followed now @throws what the detector throws
   */
  async next(
    frame: number,
    picture: Uint8Array,
    size: FrameSize,
    targets: readonly Followed[]
  ): Promise<void> {
    const known = this.open.knownAt(frame)
    await this.open.until(known)
    this.budget.at(frame)
    if (this.budget.saved < 1) return
    const scale = size.width / this.analysed.width
    const shown = targets
      .filter(({ missed }) => missed === 0)
      .map((target) => ({ target, box: shownOf(target.rows.at(-1)!, scale, size) }))
      .filter(({ box: { w, h } }) => Math.min(w, h) > 0 && Math.max(w, h) >= LEAST_SIZE)
    const inTurn = shown
      .map((one) => ({
        ...one,
        need: this.needOf(one, frame, known),
        at: this.askedAt(one.target)
      }))
      .filter(({ need }) => need !== 'none')
      // What matters most first; of what matters as much, what has waited longest.
      .sort(
        (a, b) => NEEDS.indexOf(a.need) - NEEDS.indexOf(b.need) || a.at - b.at || b.box.h - a.box.h
      )
    if (!inTurn[0] || this.budget.saved < SAVED_FOR[inTurn[0].need]) return
    const squares: Tile['from'][] = []
    for (const { box } of inTurn)
      if (squares.length < TILES && !squares.some((square) => isShownIn(box, square)))
        squares.push(squareAround(box, size))
    const inSight = shown.filter(({ box }) => squares.some((square) => isShownIn(box, square)))
    for (const { target, box } of inSight) this.asked.set(target, { frame, height: box.h })
    this.budget.saved--
    this.count++
    this.open.add(frame, lookAt(this.looks, picture, size, squares), (seen) =>
      match(
        inSight.map(({ box }) => box),
        seen,
        (one) => this.standing.holds(one)
      ).forEach((opinion, i) => {
        if (opinion) inSight[i]!.target.told.push({ frame, ...opinion })
      })
    )
  }

  private needOf(
    { target, box }: { target: Followed; box: Box },
    frame: number,
    known: number
  ): Need {
    return needOf(
      {
        seen: target.seen,
        side: Math.max(box.w, box.h),
        height: box.h,
        told: target.told.filter((told) => told.frame <= known)
      },
      this.asked.get(target),
      frame,
      this.fps
    )
  }

  /** The frame at which it was last looked at; 0: never. */
  private askedAt(target: Followed): number {
    return this.asked.get(target)?.frame ?? 0
  }

  /** Waits for the last answers. @throws what the detector throws */
  async finish(): Promise<void> {
    await this.open.until(Infinity)
  }
}

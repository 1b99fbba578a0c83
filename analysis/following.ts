import type CV from '@techstark/opencv-js'
import { Foreground, type Patch } from './foreground.ts'
import type { FrameSize } from './frames.ts'
import { Rests } from './resting.ts'
import type { Followed } from './target.ts'
import { Tracker } from './tracker.ts'

/** Finds what moves in pictures and follows it, also while it stands still. */
export class Following {
  private readonly foreground: Foreground
  private rests: Rests
  private readonly size: FrameSize
  private readonly fps: number
  private readonly isKept: (target: Followed) => boolean
  private readonly seen: Uint8Array
  tracker: Tracker

  constructor(cv: typeof CV, size: FrameSize, fps: number, isKept: (target: Followed) => boolean) {
    this.foreground = new Foreground(cv, size, fps)
    this.tracker = new Tracker(fps)
    this.rests = new Rests(size, fps)
    this.size = size
    this.fps = fps
    this.isKept = isKept
    this.seen = new Uint8Array(3 * size.width * size.height)
  }

  /**
   * Takes the next picture (blue, green, red bytes).
   *
   * @returns what moves in it, and what has come and stands still
   */
  next(picture: Uint8Array, frame: number): Patch[] {
    const { foreground, rests, tracker, seen } = this
    const resting = rests.next(picture)
    const still = rests.patches
    seen.set(picture)
    rests.hide(seen)
    const patches = foreground.find(seen).filter((patch) => !rests.holds(patch))
    tracker.step(patches, frame, resting)
    rests.take(tracker.following, picture, patches, foreground, this.isKept)
    return [...patches, ...still]
  }

  /** Ends all targets: the stream was away, and nobody knows who stayed. */
  endTargets(): void {
    const { tracker } = this
    this.tracker = new Tracker(this.fps)
    this.tracker.ended.push(...tracker.finish())
    this.rests = new Rests(this.size, this.fps)
  }

  delete(): void {
    this.foreground.delete()
  }
}

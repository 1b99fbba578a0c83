import type CV from '@techstark/opencv-js'
import type { Box } from '../core/geometry/shapes.ts'
import type { TargetClass } from '../core/targets/classes.ts'
import { classify } from './classify.ts'
import { Eyes } from './detector/eyes.ts'
import type { Looks } from './detector/inWorker.ts'
import { Following } from './following.ts'
import type { FrameSize } from './frames.ts'
import type { Followed } from './target.ts'
import { isKept, shareOf } from './targetFinder.ts'

/** A target in a picture, in shares of it. */
export interface LiveRow extends Box {
  /** Which picture, counted from 1. */
  frame: number
  id: number
  class: TargetClass
  likelihood: number
}

/** A class is what the last so many seconds say. */
const REMEMBERED_SECONDS = 60

/** A target as it was given out last. */
interface Given {
  id: number
  class: TargetClass
  likelihood: number
  /** How many rows have been given out; as many as are left of them where a target stays for long. */
  rows: number
}

/**
 * What is done with the pictures of a stream that has no end: find what moves, follow it, give it a class. What is known of
 * targets is taken now and then, so that no more is remembered than is needed.
 */
export class LiveAnalyser {
  private readonly size: FrameSize
  private readonly fps: number
  private readonly moving: Following
  private eyes: Eyes | null
  private readonly given = new WeakMap<Followed, Given>()
  private lastId = 0
  private frames = 0

  /**
   * @param size of the pictures that will be given, in pixels
   * @param looks the trained detector; null: classes are those of the shape
   */
  constructor(cv: typeof CV, size: FrameSize, fps: number, looks: Looks | null) {
    this.size = size
    this.fps = fps
    this.moving = new Following(cv, size, fps, (target) => isKept(target, fps))
    this.eyes = looks && new Eyes(looks, fps, size)
  }

  /**
   * Takes the next picture.
   *
   * @param picture blue, green, red bytes
   * @param large the same, larger, for the detector; null: it does not look at this one
   * @throws what the detector throws
   */
  async next(
    picture: Uint8Array,
    large: { picture: Uint8Array; size: FrameSize } | null
  ): Promise<void> {
    this.frames++
    this.moving.next(picture, this.frames)
    if (large)
      await this.eyes?.next(this.frames, large.picture, large.size, this.moving.tracker.following)
  }

  /** Targets that are in the last picture and go on being followed. */
  get inSight(): Omit<LiveRow, 'frame'>[] {
    return this.moving.tracker.following.flatMap((target) => {
      const given = this.given.get(target)
      if (!given || target.missed > 0) return []
      const { id, class: cls, likelihood } = given
      return [{ id, class: cls, likelihood, ...shareOf(target.rows.at(-1)!, this.size) }]
    })
  }

  /** The detector looks no more. */
  withoutDetector(): void {
    this.eyes = null
  }

  /** What has become known since it was last asked. */
  take(): LiveRow[] {
    const all = [...this.moving.tracker.ended.splice(0), ...this.moving.tracker.following]
    return all.flatMap((target) => this.rowsOf(target))
  }

  /** Ends all targets: the stream was away, and nobody knows who stayed. What of them is not taken yet is still given. */
  endTargets(): void {
    this.moving.endTargets()
  }

  delete(): void {
    this.moving.delete()
  }

  private rowsOf(target: Followed): LiveRow[] {
    const { rows } = target
    let given = this.given.get(target)
    if (!given) {
      if (!isKept(target, this.fps)) {
        this.forgetOld(target)
        return []
      }
      given = { id: ++this.lastId, class: 'unknown', likelihood: 0, rows: 0 }
      this.given.set(target, given)
    }
    if (given.rows >= rows.length) return []
    const classes = classify(rows, this.fps, this.size, target.told)
    const { id, rows: known } = given
    const news = rows.slice(known).map((row, i) => {
      const { cls, likelihood } = classes[known + i]!
      const { frame } = row
      return { frame, id, ...shareOf(row, this.size), class: cls, likelihood }
    })
    const { cls, likelihood } = classes.at(-1)!
    Object.assign(given, { class: cls, likelihood })
    this.forgetOld(target)
    given.rows = rows.length
    return news
  }

  /** Of who stays for hours no more is remembered than the class hangs on. */
  private forgetOld({ rows }: Followed): void {
    rows.splice(0, Math.max(0, rows.length - Math.round(REMEMBERED_SECONDS * this.fps)))
  }
}

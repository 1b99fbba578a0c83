import type { Box } from '../../core/geometry/shapes.ts'
import type { TargetClass } from '../../core/targets/classes.ts'
import type { FrameSize } from '../frames.ts'
import { iou, overlap, type Followed } from '../target.ts'
import type { Looks } from './inWorker.ts'
import { lookAt } from './lookAt.ts'
import type { Detected } from './objects.ts'
import { Open } from './open.ts'
import { squareAround, type Tile } from './tiles.ts'

/** Something that stands where it stood when the clip began, and was never seen to move; in analysed pixels. */
export interface Stander extends Box {
  cls: TargetClass
  /** 0 to 1, the mean of the looks that saw it. */
  likelihood: number
  /** The first and the last frame in which it is known to stand there. */
  from: number
  to: number
}

/** Seconds after which what the first look saw is looked at again, to see whether it stands. */
const CONFIRMED_AFTER = 2
/** Then it is looked at every so many seconds. */
const GAP = 10
/** So likely it must be at first; after that, it need only be seen again in its place. */
const SURE = 0.4
const STILL = 0.3
/** Boxes of one thing in two looks share so much. */
const SAME = 0.5
/** What lies in it by so much is a part of it. */
const PART_WITHIN = 0.75
/** A target that moves covers it, when it covers so much. */
const COVERED = 0.3
/** So many looks in a row must miss it before it is said to be gone: somebody may stand before it. */
const MISSED = 2
/** In one look. */
const TILES = 9

interface Candidate extends Detected {
  from: number
  to: number
  looks: number
  sum: number
  missed: number
  state: 'seen' | 'stands' | 'gone'
}

/** Finds what stands still from the first picture on, which no background can tell. */
export class Standing {
  private readonly looks: Looks
  private readonly analysed: FrameSize
  private readonly open: Open
  private readonly fps: number
  private candidates: Candidate[] = []
  private by = 1
  /** The frame of the next look; 0: none was taken yet. */
  private due = 0

  /** @param analysed size of the pictures in which targets are followed */
  constructor(looks: Looks, fps: number, analysed: FrameSize) {
    this.looks = looks
    this.fps = fps
    this.analysed = analysed
    this.open = new Open(fps)
  }

  /**
   * Looks at the whole first picture, and later at what it saw there. Resolves before the answer is there.
   *
   * @param picture larger than those in which targets are followed (blue, green, red bytes)
   * @throws what the detector throws
   */
  async next(
    frame: number,
    picture: Uint8Array,
    size: FrameSize,
    targets: readonly Followed[]
  ): Promise<void> {
    if (this.due === 0) {
      this.by = size.width / this.analysed.width
      this.due = frame + CONFIRMED_AFTER * this.fps
      for (const squares of wholeOf(size))
        this.open.add(frame, lookAt(this.looks, picture, size, squares), (seen) =>
          this.candidates.push(
            ...seen
              .filter(({ likelihood }) => likelihood >= SURE)
              .map((one) => firstSeen(one, frame))
          )
        )
      return
    }
    if (frame < this.due) return
    this.due = frame + GAP * this.fps
    // What is asked hangs on what the look before has seen, however long that takes.
    await this.open.until(frame)
    const left = this.left(frame)
    if (!left.length) return
    const moving = targets.map(({ box }) => this.large(box))
    const squares = left.map((one) => squareAround(one, size))
    for (let i = 0; i < left.length; i += TILES) {
      const these = left.slice(i, i + TILES)
      this.open.add(
        frame,
        lookAt(this.looks, picture, size, squares.slice(i, i + TILES)),
        (seen) => {
          for (const one of these) look(one, frame, seen, moving)
        }
      )
    }
  }

  /** Those that may stand there still. After the first look, each thing once, and only what was sure. */
  private left(frame: number): Candidate[] {
    if (this.candidates.some(({ state, from }) => state === 'seen' && from < frame))
      this.candidates = this.candidates.filter(
        (one, i, all) =>
          one.state !== 'seen' ||
          !all.some(
            (other, j) =>
              iou(one, other) > SAME / 2 &&
              (other.likelihood > one.likelihood || (other.likelihood === one.likelihood && j < i))
          )
      )
    return this.candidates.filter(({ state }) => state !== 'gone')
  }

  private large({ x, y, w, h }: Box): Box {
    return { x: x * this.by, y: y * this.by, w: w * this.by, h: h * this.by }
  }

  /** Waits for the last answers. @throws what the detector throws */
  async finish(): Promise<void> {
    await this.open.until(Infinity)
  }

  /** Whether something that is seen is one of those that stand, or a part of it. @param seen in the same pixels */
  holds(seen: Detected): boolean {
    return this.candidates.some(
      (one) =>
        one.state === 'stands' &&
        one.cls === seen.cls &&
        (iou(one, seen) >= SAME || overlap(one, seen) >= PART_WITHIN * area(seen))
    )
  }

  /** What stood there, to the end of the clip where one of the last two looks saw it. */
  get found(): Stander[] {
    return this.candidates
      .filter(({ looks }) => looks > 1)
      .map(({ x, y, w, h, cls, from, to, sum, looks, state }) => ({
        ...{ x: x / this.by, y: y / this.by, w: w / this.by, h: h / this.by },
        ...{ cls, likelihood: sum / looks, from },
        to: state === 'stands' ? Infinity : to
      }))
  }
}

/** Looks at the whole picture: once alone, once smaller and beside its parts, since some things are better seen small. */
function wholeOf({ width, height }: FrameSize): Tile['from'][][] {
  const [side, part] = [Math.max(width, height), Math.min(width, height)]
  const whole = { x: (width - side) / 2, y: (height - side) / 2, side }
  const parts = [0, 0.5, 1].map((at) => ({
    x: at * (width - part),
    y: at * (height - part),
    side: part
  }))
  return [[whole], [whole, ...parts]]
}

const firstSeen = (one: Detected, frame: number): Candidate => ({
  ...one,
  ...{ from: frame, to: frame, looks: 1, sum: one.likelihood, missed: 0, state: 'seen' }
})

/** What one more look says of a candidate. */
function look(
  candidate: Candidate,
  frame: number,
  seen: readonly Detected[],
  moving: readonly Box[]
): void {
  const again = seen.find(
    (one) => one.cls === candidate.cls && iou(one, candidate) >= SAME && one.likelihood >= STILL
  )
  const covered = moving.some((box) => overlap(box, candidate) >= COVERED * area(candidate))
  if (candidate.state === 'seen') {
    candidate.state = again && !covered ? 'stands' : 'gone'
    if (candidate.state === 'gone') return
  } else if (covered) return
  if (!again) {
    candidate.missed++
    if (candidate.missed >= MISSED) candidate.state = 'gone'
    return
  }
  candidate.missed = 0
  candidate.to = frame
  candidate.looks++
  candidate.sum += again.likelihood
}

const area = ({ w, h }: Box): number => w * h

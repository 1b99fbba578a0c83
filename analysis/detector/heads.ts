import type { Box } from '../../core/geometry/shapes.ts'
import type { FrameSize } from '../frames.ts'
import type { Followed } from '../target.ts'
import { FACES_SIZE, type SeenFace } from './faces.ts'
import type { Looks } from './inWorker.ts'
import { Budget, Open } from './open.ts'
import { holdsMiddle, layOut, type Tile } from './tiles.ts'

const LOOKS_A_SECOND = 0.5
const SAVED_LOOKS = 3
/** Heads in one look: in a smaller part of the picture, faces are missed. */
const HEADS = 4
/** Smaller figures than this, in pixels of the larger picture, have faces that show no landmarks. */
const LEAST_FIGURE = 180
/** Of a target that is wider than this, as a share of its height, it is not known where the head is. */
const WIDEST = 1.2
/** A head is looked at again after so many seconds. */
const GAP = 1

/**
 * The square in which the face of an upright figure would be: at its top, as wide as its shoulders, since it may be cut
 * off by the picture's edge and be a head with shoulders alone.
 */
function headOf({ x, y, w, h }: Box): Tile['from'] {
  const side = Math.max(0.3 * h, Math.min(0.9 * w, 0.8 * h))
  return { x: x + w / 2 - side / 2, y: y - 0.1 * side, side }
}

/** Decides whose heads are looked at for a face, and gives what is seen to the targets. */
export class Heads {
  private readonly looks: Looks
  private readonly analysed: FrameSize
  private readonly fps: number
  private readonly open: Open
  private readonly budget: Budget
  private readonly asked = new WeakMap<Followed, number>()

  /** @param analysed size of the pictures in which targets are followed */
  constructor(looks: Looks, fps: number, analysed: FrameSize) {
    this.looks = looks
    this.analysed = analysed
    this.fps = fps
    this.open = new Open(fps)
    this.budget = new Budget(LOOKS_A_SECOND, SAVED_LOOKS, fps)
  }

  /**
   * Looks for faces in a frame, if some target in it is large enough. Resolves before the answer is there.
   *
   * @param picture the same frame, larger (blue, green, red bytes); it may be used again afterwards
   * @throws what the detector throws
   */
  async next(
    frame: number,
    picture: Uint8Array,
    size: FrameSize,
    targets: readonly Followed[]
  ): Promise<void> {
    await this.open.until(this.open.knownAt(frame))
    this.budget.at(frame)
    if (this.budget.saved < 1) return
    const by = size.width / this.analysed.width
    const turns = targets
      .filter(({ missed }) => missed === 0)
      .map((target) => ({ target, head: this.headIn(target, by), at: this.asked.get(target) ?? 0 }))
      .filter(({ head, at }) => head && (at === 0 || frame - at >= GAP * this.fps))
      .sort((a, b) => a.at - b.at || b.head!.side - a.head!.side)
      .slice(0, HEADS)
    if (!turns.length) return
    for (const { target } of turns) this.asked.set(target, frame)
    this.budget.saved--
    const tiles = layOut(
      turns.map(({ head }) => head!),
      FACES_SIZE
    )
    this.open.add(frame, this.looks.faces({ picture, size, tiles }), (seen) =>
      turns.forEach(({ target }, i) => {
        const face = seen.find((one) => holdsMiddle(tiles[i]!.from, one))
        target.looked.push({ frame, face: face ? this.scaled(face, 1 / by) : null })
      })
    )
  }

  private headIn(target: Followed, by: number): Tile['from'] | null {
    const { x, y, w, h } = target.rows.at(-1)!
    if (h * by < LEAST_FIGURE || w > WIDEST * h) return null
    return headOf({ x: x * by, y: y * by, w: w * by, h: h * by })
  }

  private scaled({ x, y, w, h, mask }: SeenFace, by: number) {
    return { x: x * by, y: y * by, w: w * by, h: h * by, mask }
  }

  /** Waits for the last answers. @throws what the detector throws */
  async finish(): Promise<void> {
    await this.open.until(Infinity)
  }
}

import { said } from '../../core/messages/said.ts'
import { InputError } from '../../core/errors.ts'
import { PhaseCorrelation, resized } from './phase.ts'
import {
  blockCorrelation,
  edgesOf,
  grayOf,
  halve,
  sharpnessOf,
  shrink,
  type Gray,
  type Luma
} from './pictures.ts'

/** How a picture compares with the reference. */
export interface Comparison {
  /** Sharpness of the picture without its noise: of the mean of the last pictures, at half the size. */
  detail: number
  structure: number
  shapes: number
  /** Shares of the picture's width and height. */
  shiftX: number
  shiftY: number
}

export interface Whole {
  luma: number
  contrast: number
}

/** What the reference's own figures are. */
export interface Before extends Whole {
  detail: number
}

/** The reference is learned over this long, and then follows what changes slowly. */
const LEARNED_SECONDS = 2
const FOLLOWS_SECONDS = 20
/** Rain, snow and noise are gone from a picture that is the mean of about this long. */
const SMOOTHED_SECONDS = 0.4
/** Only a picture that is this like the reference may change it. */
const LIKE = { structure: 0.55, luma: [0.6, 1.6], contrast: 0.6, detail: 0.5 } as const
/** A picture that has kept so much of its structure has not moved; looking for a shift would only cost. */
const UNMOVED = 0.85
/** Phase correlation that answers less than this has found nothing. */
const MIN_RESPONSE = 0.08

const EDGES_EVERY = 10
const PHASE = { width: 128, height: 64 }

/** The picture as it should be: learned while nothing is wrong, following slow light (docs/measures.md). */
export class Reference {
  /** The reference's own figures, as they are after the last picture. */
  before: Before = { luma: 0, contrast: 0, detail: 0 }
  private readonly fps: number
  private readonly smooth: Gray
  private readonly scaled: Gray
  private readonly kept: Gray
  private readonly edges: Gray
  private readonly keptEdges: Gray
  private readonly coarse: Gray
  private readonly coarseEdges: Gray
  private readonly keptCoarse: Gray
  private readonly phase = new PhaseCorrelation(PHASE.width, PHASE.height)
  private readonly forPhase = grayOf(PHASE.width, PHASE.height)
  private phaseIsOld = true
  private frames = 0

  constructor(width: number, height: number, fps: number) {
    this.fps = fps
    const half = (): Gray => grayOf(Math.floor(width / 2), Math.floor(height / 2))
    const eighth = (): Gray =>
      grayOf(Math.max(3, Math.floor(width / 8)), Math.max(3, Math.floor(height / 8)))
    ;[this.smooth, this.scaled, this.kept, this.edges, this.keptEdges] = [
      half(),
      half(),
      half(),
      half(),
      half()
    ]
    ;[this.coarse, this.coarseEdges, this.keptCoarse] = [eighth(), eighth(), eighth()]
  }

  /** Forgets the reference: it is learned again from the next pictures. */
  learnAnew(): void {
    this.frames = 0
  }

  /** Its first pictures, which it is made from, have not all been seen yet. */
  get isLearning(): boolean {
    return this.frames < LEARNED_SECONDS * this.fps
  }

  /**
   * Compares the next picture, and lets the reference follow it if it is like enough.
   *
   * @param learns false: it does not follow this one, which says nothing new @throws InputError for another size
   */
  next(picture: Luma, whole: Whole, learns = true): Comparison {
    const { smooth, scaled, fps } = this
    if (
      Math.floor(picture.width / 2) !== smooth.width ||
      Math.floor(picture.height / 2) !== smooth.height
    )
      throw new InputError(
        'reference',
        said(
          'clips.isOfPixelsAnd',
          smooth.width * 2,
          smooth.height * 2,
          picture.width,
          picture.height
        )
      )
    halve(picture, scaled)
    this.frames++
    const first = this.frames === 1
    const rate = first ? 1 : 1 / Math.max(1, SMOOTHED_SECONDS * fps)
    for (let i = 0; i < smooth.data.length; i++)
      smooth.data[i]! += rate * (scaled.data[i]! - smooth.data[i]!)
    const detail = sharpnessOf(smooth)
    if (this.frames <= LEARNED_SECONDS * fps) {
      // The detail of a mean of few pictures still has their noise in it; the last one counts.
      this.follow(1 / this.frames, scaled, { ...whole, detail })
      this.before.detail = detail
      return { detail, structure: 1, shapes: 1, shiftX: 0, shiftY: 0 }
    }
    edgesOf(smooth, this.edges)
    const structure = blockCorrelation(this.edges, this.keptEdges, 8, 6)
    shrink(smooth, this.coarse)
    edgesOf(this.coarse, this.coarseEdges)
    const shapes = blockCorrelation(this.coarseEdges, this.keptCoarse, 4, 3)
    const { before } = this
    const isLike =
      structure >= LIKE.structure &&
      whole.luma >= LIKE.luma[0] * before.luma - 4 &&
      whole.luma <= LIKE.luma[1] * before.luma + 4 &&
      whole.contrast >= LIKE.contrast * before.contrast &&
      detail >= LIKE.detail * before.detail
    const shift = structure < UNMOVED ? this.shift() : { shiftX: 0, shiftY: 0 }
    if (learns && isLike && shift.shiftX === 0 && shift.shiftY === 0)
      this.follow(1 / (FOLLOWS_SECONDS * fps), smooth, { ...whole, detail })
    return { detail, structure, shapes, ...shift }
  }

  private shift(): { shiftX: number; shiftY: number } {
    if (this.phaseIsOld) {
      this.phase.setReference(resized(this.kept, PHASE.width, PHASE.height, this.forPhase))
      this.phaseIsOld = false
    }
    const { x, y, response } = this.phase.shiftOf(
      resized(this.smooth, PHASE.width, PHASE.height, this.forPhase)
    )
    // Less than a pixel is no shift that could be told from noise.
    return response < MIN_RESPONSE || Math.hypot(x, y) < 1
      ? { shiftX: 0, shiftY: 0 }
      : { shiftX: x / PHASE.width, shiftY: y / PHASE.height }
  }

  private follow(rate: number, picture: Gray, whole: Before): void {
    const { kept, before } = this
    for (let i = 0; i < kept.data.length; i++)
      kept.data[i]! += rate * (picture.data[i]! - kept.data[i]!)
    this.before = {
      luma: before.luma + rate * (whole.luma - before.luma),
      contrast: before.contrast + rate * (whole.contrast - before.contrast),
      detail: before.detail + rate * (whole.detail - before.detail)
    }
    // The reference changes slowly; its edges need not be found again at every picture.
    if (this.frames > LEARNED_SECONDS * this.fps && this.frames % EDGES_EVERY) return
    edgesOf(kept, this.keptEdges)
    shrink(kept, this.coarse)
    edgesOf(this.coarse, this.keptCoarse)
    this.phaseIsOld = true
  }
}

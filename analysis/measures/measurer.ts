import { emptyMeasures, FIGURES, type Grid, type Measures } from '../../core/measures/measures.ts'
import { MotionCells } from './motionCells.ts'
import { emptyLuma, lumaOf, sharpnessOf, spreadOf, type Luma } from './pictures.ts'
import { Reference } from './reference.ts'

/**
 * A picture that differs from the last one by less than this, mean of all pixels in levels of 255, is the last one
 * again: a sensor's noise alone makes more.
 */
const SAME = 0.02

/** Frame measures, picture by picture (docs/measures.md). */
export class Measurer {
  private readonly grid: Grid
  private readonly fps: number
  private luma: Luma
  private last: Luma
  private readonly cells: MotionCells
  private readonly reference: Reference
  private measures: Measures
  private seen = false

  /**
   * @param width, height of the pictures that will be given, in pixels
   * @throws InputError for a grid finer than the picture
   */
  constructor(grid: Grid, width: number, height: number, fps: number) {
    this.grid = grid
    this.fps = fps
    ;[this.luma, this.last] = [emptyLuma(width, height), emptyLuma(width, height)]
    this.cells = new MotionCells(grid, width, height, fps)
    this.reference = new Reference(width, height, fps)
    this.measures = emptyMeasures(grid, width, height, fps, 256)
    this.measures.length = 0
  }

  learnAnew(): void {
    this.reference.learnAnew()
  }

  /** Measures the next picture (blue, green, red bytes); null: none came, and what was last seen stands. */
  next(bgr: Uint8Array | null): void {
    const m = this.room()
    const n = m.length++
    const cells = this.grid.columns * this.grid.rows
    const change = bgr === null ? 0 : this.take(bgr)
    const repeated = bgr !== null && this.seen && change < SAME
    if (bgr === null || (repeated && this.reference.isLearning)) {
      if (n > 0) {
        for (const f of FIGURES) m.figures[f][n] = f === 'change' ? 0 : m.figures[f][n - 1]!
        // Nothing moves in a picture that stands still.
        m.cells.fill(0, n * cells, (n + 1) * cells)
      }
      m.fresh[n] = 0
      return
    }
    this.seen = true
    const picture = this.luma
    const { mean: luma, deviation: contrast } = spreadOf(picture)
    const sharpness = sharpnessOf(picture)
    // A picture that comes again is judged on: what covers the lens may be so even that the encoder repeats it.
    const compared = this.reference.next(picture, { luma, contrast }, !repeated)
    const { before } = this.reference
    const all = {
      luma,
      contrast,
      sharpness,
      ...compared,
      lumaBefore: before.luma,
      contrastBefore: before.contrast,
      detailBefore: before.detail,
      change: repeated ? 0 : change
    }
    for (const f of FIGURES) m.figures[f][n] = all[f]
    if (!repeated) this.cells.next(picture, m.cells.subarray(n * cells, (n + 1) * cells))
    m.fresh[n] = repeated ? 0 : 1
  }

  /** Reads the picture's luma; says by how much it differs from the last one's. */
  private take(bgr: Uint8Array): number {
    ;[this.luma, this.last] = [this.last, this.luma]
    return lumaOf(bgr, this.luma, this.last)
  }

  /** Makes sure that there is room for one more frame. */
  private room(): Measures {
    const { measures: m } = this
    if (m.length < m.fresh.length) return m
    const larger = emptyMeasures(this.grid, m.width, m.height, this.fps, 2 * m.length)
    for (const f of FIGURES) larger.figures[f].set(m.figures[f])
    larger.cells.set(m.cells)
    larger.fresh.set(m.fresh)
    larger.length = m.length
    return (this.measures = larger)
  }

  /** All that has been measured so far. */
  finish(): Measures {
    const { measures: m } = this
    const figures = Object.fromEntries(
      FIGURES.map((f) => [f, m.figures[f].slice(0, m.length)])
    ) as Measures['figures']
    return {
      ...m,
      figures,
      fresh: m.fresh.slice(0, m.length),
      cells: m.cells.slice(0, m.length * this.grid.columns * this.grid.rows)
    }
  }
}

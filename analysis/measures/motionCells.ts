import { CELL_SHARE, checkGrid, type Grid } from '../../core/measures/measures.ts'
import type { Luma } from './pictures.ts'

/** The background is learned over this long. */
const LEARNED_SECONDS = 20

/** What differs from the learned background, cell by cell. */
export class MotionCells {
  private readonly grid: Grid
  private readonly cellOf: Uint16Array
  /** How many pixels must differ for a fifth of each cell. */
  private readonly enough: Uint16Array
  private readonly counts: Uint16Array
  private readonly background: Float32Array
  private readonly learnedFrames: number
  private frames = 0

  /** @throws InputError for a grid finer than the picture */
  constructor(grid: Grid, width: number, height: number, fps: number) {
    checkGrid(grid, width, height)
    this.grid = grid
    this.cellOf = new Uint16Array(width * height)
    const sizes = new Uint32Array(grid.columns * grid.rows)
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        const cell =
          Math.floor((y * grid.rows) / height) * grid.columns +
          Math.floor((x * grid.columns) / width)
        this.cellOf[y * width + x] = cell
        sizes[cell]!++
      }
    this.enough = Uint16Array.from(sizes, (size) =>
      Math.max(1, Math.ceil(CELL_SHARE * size - 1e-9))
    )
    this.counts = new Uint16Array(sizes.length * 256)
    this.background = new Float32Array(width * height)
    this.learnedFrames = Math.max(1, Math.round(LEARNED_SECONDS * fps))
  }

  /** The level of each cell of the next picture, into `levels`. */
  next({ data }: Luma, levels: Uint8Array): void {
    const { background, cellOf, counts, enough } = this
    if (this.frames === 0) background.set(data)
    this.frames++
    const rate = 1 / Math.min(this.frames, this.learnedFrames)
    counts.fill(0)
    for (let i = 0; i < data.length; i++) {
      const difference = data[i]! - background[i]!
      counts[cellOf[i]! * 256 + Math.min(255, Math.abs(difference) | 0)]!++
      background[i]! += rate * difference
    }
    for (let cell = 0; cell < this.grid.columns * this.grid.rows; cell++) {
      let level = 255
      let sum = counts[cell * 256 + 255]!
      while (sum < enough[cell]!) sum += counts[cell * 256 + --level]!
      levels[cell] = level
    }
  }
}

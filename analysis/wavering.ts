import type { Box } from '../core/geometry/shapes.ts'
import type { FrameSize } from './frames.ts'

/** Pixels of a cell's side; about the size of what the wind moves. */
const CELL = 8
/** Onsets are forgotten with this time constant, seconds. */
const REMEMBERED_SECONDS = 20
/** So many onsets that are not forgotten make a place that wavers. */
const ONSETS = 1.35

/**
 * Places where something starts to move again and again: foliage, reeds, water. What is found there has to travel
 * before it is taken for somebody (docs/classification.md).
 */
export class Wavering {
  private readonly columns: number
  private readonly rows: number
  private readonly size: FrameSize
  private readonly score: Float32Array
  private readonly wasOn: Uint8Array
  private readonly fade: number

  constructor(size: FrameSize, fps: number) {
    this.size = size
    this.columns = Math.ceil(size.width / CELL)
    this.rows = Math.ceil(size.height / CELL)
    this.score = new Float32Array(this.columns * this.rows)
    this.wasOn = new Uint8Array(this.columns * this.rows)
    this.fade = Math.exp(-1 / (REMEMBERED_SECONDS * fps))
  }

  /** Takes the moving pixels of the next frame (above 0: moving). */
  next(mask: Uint8Array): void {
    const { columns, rows, size, score, wasOn } = this
    for (let row = 0; row < rows; row++)
      for (let column = 0; column < columns; column++) {
        let on = 0
        const bottom = Math.min(size.height, (row + 1) * CELL)
        const right = Math.min(size.width, (column + 1) * CELL)
        for (let y = row * CELL; y < bottom; y += 2)
          for (let x = column * CELL; x < right; x += 2) if (mask[y * size.width + x]) on++
        const i = row * columns + column
        const isOn = on >= 3 ? 1 : 0
        score[i] = score[i]! * this.fade + (isOn && !wasOn[i] ? 1 : 0)
        wasOn[i] = isOn
      }
  }

  /** Whether at least half of a box is a place that wavers. */
  holds({ x, y, w, h }: Box): boolean {
    const { columns, rows, score } = this
    let wavers = 0
    let all = 0
    for (let row = Math.max(0, Math.floor(y / CELL)); row < Math.min(rows, (y + h) / CELL); row++)
      for (
        let column = Math.max(0, Math.floor(x / CELL));
        column < Math.min(columns, (x + w) / CELL);
        column++
      ) {
        all++
        if (score[row * columns + column]! >= ONSETS) wavers++
      }
    return all > 0 && wavers >= all / 2
  }
}

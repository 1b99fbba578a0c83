import { said } from '../messages/said.ts'
import type { ClassMotionDetection } from './classMotion/schema.ts'
import type { MotionDetection } from './motion/schema.ts'
import { atLeast } from '../geometry/shapes.ts'
import { Delayed } from '../detections/frames.ts'
import type { GateReading, Moment, Sighting } from '../detections/types.ts'

/**
 * The level, of 255, by which a pixel must differ from the learned background to count as changed: 4 at a sensitivity
 * of 100, 24 at 50, 43.6 at 1.
 */
export const motionLevel = (sensitivity: number): number => 4 + 0.4 * (100 - sensitivity)

/** Which of the selected cells are in motion, frame by frame, and for how long there have been enough of them. */
export class CellsInMotion {
  /** Percent of the selected cells. */
  share = 0
  readonly delayed: Delayed
  private readonly detection: MotionDetection | ClassMotionDetection
  private readonly columns: number
  private readonly rows: number
  private readonly selected: number[]
  private readonly level: number
  private readonly moving: Uint8Array

  constructor(detection: MotionDetection | ClassMotionDetection) {
    this.detection = detection
    this.delayed = new Delayed(detection.onDelaySeconds, detection.offDelaySeconds)
    this.rows = detection.cells.length
    this.columns = detection.cells[0]!.length
    this.selected = [...detection.cells.join('')].flatMap((c, i) => (c === '1' ? [i] : []))
    this.level = motionLevel(detection.sensitivity)
    this.moving = new Uint8Array(this.columns * this.rows)
  }

  /** @throws RangeError when the clip was measured on another grid */
  step({ measures, index, time, motionOn }: Moment): void {
    let count = 0
    if (measures) {
      if (measures.columns !== this.columns || measures.rows !== this.rows)
        throw new RangeError(
          `${this.detection.name} has ${this.columns} × ${this.rows} cells, and the clip was measured with ${measures.columns} × ${measures.rows}`
        )
      const at = index * this.moving.length
      for (const cell of this.selected)
        count += this.moving[cell] = motionOn && measures.cells[at + cell]! > this.level ? 1 : 0
    }
    this.share = this.selected.length ? (100 * count) / this.selected.length : 0
    this.delayed.step(atLeast(this.share, this.detection.threshold), time)
  }

  /** Whether a box overlaps a selected cell in motion. */
  overlaps({ x, y, w, h }: Sighting): boolean {
    const { columns, rows } = this
    const [left, right] = [
      Math.max(0, Math.floor(x * columns)),
      Math.min(columns - 1, Math.ceil((x + w) * columns) - 1)
    ]
    const [top, bottom] = [
      Math.max(0, Math.floor(y * rows)),
      Math.min(rows - 1, Math.ceil((y + h) * rows) - 1)
    ]
    for (let row = top; row <= bottom; row++)
      for (let column = left; column <= right; column++)
        if (this.moving[row * columns + column]) return true
    return false
  }

  readings(time: number): GateReading[] {
    const { threshold, onDelaySeconds } = this.detection
    const held = this.delayed.heldFor(time)
    return [
      {
        gate: 'cells',
        passed: atLeast(this.share, threshold),
        measured: said('why.cellsShare', this.share / 100),
        limit: said('why.atLeastShare', threshold / 100),
        value: this.share,
        needed: threshold
      },
      {
        gate: 'delay',
        passed: this.delayed.on,
        measured: said('why.forMeasured', held),
        limit: said('why.forNeeded', onDelaySeconds),
        value: held,
        needed: onDelaySeconds
      }
    ]
  }
}

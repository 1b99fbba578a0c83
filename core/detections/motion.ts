import type { ClassMotionDetection, MotionDetection } from '../formats/plan.ts'
import { atLeast } from '../geometry/shapes.ts'
import { Delayed, OncePerEpisode, type FrameRun, type FrameTrigger } from './frames.ts'
import type { Moment } from './types.ts'
import type { Gates } from './gates.ts'
import type { GateReading, Sighting } from './types.ts'
import { seconds } from './words.ts'

/**
 * The level, of 255, by which a pixel must differ from the learned background to count as changed: 4 at a sensitivity
 * of 100, 24 at 50, 43.6 at 1.
 */
export const motionLevel = (sensitivity: number): number => 4 + 0.4 * (100 - sensitivity)

/** Which of the selected cells are in motion, frame by frame, and for how long there have been enough of them. */
class MotionState {
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
    this.columns = detection.cells[0].length
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
        count += this.moving[cell] = motionOn && measures.cells[at + cell] > this.level ? 1 : 0
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
        measured: `${this.share.toFixed(1)} % of the cells in motion`,
        limit: `at least ${threshold} %`,
        value: this.share,
        needed: threshold
      },
      {
        gate: 'delay',
        passed: this.delayed.on,
        measured: `for ${seconds(held)}`,
        limit: `for ${seconds(onDelaySeconds)}`,
        value: held,
        needed: onDelaySeconds
      }
    ]
  }
}

/** Motion (docs/detections.md): enough of the selected cells in motion for the on-delay. */
export class MotionRun implements FrameRun {
  readonly perFrame = true
  readonly curves
  private readonly state: MotionState
  private readonly gates: Gates
  private readonly once = new OncePerEpisode()
  private time = 0

  constructor(detection: MotionDetection, gates: Gates) {
    this.state = new MotionState(detection)
    this.gates = gates
    this.curves = [{ name: 'Cells in motion', unit: '%', limit: detection.threshold }]
  }

  look(moment: Moment): FrameTrigger | undefined {
    this.time = moment.time
    this.state.step(moment)
    return this.once.step(this.state.delayed.on, () =>
      this.gates.passMoment(moment.time, moment.instant)
    )
      ? {}
      : undefined
  }

  values = (): number[] => [this.state.share]
  isOn = (): boolean => this.state.delayed.on
  readings = (): GateReading[] => this.state.readings(this.time)
}

/** Motion by class (docs/detections.md): motion, and a target of a chosen class on a cell in motion. */
export class ClassMotionRun implements FrameRun {
  readonly perFrame = true
  readonly curves
  private readonly state: MotionState
  private readonly gates: Gates
  private readonly once = new OncePerEpisode()
  private readonly together: Delayed
  private readonly classText: string
  private time = 0
  private found: number | null = null

  constructor(detection: ClassMotionDetection, gates: Gates) {
    this.state = new MotionState(detection)
    this.gates = gates
    this.together = new Delayed(0, detection.offDelaySeconds)
    this.classText = detection.classes.join(' or ') || 'target'
    this.curves = [{ name: 'Cells in motion', unit: '%', limit: detection.threshold }]
  }

  look(moment: Moment): FrameTrigger | undefined {
    const { sightings, count, time, instant } = moment
    this.time = time
    this.state.step(moment)
    this.found = null
    if (this.state.delayed.on)
      for (let k = 0; k < count && this.found === null; k++)
        if (this.gates.passTarget(sightings[k]) && this.state.overlaps(sightings[k]))
          this.found = sightings[k].target
    this.together.step(this.found !== null, time)
    const fires = this.once.step(
      this.together.on,
      () => this.found !== null && this.gates.passMoment(time, instant)
    )
    return fires ? { target: this.found! } : undefined
  }

  values = (): number[] => [this.state.share]
  isOn = (): boolean => this.together.on
  readings(): GateReading[] {
    const found = this.found !== null
    return [
      ...this.state.readings(this.time),
      {
        gate: 'class',
        passed: found,
        measured: found
          ? `target ${this.found} on moving cells`
          : `no ${this.classText} on moving cells`,
        limit: `a ${this.classText}`
      }
    ]
  }
}

import { said } from '../../messages/said.ts'
import { OncePerEpisode, type FrameRun, type FrameTrigger } from '../../detections/frames.ts'
import type { Gates } from '../../detections/gates.ts'
import type { GateReading, Moment } from '../../detections/types.ts'
import { CellsInMotion } from '../cellsInMotion.ts'
import type { MotionDetection } from './schema.ts'

/** Motion (docs/detections.md): enough of the selected cells in motion for the on-delay. */
export class MotionRun implements FrameRun {
  readonly perFrame = true
  readonly curves
  private readonly state: CellsInMotion
  private readonly gates: Gates
  private readonly once = new OncePerEpisode()
  private time = 0

  constructor(detection: MotionDetection, gates: Gates) {
    this.state = new CellsInMotion(detection)
    this.gates = gates
    this.curves = [{ name: said('curves.cells'), unit: '%', limit: detection.threshold }]
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

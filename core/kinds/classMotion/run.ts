import { said, type Said } from '../../messages/said.ts'
import {
  Delayed,
  OncePerEpisode,
  type FrameRun,
  type FrameTrigger
} from '../../detections/frames.ts'
import type { Gates } from '../../detections/gates.ts'
import type { GateReading, Moment } from '../../detections/types.ts'
import { CellsInMotion } from '../cellsInMotion.ts'
import type { ClassMotionDetection } from './schema.ts'

/** Motion by class (docs/detections.md): motion, and a target of a chosen class on a cell in motion. */
export class ClassMotionRun implements FrameRun {
  readonly perFrame = true
  readonly curves
  private readonly state: CellsInMotion
  private readonly gates: Gates
  private readonly once = new OncePerEpisode()
  private readonly together: Delayed
  private readonly classText: Said
  private time = 0
  private found: number | null = null

  constructor(detection: ClassMotionDetection, gates: Gates) {
    this.state = new CellsInMotion(detection)
    this.gates = gates
    this.together = new Delayed(0, detection.offDelaySeconds)
    this.classText = detection.classes.length
      ? said(
          'why.oneOf',
          detection.classes.map((c) => said(`classes.${c}`))
        )
      : said('why.target')
    this.curves = [{ name: said('curves.cells'), unit: '%', limit: detection.threshold }]
  }

  look(moment: Moment): FrameTrigger | undefined {
    const { sightings, count, time, instant } = moment
    this.time = time
    this.state.step(moment)
    this.found = null
    if (this.state.delayed.on)
      for (let k = 0; k < count && this.found === null; k++)
        if (this.gates.passTarget(sightings[k]!) && this.state.overlaps(sightings[k]!))
          this.found = sightings[k]!.target
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
          ? said('why.targetOnCells', this.found!)
          : said('why.noneOnCells', this.classText),
        limit: said('why.aClass', this.classText)
      }
    ]
  }
}

import { said } from '../../messages/said.ts'
import type { SignalLossDetection } from './schema.ts'
import { atLeast } from '../../geometry/shapes.ts'
import { OncePerEpisode, type FrameRun, type FrameTrigger } from '../../detections/frames.ts'
import type { GateReading, Moment } from '../../detections/types.ts'
import type { Gates } from '../../detections/gates.ts'

/** Video loss (docs/detections.md): no new picture for the delay. A frame that was not measured counts as none. */
export class SignalLossRun implements FrameRun {
  readonly perFrame = true
  readonly curves
  private readonly delay: number
  private readonly gates: Gates
  private readonly once = new OncePerEpisode()
  private lastFresh = 0
  private silent = 0

  constructor({ delaySeconds }: SignalLossDetection, gates: Gates) {
    this.delay = delaySeconds
    this.gates = gates
    this.curves = [{ name: said('curves.noPicture'), unit: 's', limit: delaySeconds }]
  }

  look({ measures, index, time, instant }: Moment): FrameTrigger | undefined {
    if (!measures) return undefined
    if (measures.fresh[index]) this.lastFresh = time
    this.silent = time - this.lastFresh
    return this.once.step(this.isOn(), () => this.gates.passMoment(time, instant)) ? {} : undefined
  }

  values = (): number[] => [this.silent]
  isOn = (): boolean => atLeast(this.silent, this.delay)
  readings = (): GateReading[] => [
    {
      gate: 'picture',
      passed: this.isOn(),
      measured: said('why.noNewPicture', this.silent),
      limit: said('why.forNeeded', this.delay),
      value: this.silent,
      needed: this.delay
    }
  ]
}

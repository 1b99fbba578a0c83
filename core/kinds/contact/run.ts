import { said } from '../../messages/said.ts'
import { isSet } from '../../arming/armInputs.ts'
import type { ContactDetection } from './schema.ts'
import {
  Delayed,
  OncePerEpisode,
  type FrameRun,
  type FrameTrigger
} from '../../detections/frames.ts'
import type { GateReading, Moment } from '../../detections/types.ts'
import type { Gates } from '../../detections/gates.ts'

/** Contact input (docs/detections.md): triggers on becoming active, once it has been so for the debounce time. */
export class ContactRun implements FrameRun {
  readonly perFrame = true
  readonly curves = [{ name: said('curves.contact'), unit: '', limit: 1 }]
  private readonly detection: ContactDetection
  private readonly gates: Gates
  private readonly once = new OncePerEpisode()
  private readonly held: Delayed
  private active = false
  private first = true
  private time = 0

  constructor(detection: ContactDetection, gates: Gates) {
    this.detection = detection
    this.gates = gates
    this.held = new Delayed(detection.debounceSeconds, detection.debounceSeconds)
  }

  look({ inputs, time, instant }: Moment): FrameTrigger | undefined {
    const { input, normally } = this.detection
    this.time = time
    this.active = isSet(inputs, input, instant) === (normally === 'open')
    this.held.step(this.active, time)
    // Active from the start is no becoming active.
    const became = this.once.step(
      this.held.on,
      () => this.first || this.gates.passMoment(time, instant)
    )
    const fires = became && !this.first
    this.first &&= this.active
    return fires ? {} : undefined
  }

  values = (): number[] => [this.active ? 1 : 0]
  isOn = (): boolean => this.held.on
  readings(): GateReading[] {
    const { debounceSeconds, normally } = this.detection
    const held = this.held.heldFor(this.time)
    return [
      {
        gate: 'contact',
        passed: this.active,
        measured: this.active ? said('why.active') : said('why.atRest'),
        limit: said('why.activeNormally', said(`why.${normally}`))
      },
      {
        gate: 'delay',
        passed: this.held.on,
        measured: said('why.forMeasured', held),
        limit: said('why.forNeeded', debounceSeconds),
        value: held,
        needed: debounceSeconds
      }
    ]
  }
}

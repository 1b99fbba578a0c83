import type { Said } from '../messages/said.ts'
import type { TamperCause } from '../formats/plan.ts'
import { atLeast } from '../geometry/shapes.ts'
import type { GateReading, Moment } from './types.ts'

/** What a frame triggered, besides the moment. */
export interface FrameTrigger {
  target?: number
  cause?: TamperCause
}

/** A measured curve and the limit that it must reach, or stay below. */
export interface CurveKind {
  name: Said
  unit: string
  limit: number
}

/** What a detection does with frames that looks at the whole picture, or at an input. One instance per run. */
export interface FrameRun {
  readonly perFrame: true
  readonly curves: readonly CurveKind[]
  /** Looks at the next frame; says what triggered. The caller notes the trigger. */
  look(moment: Moment): FrameTrigger | undefined
  /** The curves' values at the frame just looked at. */
  values(): readonly number[]
  /** Whether it is on at the frame just looked at: from the moment at which its condition holds until it has ended. */
  isOn(): boolean
  /** The kind's own gates at the frame just looked at. */
  readings(): GateReading[]
}

/**
 * A state that comes on when a condition has held for the on-delay, and goes off when it has not held for the
 * off-delay. Both are counted from the first frame of the stretch.
 */
export class Delayed {
  on = false
  /** Since when the condition has held without a break, or null. */
  since: number | null = null
  private readonly onDelay: number
  private readonly offDelay: number
  private failingSince: number | null = null

  constructor(onDelay: number, offDelay: number) {
    this.onDelay = onDelay
    this.offDelay = offDelay
  }

  /** Takes the condition at the next moment. Returns whether it has just come on. */
  step(holds: boolean, time: number): boolean {
    if (holds) {
      this.since ??= time
      this.failingSince = null
    } else {
      this.since = null
      this.failingSince ??= time
    }
    if (!this.on && this.since !== null && atLeast(time - this.since, this.onDelay))
      return (this.on = true)
    if (this.on && this.failingSince !== null && atLeast(time - this.failingSince, this.offDelay))
      this.on = false
    return false
  }

  /** For how long the condition has held, seconds. */
  heldFor(time: number): number {
    return this.since === null ? 0 : time - this.since
  }
}

/** One trigger for each time that something is on, at its first frame or as soon as the gates let it through. */
export class OncePerEpisode {
  private fired = false

  /** @param on whether it is on now @param pass asked only where it matters */
  step(on: boolean, pass: () => boolean): boolean {
    if (!on) this.fired = false
    if (!on || this.fired || !pass()) return false
    return (this.fired = true)
  }
}

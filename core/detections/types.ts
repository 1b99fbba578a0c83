import type { Said } from '../messages/said.ts'
import type { ArmInputs } from '../arming/armInputs.ts'
import type { Measures } from '../measures/measures.ts'
import type { DetectionKind, TamperCause } from '../formats/plan.ts'
import type { Face } from '../targets/faces.ts'
import type { Severity } from '../kinds/parts.ts'

export type Direction = 'leftToRight' | 'rightToLeft'

/** A detection triggered, at a moment, for a target (docs/detections.md, *Files*). */
export interface Trigger {
  detection: string
  kind: DetectionKind
  /**
   * The target; of a zone that counts several, the lowest id of `targets`. Kinds that look at whole
   * frames have none.
   */
  target?: number
  /** All targets, ascending, when the zone counts at least N above 1. */
  targets?: number[]
  frame: number
  /** Seconds from the start of the clip. */
  time: number
  /** Only of kinds that have one. */
  direction?: Direction
  /** Of tamper: what was done, and how severe it is. */
  cause?: TamperCause
  severity?: Severity
}

/** The row being looked at, and what is known of its target so far; one object, refilled for every row. */
export interface Sighting {
  target: number
  frame: number
  time: number
  x: number
  y: number
  w: number
  h: number
  /** Index into `CLASSES`. */
  cls: number
  /** Of that class, 0 to 1; 1 also where nothing was said of it. */
  likelihood: number
  /** The instant in milliseconds of UTC. */
  instant: number
  /** The target's face in this frame, where one was seen. */
  face: Face | null
  record: TargetRecord
  /** The zone that was asked last for its share of this row, and that share: several detections may ask the same. */
  zone: object | null
  zoneShare: number
}

/** A target from its first row on; a gap of more than 1.0 s starts another one under the same id. */
export interface TargetRecord {
  lastTime: number
  /** The present class and the time of the row at which the target took it. */
  cls: number
  classSince: number
  /** The box of the row before, and whether there was one. */
  seenBefore: boolean
  px: number
  py: number
  pw: number
  ph: number
  /** What each detection keeps about the target, in the order of the detections. */
  states: unknown[]
}

export type GateName =
  | 'class'
  | 'size'
  | 'ignore'
  | 'confirm'
  | 'direction'
  | 'share'
  | 'dwell'
  | 'together'
  | 'face'
  | 'mask'
  | 'list'
  | 'cells'
  | 'picture'
  | 'contact'
  | 'delay'
  | 'armed'
  | 'holdOff'

/** One rung of the ladder: what a gate measured at a moment, against what. */
export interface GateReading {
  gate: GateName
  passed: boolean
  /** What was measured, and what is needed. */
  measured: Said
  limit: Said
  /** Measured and needed as numbers on one scale, where the gate has one; shares 0 to 1, times in seconds. */
  value?: number
  needed?: number
}

/** What one detection does with the rows of a clip. One instance per run; it keeps what outlives a target. */
export interface KindRun {
  /** What is kept about a target from its first row on. */
  begin(): unknown
  /**
   * Looks at a row. Returns the trigger's direction (null for kinds without one) when it triggers, or undefined.
   * The caller notes the trigger.
   */
  look(state: unknown, sighting: Sighting): Direction | null | undefined
  /** Whether it counts targets together and names them all, when a frame has been looked at, instead of one by one. */
  readonly together?: boolean
  /** The rows of a frame have been looked at; asked when `together`. Returns the targets named when it triggers. */
  endFrame?(moment: Moment): number[] | undefined
  /** The kind's own readings at the row just looked at, for the ladder. */
  readings(state: unknown): GateReading[]
  /**
   * How near the kind's own condition is at the row just looked at: 0 not at all, 1 it holds.
   * Chooses the best moment.
   */
  nearness(state: unknown): number
}

export type { DetectionKind }

/** A frame as the detections see it that look at the picture as a whole. One object, refilled for every frame. */
export interface Moment {
  frame: number
  /** Seconds from the start of the clip, and milliseconds of UTC. */
  time: number
  instant: number
  /** The time of the frame just before this one if that had no target at all; null otherwise. */
  emptyBefore: number | null
  /** The frame's targets: the first `count` of `sightings`. */
  sightings: readonly Sighting[]
  count: number
  /** The clip's measures, and the place of this frame in them; null where it was not measured. */
  measures: Measures | null
  index: number
  inputs: ArmInputs
  /** Whether the device's motion detection is on. */
  motionOn: boolean
}

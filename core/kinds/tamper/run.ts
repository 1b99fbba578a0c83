import { said } from '../../messages/said.ts'
import { TAMPER_CAUSES, type TamperCause, type TamperDetection } from './schema.ts'
import { atLeast } from '../../geometry/shapes.ts'
import type { Measures } from '../../measures/measures.ts'
import {
  Delayed,
  OncePerEpisode,
  type FrameRun,
  type FrameTrigger
} from '../../detections/frames.ts'
import type { GateReading, Moment } from '../../detections/types.ts'
import type { Gates } from '../../detections/gates.ts'

/** How far something has gone from 0 (as in the reference) to 1 (at its limit); above 1 it is beyond. */
const fallen = (value: number, limit: number): number => (1 - value) / (1 - limit)
const risen = (value: number, limit: number): number => value / limit

/**
 * By how much each cause holds: 1 at its limit. A cause with several conditions is as far as the one that is least
 * far. At sensitivity 50: contrast and fine detail below 45 and 30 % of the reference's, structure below 0.3, light below
 * 30 %, 70 % of the way to white, a shift of 3 % of the picture. 100 and 1 move the limits by half as much again.
 */
function degreesAt(
  { figures: f }: Measures,
  n: number,
  sensitivity: number
): Record<TamperCause, number> {
  const m = (sensitivity - 50) / 50
  const ratio = (value: number, before: number): number => (before > 0 ? value / before : 1)
  const contrast = ratio(f.contrast[n]!, f.contrastBefore[n]!)
  const structureLost = fallen(f.structure[n]!, 0.3 + 0.15 * m)
  const kept = (value: number, least: number): number => Math.max(0, value / least)
  const shift = Math.hypot(f.shiftX[n]!, f.shiftY[n]!)
  return {
    covered: Math.min(fallen(contrast, 0.45 + 0.15 * m), structureLost),
    dark: fallen(ratio(f.luma[n]!, f.lumaBefore[n]!), 0.3 + 0.15 * m),
    washedOut: risen(
      Math.max(0, (f.luma[n]! - f.lumaBefore[n]!) / Math.max(1, 255 - f.lumaBefore[n]!)),
      0.7 - 0.2 * m
    ),
    outOfFocus: Math.min(
      fallen(ratio(f.detail[n]!, f.detailBefore[n]!), 0.3 + 0.15 * m),
      kept(f.shapes[n]!, 0.5)
    ),
    moved: Math.max(
      risen(shift, 0.03 - 0.02 * m),
      Math.min(structureLost, fallen(f.shapes[n]!, 0.5), kept(contrast, 0.5))
    )
  }
}

/** Where several causes hold at once, the one that says more is named. */
const byMeaning: TamperCause[] = ['dark', 'washedOut', 'outOfFocus', 'covered', 'moved']

/** Causes that hold in one picture, the one that says more first. @param index of the picture, from 0 */
export function tamperCauses(
  measures: Measures,
  index: number,
  sensitivity: number
): TamperCause[] {
  const degrees = degreesAt(measures, index, sensitivity)
  return byMeaning.filter((cause) => atLeast(degrees[cause], 1))
}

/** Tamper (docs/detections.md): a cause that holds for the delay, named. */
export class TamperRun implements FrameRun {
  readonly perFrame = true
  readonly curves
  private readonly detection: TamperDetection
  private readonly gates: Gates
  private readonly once = new OncePerEpisode()
  private readonly causes: TamperCause[]
  private readonly held: Map<TamperCause, Delayed>
  /** The picture has matched the reference for as long. */
  private readonly clear: Delayed
  private degrees: Record<TamperCause, number> | null = null
  private named: TamperCause | null = null
  private on = false
  private time = 0

  constructor(detection: TamperDetection, gates: Gates) {
    this.detection = detection
    this.gates = gates
    this.causes = TAMPER_CAUSES.filter((cause) => detection.causes.includes(cause))
    this.clear = new Delayed(detection.delaySeconds, 0)
    this.held = new Map(this.causes.map((cause) => [cause, new Delayed(detection.delaySeconds, 0)]))
    this.curves = this.causes.map((cause) => ({
      name: said(`causes.${cause}`),
      unit: '%',
      limit: 100
    }))
  }

  look({ measures, index, time, instant }: Moment): FrameTrigger | undefined {
    this.time = time
    if (!measures) return undefined
    this.degrees = degreesAt(measures, index, this.detection.sensitivity)
    for (const cause of this.causes)
      this.held.get(cause)!.step(atLeast(this.degrees[cause], 1), time)
    const now = byMeaning.find((cause) => this.held.get(cause)?.on)
    if (now && !this.on) {
      this.on = true
      this.named = now
    }
    const matches = this.causes.every((cause) => !atLeast(this.degrees![cause], 1))
    if (this.on) this.clear.step(matches, time)
    if (this.on && this.clear.on) this.on = false
    return this.once.step(this.on, () => this.gates.passMoment(time, instant))
      ? { cause: this.named! }
      : undefined
  }

  values = (): number[] =>
    this.causes.map((cause) => 100 * Math.max(0, Math.min(2, this.degrees?.[cause] ?? 0)))
  isOn = (): boolean => this.on

  readings(): GateReading[] {
    const { degrees } = this
    const worst = this.causes.reduce((a, b) => ((degrees?.[b] ?? 0) > (degrees?.[a] ?? 0) ? b : a))
    const degree = Math.max(0, degrees?.[worst] ?? 0)
    const held = this.held.get(worst)!.heldFor(this.time)
    const { delaySeconds } = this.detection
    return [
      {
        gate: 'picture',
        passed: atLeast(degree, 1),
        measured:
          degree > 0.05
            ? said('why.towards', degree, said(`causes.${worst}`))
            : said('why.asReference'),
        limit: said('why.atLimit'),
        value: degree,
        needed: 1
      },
      {
        gate: 'delay',
        passed: this.on || atLeast(held, delaySeconds),
        measured: said('why.forMeasured', held),
        limit: said('why.forNeeded', delaySeconds),
        value: held,
        needed: delaySeconds
      }
    ]
  }
}

import { said, type Said } from '../messages/said.ts'
import type { GateName } from '../detections/index.ts'
import type { Detection, Schedule } from '../formats/plan.ts'

/** What changes to a single gate are looked for with. */

/** A change to a single gate that would let a target through, or keep it out. */
export interface GateChange {
  gate: GateName
  /** What changes: from what to what. */
  words: Said
  /** The detection as it would be; where its hours change, the schedule besides. */
  detection: Detection
  schedule?: Schedule
  /**
   * How large the change is: 0 none, 1 as much again as the setting was, or the setting given up.
   * Orders the proposals.
   */
  size: number
}

/** The widest that settings on a scale may be asked to go (core/kinds/schemas.ts). */
export const LONGEST = { dwell: 3600, confirm: 60, holdOff: 86400 }
export const STEP_SECONDS = 0.1

export type Works = (changed: Detection, schedule?: Schedule) => boolean
export const relative = (from: number, to: number): number =>
  Math.abs(to - from) / Math.max(from, 1)

/**
 * The value nearest to a present one, towards a bound, at which something works; in steps. It is looked for by doubling
 * strides and halving, as a setting that helped rarely stops helping farther on; what is found does work.
 */
export function nearest(
  from: number,
  bound: number,
  step: number,
  works: (value: number) => boolean
): number | null {
  const sign = Math.sign(bound - from)
  const most = Math.floor(Math.abs(bound - from) / step + 1e-9)
  if (sign === 0 || most < 1) return null
  const value = (n: number): number => Math.round((from + sign * n * step) * 1000) / 1000
  let low = 0
  let high = 1
  while (!works(value(high))) {
    low = high
    if (high === most) return null
    high = Math.min(most, high * 2)
  }
  while (high - low > 1) {
    const middle = (low + high) >> 1
    if (works(value(middle))) high = middle
    else low = middle
  }
  return value(high)
}

type Frame = { w: number; h: number }
export const scaled = ({ w, h }: Frame, by: number): Frame => ({
  w: Math.min(1, Math.round(w * by * 1e4) / 1e4),
  h: Math.min(1, Math.round(h * by * 1e4) / 1e4)
})
export const frameOf = ({ w, h }: Frame): Said => said('values.frame', w, h)

/** The nearest sensitivity that works: a larger or smaller share of the body. */
export function* sensitivityChange<D extends Extract<Detection, { sensitivity: number }>>(
  d: D,
  looser: boolean,
  works: Works
): Generator<GateChange> {
  const at = (sensitivity: number): Detection => ({ ...d, sensitivity })
  const to = nearest(d.sensitivity, looser ? 100 : 1, 1, (sensitivity) => works(at(sensitivity)))
  if (to !== null)
    yield {
      gate: 'share',
      words: said(
        'tuning.change',
        said('settings.sensitivity'),
        said('values.number', d.sensitivity),
        said('values.number', to)
      ),
      detection: at(to),
      size: Math.abs(to - d.sensitivity) / d.sensitivity
    }
}

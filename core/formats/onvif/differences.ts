import { secondsOf } from './durations.ts'
import type { Rule } from './rule.ts'

/** One setting that differs between the plan and the device, in words. */
export interface Difference {
  setting: string
  plan: string
  device: string
}

/** What a rule's parameters mean to people. */
const settingNames: Record<string, string> = {
  Sensitivity: 'sensitivity',
  ClassFilter: 'classes',
  Direction: 'direction',
  TimeThreshold: 'dwell',
  ConfirmTime: 'confirm time',
  MinCount: 'cells that must move',
  AlarmOnDelay: 'on-delay',
  AlarmOffDelay: 'off-delay',
  ActiveCells: 'cells',
  DelayTime: 'delay',
  Hours: 'arming hours',
  Causes: 'causes',
  Mask: 'mask',
  MinimumSize: 'smallest frame',
  MaximumSize: 'largest frame',
  FaceSize: 'smallest face frame'
}

/** Devices keep coordinates to some decimals only. */
const SAME_PLACE = 0.002

/** Settings in which a device's rule is not what it should be; empty: it is the same. */
export function differencesOf(wanted: Rule, held: Rule): Difference[] {
  const found: Difference[] = []
  if (wanted.type !== held.type)
    found.push({ setting: 'kind', plan: wanted.type, device: held.type })
  for (const key of new Set([...Object.keys(wanted.simple), ...Object.keys(held.simple)])) {
    const [a, b] = [wanted.simple[key], held.simple[key]]
    if (a !== b && !sameNumber(a, b))
      found.push({ setting: settingNames[key] ?? key, plan: shown(key, a), device: shown(key, b) })
  }
  const same =
    wanted.points.length === held.points.length &&
    wanted.points.every(
      ([x, y], i) =>
        Math.abs(x - held.points[i]![0]) <= SAME_PLACE &&
        Math.abs(y - held.points[i]![1]) <= SAME_PLACE
    )
  if (!same)
    found.push({
      setting: 'shape',
      plan: `${wanted.points.length} vertices`,
      device:
        held.points.length === wanted.points.length
          ? 'the same number, elsewhere'
          : `${held.points.length} vertices`
    })
  return found
}

const sameNumber = (a: string | undefined, b: string | undefined): boolean => {
  const read = (text: string | undefined): number =>
    text === undefined ? NaN : Number(text.replace(/^PT|S$/g, ''))
  return Math.abs(read(a) - read(b)) < 1e-6
}

const shown = (key: string, value: string | undefined): string => {
  if (value === undefined) return 'not set'
  if (key === 'ActiveCells') return 'a pattern of cells'
  if (/^PT[\d.]+S$/.test(value)) return `${secondsOf(value)} s`
  return value
}

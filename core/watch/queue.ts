import type { AlarmView } from '../api.ts'
import { SEVERITIES, type Severity } from '../kinds/parts.ts'

/** Which alarms a queue shows, and how many of one detection in a row stand as one. */

export interface AlarmFilter {
  /** Ids; none: all. */
  cameras: string[]
  lowest: Severity
  /** Without those that are closed. */
  openOnly: boolean
}

export const NO_FILTER: AlarmFilter = { cameras: [], lowest: SEVERITIES[0], openOnly: false }

type Filtered = Pick<AlarmView, 'camera' | 'severity' | 'state'>

export const passes = ({ cameras, lowest, openOnly }: AlarmFilter, alarm: Filtered): boolean =>
  (cameras.length === 0 || cameras.includes(alarm.camera)) &&
  SEVERITIES.indexOf(alarm.severity) >= SEVERITIES.indexOf(lowest) &&
  !(openOnly && alarm.state === 'closed')

/** A filter as a browser kept it; whatever is not understood lets all through. @param text JSON; null: none was kept */
export function readFilter(text: string | null): AlarmFilter {
  try {
    const { cameras, lowest, openOnly } = JSON.parse(text ?? '{}') as Partial<AlarmFilter>
    return {
      cameras: Array.isArray(cameras) ? cameras.filter((c) => typeof c === 'string') : [],
      lowest: SEVERITIES.find((s) => s === lowest) ?? NO_FILTER.lowest,
      openOnly: openOnly === true
    }
  } catch {
    return NO_FILTER
  }
}

type Grouped = Pick<AlarmView, 'camera' | 'detection' | 'state' | 'run'>

/**
 * Alarms that stand next to each other and are of one detection, in one state, as one group.
 * @param alarms in the order in which they are shown @returns the same order; no group is empty
 */
export function groupAlarms<A extends Grouped>(alarms: readonly A[]): [A, ...A[]][] {
  const groups: [A, ...A[]][] = []
  for (const alarm of alarms) {
    const group = groups.at(-1)
    const alike =
      group &&
      (['camera', 'detection', 'state', 'run'] as const).every((k) => group[0][k] === alarm[k])
    if (alike) group.push(alarm)
    else groups.push([alarm])
  }
  return groups
}

import type { Said } from '../messages/said.ts'
import { severityOf } from '../kinds/schemas.ts'
import { shareOf, type SiteHours } from '../arming/coverage.ts'
import type { Actions, Endpoint } from '../formats/actions.ts'
import type { Detection } from '../formats/plan.ts'
import { severityBelow } from './plan.ts'

/** A cell of the matrix: a detection and an action. */
export interface Crossing {
  linked: boolean
  /** The share of the armed hours in which it can act, over the year ahead; null: the detection is never armed. */
  share: number | null
  /** Why it never acts, whatever the hours; null: it can. */
  never: Said | null
}

/** @param missing why the endpoint cannot act as it stands */
export function crossingOf(
  detection: Detection,
  actions: Actions,
  endpoint: Endpoint,
  missing: Said | null,
  hours: SiteHours
): Crossing {
  const linked = actions.links.includes(endpoint.id)
  const never = missing ?? severityBelow(endpoint, severityOf(detection, actions.severity))
  return {
    linked,
    share: never ? 0 : shareOf(hours.coverage(detection.schedule, endpoint.schedule)),
    never
  }
}

/** A share in whole percent that never says 0 or 100 for what is not quite that. */
export const sharePercent = (share: number): number =>
  share <= 0 ? 0 : share >= 1 ? 100 : Math.min(99, Math.max(1, Math.round(share * 100)))

/** All of a rectangle of crossings, between two of its corners. */
export function block<R, C>(
  rows: readonly R[],
  columns: readonly C[],
  a: [number, number],
  b: [number, number]
): { row: R; column: C }[] {
  const [r0, r1] = [Math.min(a[0], b[0]), Math.max(a[0], b[0])]
  const [c0, c1] = [Math.min(a[1], b[1]), Math.max(a[1], b[1])]
  return rows
    .slice(r0, r1 + 1)
    .flatMap((row) => columns.slice(c0, c1 + 1).map((column) => ({ row, column })))
}

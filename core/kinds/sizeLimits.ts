import { said, type Said } from '../messages/said.ts'
import type { TargetGated } from '../formats/plan.ts'

/** What a size asks for, limit by limit; none: any size passes. */
export function sizeLimits({
  min,
  max,
  minMetres,
  maxMetres
}: NonNullable<TargetGated['size']>): Said[] {
  const limits: Said[] = []
  if (min) limits.push(said('values.largerThan', min.w, min.h))
  if (max) limits.push(said('values.atMost', max.w, max.h))
  if (minMetres !== undefined) limits.push(said('values.atLeastMetres', minMetres))
  if (maxMetres !== undefined) limits.push(said('values.atMostMetres', maxMetres))
  return limits
}

import { DetectionSchema, hasField, type ZoneDetection } from '../../core/kinds/schemas.ts'
import { parseWith } from '../../core/schema/parse.ts'
import { KINDS, wordsOf } from '../../core/kinds/names.ts'

export const ZONE_KINDS = KINDS.filter((kind): kind is ZoneDetection['kind'] =>
  hasField(kind, 'zone')
)

/** The same zone as another kind: what both have stays, the rest gets its usual value. */
export function asZoneKind(d: ZoneDetection, kind: ZoneDetection['kind']): ZoneDetection {
  const {
    id,
    name,
    enabled,
    parked,
    holdOffSeconds,
    schedule,
    armInput,
    note,
    classes,
    confirmSeconds,
    size,
    sensitivity,
    zone
  } = d
  const both = {
    id,
    name,
    enabled,
    holdOffSeconds,
    classes,
    confirmSeconds,
    sensitivity,
    zone,
    kind,
    ...(parked !== undefined && { parked }),
    ...(schedule && { schedule }),
    ...(armInput && { armInput }),
    ...(note && { note }),
    ...(size && { size })
  }
  const start = wordsOf(kind).start.settings?.([])
  // From one stay to another the dwell is kept; lingering takes at least a second.
  const stays = 'dwellSeconds' in d &&
    hasField(kind, 'dwellSeconds') && {
      countFirstSeenInside: d.countFirstSeenInside,
      atLeast: d.atLeast,
      dwellSeconds: Math.max(1, d.dwellSeconds)
    }
  return parseWith(DetectionSchema, { ...both, ...start, ...stays }) as ZoneDetection
}

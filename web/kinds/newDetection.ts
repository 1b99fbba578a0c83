import type { SiteInput } from '../../core/api.ts'
import type { Detection, DetectionKind, ShapeDetection } from '../../core/formats/plan.ts'
import type { Point } from '../../core/geometry/shapes.ts'
import { DetectionSchema, hasField } from '../../core/kinds/schemas.ts'
import { parseWith } from '../../core/schema/parse.ts'
import { freeName } from '../bench/rail/freeName.ts'
import { newId } from '../sync/newId.ts'
import { KINDS, wordsOf } from '../../core/kinds/names.ts'

/** Those that have their names already. */
type Named = { detection: { name: string } }
type ShapedKind = ShapeDetection['kind']
export type UndrawnKind = Exclude<DetectionKind, ShapedKind>

/** Kinds that need no shape to be drawn first, in the order of the menu. */
export const UNDRAWN_KINDS = KINDS.filter(
  (kind): kind is UndrawnKind => !hasField(kind, 'line') && !hasField(kind, 'zone')
)

/** A detection of a kind with settings that are sensible to start from, and a name that is free. */
export function newDetection(
  kind: UndrawnKind,
  placed: readonly Named[],
  inputs: readonly SiteInput[]
): Detection {
  const { start } = wordsOf(kind)
  return parseWith(DetectionSchema, {
    id: newId(kind),
    name: freeName(start.name, placed),
    kind,
    ...start.settings?.(inputs)
  })
}

/** A detection of a shape that was just drawn, for persons, with a name that is free. */
export function newDrawn(
  kind: ShapedKind,
  points: readonly Point[],
  placed: readonly Named[]
): Detection {
  const taken = new Set(placed.map((p) => p.detection.name))
  const { name, settings } = wordsOf(kind).start
  let n = 1
  while (taken.has(`${name} ${n}`)) n++
  return parseWith(DetectionSchema, {
    id: newId(name.toLowerCase()),
    name: `${name} ${n}`,
    kind,
    [hasField(kind, 'line') ? 'line' : 'zone']: points,
    classes: ['person'],
    ...settings?.([])
  })
}

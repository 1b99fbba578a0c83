import type { SiteInput } from '../../../core/api.ts'
import type { Point } from '../../../core/geometry/shapes.ts'
import { DetectionSchema, type Detection, type DetectionKind } from '../../../core/formats/plan.ts'
import type { Placed } from '../document.ts'
import { newId } from '../../kept/newId.ts'
import type { DrawnKind } from '../picture/shape.ts'
import { parseWith } from '../../../core/schema/parse.ts'

/** Kinds that need no shape to be drawn first, in the order of the menu. */
export const UNDRAWN_KINDS = [
  'motion',
  'classMotion',
  'tamper',
  'signalLoss',
  'contact',
  'face'
] as const satisfies readonly DetectionKind[]

const names: Record<(typeof UNDRAWN_KINDS)[number], string> = {
  motion: 'All movement',
  classMotion: 'People moving',
  tamper: 'Camera care',
  signalLoss: 'Picture lost',
  contact: 'Contact',
  face: 'Face'
}

/** A detection of a kind with settings that are sensible to start from, and a name that is free. */
export function newDetection(
  kind: (typeof UNDRAWN_KINDS)[number],
  placed: Placed[],
  inputs: readonly SiteInput[]
): Detection {
  const taken = new Set(placed.map((p) => p.detection.name))
  let name = names[kind]
  for (let n = 2; taken.has(name); n++) name = `${names[kind]} ${n}`
  const own: Partial<Record<DetectionKind, object>> = {
    classMotion: { classes: ['person'], confirmSeconds: 0.3 },
    contact: { input: inputs[0]?.id ?? 'input' },
    motion: { holdOffSeconds: 5 },
    face: { classes: ['person'] }
  }
  return parseWith(DetectionSchema, { id: newId(kind), name, kind, ...own[kind] })
}

type ShapedKind = Exclude<DrawnKind, 'ignore'>

const drawn: Record<ShapedKind, { name: string; settings: object }> = {
  line: { name: 'Line', settings: {} },
  // Long enough that one who only passes is not meant; the clip's own passers-by are shown beside it.
  intrusion: { name: 'Zone', settings: { dwellSeconds: 3 } },
  loitering: { name: 'Zone', settings: { dwellSeconds: 30 } },
  entry: { name: 'Zone', settings: {} },
  exit: { name: 'Zone', settings: {} }
}

/** A detection of a shape that was just drawn, for persons, with a name that is free. */
export function newDrawn(kind: ShapedKind, points: readonly Point[], placed: Placed[]): Detection {
  const taken = new Set(placed.map((p) => p.detection.name))
  const { name, settings } = drawn[kind]
  let n = 1
  while (taken.has(`${name} ${n}`)) n++
  return parseWith(DetectionSchema, {
    id: newId(name.toLowerCase()),
    name: `${name} ${n}`,
    kind,
    [kind === 'line' ? 'line' : 'zone']: points,
    classes: ['person'],
    ...settings
  })
}

import { CLASSES } from '../../targets/classes.ts'
import { USUAL_GRID } from '../../measures/measures.ts'
import { DetectionSchema, type Detection } from '../plan.ts'
import { kindOfType, ruleOf } from '../../kinds/rules.ts'
import { fromScale, toScale, type Rule, type RuleAbility } from './rule.ts'
import { readActiveCells } from './activeCells.ts'
import { fromStandard } from './coordinates.ts'
import { secondsOf } from './durations.ts'
import { classNames, sizeOf } from './parameters.ts'
import { parseWith } from '../../schema/parse.ts'

/** A device's rule imported into a detection: what the rule says replaces, the rest stays. */
export function takeOver(d: Detection, held: Rule, abilities: readonly RuleAbility[]): Detection {
  const ranges = abilities.find((a) => a.type === held.type)?.ranges ?? {}
  const { simple } = held
  const changed: Record<string, unknown> = { ...d }
  const seconds = (parameter: string, field: string): void => {
    if (simple[parameter] !== undefined) changed[field] = secondsOf(simple[parameter])
  }
  if (
    simple.Sensitivity !== undefined &&
    ranges.Sensitivity &&
    'sensitivity' in d &&
    String(toScale(d.sensitivity, ranges.Sensitivity)) !== simple.Sensitivity
  )
    changed.sensitivity = fromScale(Number(simple.Sensitivity), ranges.Sensitivity)
  if ('classes' in d) {
    const filter = simple.ClassFilter?.split(/\s+/)
    if (filter)
      changed.classes = CLASSES.filter((c) => c !== 'unknown' && filter.includes(classNames[c]))
    seconds('ConfirmTime', 'confirmSeconds')
    const [min, max] = [simple.MinimumSize, simple.MaximumSize].map((text) =>
      text === undefined ? null : sizeOf(text)
    )
    if (min ?? max) changed.size = { ...d.size, ...(min && { min }), ...(max && { max }) }
  }
  seconds('HoldOff', 'holdOffSeconds')
  const own = ruleOf(d.kind)?.read(d, {
    simple,
    points: held.points.map(fromStandard),
    seconds: (parameter, field) =>
      simple[parameter] === undefined
        ? {}
        : ({ [field]: secondsOf(simple[parameter]) } as Record<typeof field, number>)
  })
  return { ...changed, ...own } as Detection
}

/** Whether a rule has been left with no cell at all: it is parked, and never triggers. */
export const hasNoCell = ({ simple }: Rule): boolean =>
  simple.ActiveCells !== undefined &&
  !readActiveCells(simple.ActiveCells, USUAL_GRID).some((row) => row.includes('1'))

/**
 * A device's rule as a detection of its own: what the engine computes for it.
 *
 * @returns null for a type that no kind has
 * @throws InputError when the rule says what no detection may be
 */
export function detectionOf(rule: Rule, abilities: readonly RuleAbility[]): Detection | null {
  const kind = kindOfType(rule.type)
  if (!kind) return null
  const id = rule.name.replace(/[^A-Za-z0-9_-]/g, '-').slice(0, 64)
  const bare = parseWith(DetectionSchema, {
    id,
    name: rule.name.slice(0, 80),
    kind,
    ...ruleOf(kind)?.blank
  })
  if (hasNoCell(rule)) {
    const simple = Object.fromEntries(
      Object.entries(rule.simple).filter(([name]) => name !== 'ActiveCells')
    )
    return { ...takeOver(bare, { ...rule, simple }, abilities), parked: true }
  }
  return parseWith(DetectionSchema, takeOver(bare, rule, abilities))
}

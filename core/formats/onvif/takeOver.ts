import { CLASSES } from '../../targets/classes.ts'
import { USUAL_GRID } from '../../measures/measures.ts'
import {
  DetectionSchema,
  TAMPER_CAUSES,
  allCells,
  parseWith,
  type Detection,
  type DetectionKind
} from '../plan.ts'
import { fromScale, kindOfType, toScale, type RuleAbility } from './abilities.ts'
import { readActiveCells } from './activeCells.ts'
import { fromStandard } from './coordinates.ts'
import { secondsOf } from './durations.ts'
import { classNames, directions, sizeOf } from './parameters.ts'
import type { Rule } from './rules.ts'

/** A device's rule taken over into a detection: what the rule says replaces, the rest stays. */
export function takeOver(d: Detection, held: Rule, abilities: readonly RuleAbility[]): Detection {
  const ranges = abilities.find((a) => a.type === held.type)?.ranges ?? {}
  const { simple } = held
  const points = held.points.map(fromStandard)
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
    if (simple.ClassFilter !== undefined)
      changed.classes = CLASSES.filter(
        (c) => c !== 'unknown' && simple.ClassFilter.split(/\s+/).includes(classNames[c])
      )
    seconds('ConfirmTime', 'confirmSeconds')
    const [min, max] = [simple.MinimumSize, simple.MaximumSize].map((text) =>
      text === undefined ? null : sizeOf(text)
    )
    if (min ?? max) changed.size = { ...d.size, ...(min && { min }), ...(max && { max }) }
  }
  seconds('HoldOff', 'holdOffSeconds')
  if (d.kind === 'line') {
    if (points.length) changed.line = points
    const direction = Object.entries(directions).find(([, name]) => name === simple.Direction)?.[0]
    if (direction) changed.direction = direction
  } else if ('zone' in d) {
    if (points.length) changed.zone = points
    if (d.kind === 'intrusion' || d.kind === 'loitering') seconds('TimeThreshold', 'dwellSeconds')
    if (d.kind === 'loitering') seconds('GraceTime', 'graceSeconds')
  } else if ('cells' in d) {
    if (simple.ActiveCells !== undefined)
      changed.cells = readActiveCells(simple.ActiveCells, {
        columns: d.cells[0].length,
        rows: d.cells.length
      })
    const selected = (changed.cells as string[]).join('').replace(/0/g, '').length
    // A count of cells comes from many thresholds; one that gives the same count stays.
    const count = Number(simple.MinCount)
    if (
      count > 0 &&
      selected > 0 &&
      Math.max(1, Math.ceil((d.threshold / 100) * selected - 1e-9)) !== count
    )
      changed.threshold = Math.min(100, Math.max(0.1, Math.round((count / selected) * 1e4) / 100))
    if (simple.AlarmOnDelay !== undefined)
      changed.onDelaySeconds = Number(simple.AlarmOnDelay) / 1000
    if (simple.AlarmOffDelay !== undefined)
      changed.offDelaySeconds = Number(simple.AlarmOffDelay) / 1000
  } else if (d.kind === 'tamper') {
    seconds('DelayTime', 'delaySeconds')
    const causes = TAMPER_CAUSES.filter((cause) => simple.Causes?.split(/\s+/).includes(cause))
    if (causes.length) changed.causes = causes
  } else if (d.kind === 'face') {
    if (simple.Mask !== undefined) changed.mask = simple.Mask
    const faceMin = simple.FaceSize === undefined ? null : sizeOf(simple.FaceSize)
    if (faceMin) changed.faceMin = faceMin
  }
  return changed as Detection
}

const triangle = [
  [0.1, 0.1],
  [0.9, 0.1],
  [0.9, 0.9]
]
const blank: Partial<Record<DetectionKind, object>> = {
  line: {
    line: [
      [0.1, 0.5],
      [0.9, 0.5]
    ]
  },
  intrusion: { zone: triangle },
  entry: { zone: triangle },
  exit: { zone: triangle },
  loitering: { zone: triangle, dwellSeconds: 1 },
  motion: { cells: allCells() },
  classMotion: { cells: allCells() }
}

/** Whether a rule has been left with no cell at all: it is parked, and never fires. */
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
    ...blank[kind]
  })
  if (hasNoCell(rule)) {
    const simple = Object.fromEntries(
      Object.entries(rule.simple).filter(([name]) => name !== 'ActiveCells')
    )
    return { ...takeOver(bare, { ...rule, simple }, abilities), parked: true }
  }
  return parseWith(DetectionSchema, takeOver(bare, rule, abilities))
}

import { InputError } from '../../errors.ts'
import type { Point } from '../../geometry/shapes.ts'
import { CLASSES, type TargetClass } from '../../targets/classes.ts'
import type { Detection, DetectionKind } from '../plan.ts'
import { readActiveCells, writeActiveCells } from './activeCells.ts'
import { fromStandard, toStandard } from './coordinates.ts'
import { child, children, xml, type Element } from './xml.ts'

/** A rule as a device holds it. Source: ONVIF Analytics Service Specification, Config (from memory). */
export interface Rule {
  name: string
  type: string
  simple: Readonly<Record<string, string>>
  /** The polyline or polygon, in the standard's coordinates. */
  points: readonly Point[]
}

export const RULE_TYPES: Partial<Record<DetectionKind, string>> = {
  line: 'tt:LineDetector',
  intrusion: 'tt:FieldDetector',
  loitering: 'tt:LoiteringDetector',
  motion: 'tt:CellMotionDetector',
  tamper: 'tt:TamperDetector'
}

export interface Range {
  min: number
  max: number
}

/** What a device can do with one type of rule: as it says in its supported rules and their options. */
export interface RuleAbility {
  type: string
  /** How many of it at most; null: it does not say. */
  most: number | null
  /** Parameters that it takes, by name. */
  parameters: readonly string[]
  /** Ranges of those that are numbers. */
  ranges: Readonly<Record<string, Range>>
}

/** A setting that the device cannot hold as it is wanted. */
export interface Loss {
  setting: string
  wanted: string
  /** What it would be on the device; null: it cannot be held at all. */
  nearest: string | null
}

/** The standard's names of classes (from memory). */
const classNames: Record<Exclude<TargetClass, 'unknown'>, string> = { person: 'Human', vehicle: 'Vehicle', cycle: 'Bicycle', animal: 'Animal' }

/** A share of 1 to 100 on a device's scale, and back: the step that is nearest. */
export const toScale = (sensitivity: number, { min, max }: Range): number => Math.min(max, Math.max(min, Math.round(min + ((sensitivity - 1) / 99) * (max - min))))
export const fromScale = (value: number, { min, max }: Range): number => (max > min ? Math.round(1 + ((value - min) / (max - min)) * 99) : 50)

const directions = { leftToRight: 'Right', rightToLeft: 'Left', both: 'Any' } as const
const duration = (seconds: number): string => `PT${seconds}S`
const secondsOf = (text: string): number => {
  const m = /^(?:PT)?(\d+(?:\.\d+)?)S?$/.exec(text)
  if (!m) throw new InputError('a duration', `is "${text.slice(0, 20)}"; must be such as PT5S`)
  return Number(m[1])
}

/**
 * A detection in a device's terms, and what is lost on the way: settings that it has no parameter for, values that its
 * scale does not have.
 *
 * @returns null when the device has no rule of that type
 */
export function toRule(d: Detection, abilities: readonly RuleAbility[]): { rule: Rule; losses: Loss[] } | null {
  const ability = abilities.find((a) => a.type === RULE_TYPES[d.kind])
  if (!ability) return null
  const simple: Record<string, string> = {}
  const losses: Loss[] = []
  const takes = (parameter: string): boolean => ability.parameters.includes(parameter)
  /** A number within the device's range, in whole steps if it says so. */
  const number = (parameter: string, setting: string, wanted: number, unit: string, write: (held: number) => string = String): void => {
    if (!takes(parameter)) {
      losses.push({ setting, wanted: `${wanted}${unit}`, nearest: null })
      return
    }
    const range = ability.ranges[parameter] ?? { min: -Infinity, max: Infinity }
    const held = Math.min(range.max, Math.max(range.min, wanted))
    if (held !== wanted) losses.push({ setting, wanted: `${wanted}${unit}`, nearest: `${held}${unit}` })
    simple[parameter] = write(held)
  }
  if ('sensitivity' in d) {
    const range = ability.ranges.Sensitivity
    if (!takes('Sensitivity') || !range) {
      if (d.sensitivity !== 50) losses.push({ setting: 'sensitivity', wanted: String(d.sensitivity), nearest: null })
    } else {
      const step = toScale(d.sensitivity, range)
      const back = fromScale(step, range)
      if (Math.abs(back - d.sensitivity) >= 1) losses.push({ setting: 'sensitivity', wanted: String(d.sensitivity), nearest: `${back} (step ${step} of ${range.min} to ${range.max})` })
      simple.Sensitivity = String(step)
    }
  }
  if ('classes' in d && d.classes.length) {
    const names = d.classes.flatMap((c) => (c === 'unknown' ? [] : [classNames[c]]))
    if (takes('ClassFilter')) simple.ClassFilter = names.join(' ')
    else losses.push({ setting: 'classes', wanted: d.classes.join(', '), nearest: 'every class' })
  }
  if ('confirmSeconds' in d && d.confirmSeconds > 0) number('ConfirmTime', 'confirm time', d.confirmSeconds, ' s', duration)
  let points: readonly Point[] = []
  if (d.kind === 'line') {
    points = d.line
    simple.Direction = directions[d.direction]
  } else if (d.kind === 'intrusion' || d.kind === 'loitering') {
    points = d.zone
    if (d.kind === 'loitering' || d.dwellSeconds > 0) number('TimeThreshold', 'dwell', d.dwellSeconds, ' s', duration)
    if (d.atLeast > 1) losses.push({ setting: 'number together', wanted: String(d.atLeast), nearest: '1' })
  } else if (d.kind === 'motion') {
    const selected = d.cells.join('').replace(/0/g, '').length
    number('MinCount', 'share of the cells', Math.max(1, Math.ceil((d.threshold / 100) * selected - 1e-9)), ' cells')
    number('AlarmOnDelay', 'on-delay', d.onDelaySeconds * 1000, ' ms')
    number('AlarmOffDelay', 'off-delay', d.offDelaySeconds * 1000, ' ms')
    simple.ActiveCells = writeActiveCells(d.cells)
  } else if (d.kind === 'tamper') number('DelayTime', 'delay', d.delaySeconds, ' s', duration)
  return { rule: { name: d.id, type: ability.type, simple, points: points.map(toStandard) }, losses }
}

/** One setting that differs between the plan and the device, in words. */
export interface Difference {
  setting: string
  plan: string
  device: string
}

/** What a rule's parameters mean to people. */
const settingNames: Record<string, string> = { Sensitivity: 'sensitivity', ClassFilter: 'classes', Direction: 'direction', TimeThreshold: 'dwell', ConfirmTime: 'confirm time', MinCount: 'cells that must move', AlarmOnDelay: 'on-delay', AlarmOffDelay: 'off-delay', ActiveCells: 'cells', DelayTime: 'delay' }

/** Devices keep coordinates to some decimals only. */
const SAME_PLACE = 0.002

/** Settings in which a device's rule is not what it should be; empty: it is the same. */
export function differencesOf(wanted: Rule, held: Rule): Difference[] {
  const found: Difference[] = []
  if (wanted.type !== held.type) found.push({ setting: 'kind', plan: wanted.type, device: held.type })
  for (const key of new Set([...Object.keys(wanted.simple), ...Object.keys(held.simple)])) {
    const [a, b] = [wanted.simple[key], held.simple[key]]
    if (a !== b && !sameNumber(a, b)) found.push({ setting: settingNames[key] ?? key, plan: shown(key, a), device: shown(key, b) })
  }
  const same = wanted.points.length === held.points.length && wanted.points.every(([x, y], i) => Math.abs(x - held.points[i][0]) <= SAME_PLACE && Math.abs(y - held.points[i][1]) <= SAME_PLACE)
  if (!same) found.push({ setting: 'shape', plan: `${wanted.points.length} vertices`, device: held.points.length === wanted.points.length ? 'the same number, elsewhere' : `${held.points.length} vertices` })
  return found
}

const sameNumber = (a: string | undefined, b: string | undefined): boolean => {
  const read = (text: string | undefined): number => (text === undefined ? NaN : Number(text.replace(/^PT|S$/g, '')))
  return Math.abs(read(a) - read(b)) < 1e-6
}

const shown = (key: string, value: string | undefined): string => {
  if (value === undefined) return 'not set'
  if (key === 'ActiveCells') return 'a pattern of cells'
  if (/^PT[\d.]+S$/.test(value)) return `${secondsOf(value)} s`
  return value
}

/** A device's rule taken over into a detection: what the rule says replaces, the rest stays. */
export function takeOver(d: Detection, held: Rule, abilities: readonly RuleAbility[]): Detection {
  const ranges = abilities.find((a) => a.type === held.type)?.ranges ?? {}
  const { simple } = held
  const points = held.points.map(fromStandard)
  const changed: Record<string, unknown> = { ...d }
  if (simple.Sensitivity !== undefined && ranges.Sensitivity && 'sensitivity' in d && String(toScale(d.sensitivity, ranges.Sensitivity)) !== simple.Sensitivity) changed.sensitivity = fromScale(Number(simple.Sensitivity), ranges.Sensitivity)
  if ('classes' in d && simple.ClassFilter !== undefined) changed.classes = CLASSES.filter((c) => c !== 'unknown' && simple.ClassFilter.split(/\s+/).includes(classNames[c]))
  if ('confirmSeconds' in d && simple.ConfirmTime !== undefined) changed.confirmSeconds = secondsOf(simple.ConfirmTime)
  if (d.kind === 'line') {
    if (points.length) changed.line = points
    const direction = Object.entries(directions).find(([, name]) => name === simple.Direction)?.[0]
    if (direction) changed.direction = direction
  } else if (d.kind === 'intrusion' || d.kind === 'loitering') {
    if (points.length) changed.zone = points
    if (simple.TimeThreshold !== undefined) changed.dwellSeconds = secondsOf(simple.TimeThreshold)
  } else if (d.kind === 'motion') {
    if (simple.ActiveCells !== undefined) changed.cells = readActiveCells(simple.ActiveCells, { columns: d.cells[0].length, rows: d.cells.length })
    if (simple.AlarmOnDelay !== undefined) changed.onDelaySeconds = Number(simple.AlarmOnDelay) / 1000
    if (simple.AlarmOffDelay !== undefined) changed.offDelaySeconds = Number(simple.AlarmOffDelay) / 1000
  } else if (d.kind === 'tamper' && simple.DelayTime !== undefined) changed.delaySeconds = secondsOf(simple.DelayTime)
  return changed as Detection
}

/** A rule as an element, for CreateRules and ModifyRules. */
export function ruleXml({ name, type, simple, points }: Rule): string {
  const items = Object.entries(simple).map(([Name, Value]) => xml('tt:SimpleItem', { Name, Value }))
  const vertices = points.map(([x, y]) => xml('tt:Point', { x: Math.round(x * 1e5) / 1e5, y: Math.round(y * 1e5) / 1e5 }))
  const shape = points.length ? [type === 'tt:LineDetector' ? xml('tt:ElementItem', { Name: 'Segments' }, xml('tt:Polyline', {}, ...vertices)) : xml('tt:ElementItem', { Name: 'Field' }, xml('tt:Polygon', {}, ...vertices))] : []
  return xml('tan:Rule', { Name: name, Type: type }, xml('tt:Parameters', {}, ...items, ...shape))
}

/** @throws InputError when the element is no rule */
export function readRule(element: Element): Rule {
  const { Name: name, Type: type } = element.attributes
  if (!name || !type) throw new InputError('a rule', 'has no name or no type')
  const parameters = child(element, 'Parameters')
  const simple = Object.fromEntries(children(parameters, 'SimpleItem').map(({ attributes }) => [attributes.Name ?? '', attributes.Value ?? '']))
  const shape = children(parameters, 'ElementItem').flatMap((item) => item.children)[0]
  const points = children(shape, 'Point').map(({ attributes }): Point => {
    const point: Point = [Number(attributes.x), Number(attributes.y)]
    if (!point.every(Number.isFinite)) throw new InputError(`rule ${name}`, `has a vertex at ${attributes.x}, ${attributes.y}; both must be numbers`)
    return point
  })
  return { name, type: type.replace(/^[^:]*:/, 'tt:'), simple, points }
}

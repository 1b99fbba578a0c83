import { said, type Said, type SettingName } from '../../messages/said.ts'
import type { Detection, Schedule } from '../plan.ts'
import type { SettingUnit } from '../../kinds/rule.ts'
import { ruleOf } from '../../kinds/rules.ts'
import { fromScale, toScale, type Rule, type RuleAbility } from './rule.ts'
import { toStandard } from './coordinates.ts'
import { duration } from './durations.ts'
import { PARKED_HOURS, isAlways, writeHours } from './hours.ts'
import { classNames, sizeText } from './parameters.ts'

/** A setting that the device cannot hold as it is wanted. */
export interface Loss {
  setting: SettingName
  wanted: Said
  /** What it would be on the device; null: it cannot be held at all. */
  nearest: Said | null
}

const quantity = (n: number, unit: SettingUnit): Said =>
  unit === 'milliseconds' ? said('values.seconds', n / 1000) : said(`values.${unit}`, n)

/** A detection as a device holds it, and what is lost on the way. */
export interface Translation {
  rule: Rule
  losses: Loss[]
}

type OfHours = WeakMap<object, Translation | null>
const known = new WeakMap<Detection, WeakMap<readonly RuleAbility[], OfHours>>()
const NO_HOURS = {}

/**
 * A detection in a device's terms, and what is lost on the way: settings that it has no parameter for, values that its
 * scale does not have. A parked one keeps its place with one minute a day and an empty area. Of what is frozen each is
 * translated once: lists of many devices ask for all of them again and again. The caller changes nothing in the answer.
 *
 * @param schedules of the plan; the detection's arming hours are among them
 * @returns null when the device has no rule of that type
 */
export function toRule(
  d: Detection,
  abilities: readonly RuleAbility[],
  schedules: readonly Schedule[] = []
): Translation | null {
  const hours = schedules.find((s) => s.id === d.schedule)
  if (![d, abilities, hours].every(Object.isFrozen)) return translate(d, abilities, hours)
  const ofDetection = known.get(d) ?? new WeakMap<readonly RuleAbility[], OfHours>()
  known.set(d, ofDetection)
  const ofAbilities: OfHours =
    ofDetection.get(abilities) ?? new WeakMap<object, Translation | null>()
  ofDetection.set(abilities, ofAbilities)
  const before = ofAbilities.get(hours ?? NO_HOURS)
  if (before !== undefined) return before
  const translation = translate(d, abilities, hours)
  ofAbilities.set(hours ?? NO_HOURS, translation)
  return translation
}

function translate(
  d: Detection,
  abilities: readonly RuleAbility[],
  schedule: Schedule | undefined
): Translation | null {
  const kindRule = ruleOf(d.kind)
  const ability = kindRule && abilities.find((a) => a.type === kindRule.type)
  if (!ability) return null
  const simple: Record<string, string> = {}
  const losses: Loss[] = []
  const lose = (setting: SettingName, wanted: Said, nearest: Said | null = null): void =>
    void losses.push({ setting, wanted, nearest })
  const takes = (parameter: string): boolean => ability.parameters.includes(parameter)
  /** A number within the device's range. */
  const number = (
    parameter: string,
    setting: SettingName,
    wanted: number,
    unit: SettingUnit,
    write: (held: number) => string = String
  ): void => {
    if (!takes(parameter)) return lose(setting, quantity(wanted, unit))
    const range = ability.ranges[parameter] ?? { min: -Infinity, max: Infinity }
    const held = Math.min(range.max, Math.max(range.min, wanted))
    if (held !== wanted) lose(setting, quantity(wanted, unit), quantity(held, unit))
    simple[parameter] = write(held)
  }
  const item = (
    parameter: string,
    setting: SettingName,
    value: string,
    wanted: Said = said('values.text', value),
    instead: Said | null = null
  ): void => {
    if (takes(parameter)) simple[parameter] = value
    else lose(setting, wanted, instead)
  }

  if ('sensitivity' in d) {
    const range = ability.ranges.Sensitivity
    if (!takes('Sensitivity') || !range) {
      if (d.sensitivity !== 50) lose('sensitivity', said('values.number', d.sensitivity))
    } else {
      const step = toScale(d.sensitivity, range)
      const back = fromScale(step, range)
      if (Math.abs(back - d.sensitivity) >= 1)
        lose(
          'sensitivity',
          said('values.number', d.sensitivity),
          said('values.step', back, step, range.min, range.max)
        )
      simple.Sensitivity = String(step)
    }
  }
  if ('classes' in d) {
    if (d.classes.length)
      item(
        'ClassFilter',
        'classes',
        d.classes.flatMap((c) => (c === 'unknown' ? [] : [classNames[c]])).join(' '),
        said(
          'values.list',
          d.classes.map((c) => said(`classes.${c}`))
        ),
        said('values.everyClass')
      )
    if (d.confirmSeconds > 0)
      number('ConfirmTime', 'confirm', d.confirmSeconds, 'seconds', duration)
    const frame = ({ w, h }: { w: number; h: number }): Said => said('values.frame', w, h)
    if (d.size?.min) item('MinimumSize', 'minSize', sizeText(d.size.min), frame(d.size.min))
    if (d.size?.max) item('MaximumSize', 'maxSize', sizeText(d.size.max), frame(d.size.max))
    if (d.size?.minMetres !== undefined || d.size?.maxMetres !== undefined)
      lose(
        'sizeInMetres',
        said('values.metres', d.size.minMetres ?? null, d.size.maxMetres ?? null)
      )
  }
  if (d.holdOffSeconds > 0) number('HoldOff', 'holdOff', d.holdOffSeconds, 'seconds', duration)

  const points = kindRule.write(d, {
    takes,
    number,
    item,
    lose,
    set: (parameter, value) => void (simple[parameter] = value)
  })

  if (d.parked) {
    const hours = writeHours(PARKED_HOURS)!
    if (takes('Hours')) simple.Hours = hours
    else if (!simple.ActiveCells)
      lose('parked', said('values.oneMinuteADay'), said('values.alwaysArmed'))
  } else if (schedule && !isAlways(schedule)) {
    const hours = writeHours(schedule.week)
    if (hours === null)
      lose('arming', said('values.sunSchedule', schedule.name), said('values.alwaysArmed'))
    else
      item('Hours', 'arming', hours, said('values.text', schedule.name), said('values.alwaysArmed'))
    if (takes('Hours') && schedule.exceptions.length)
      lose('exceptions', said('values.number', schedule.exceptions.length), said('values.none'))
  }
  if (d.armInput) lose('armInput', said('values.text', d.armInput.input), said('values.none'))
  return {
    rule: { name: d.id, type: ability.type, simple, points: points.map(toStandard) },
    losses
  }
}

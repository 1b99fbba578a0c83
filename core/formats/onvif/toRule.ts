import type { Detection, Schedule } from '../plan.ts'
import { ruleOf } from '../../kinds/rules.ts'
import { fromScale, toScale, type Rule, type RuleAbility } from './rule.ts'
import { toStandard } from './coordinates.ts'
import { duration } from './durations.ts'
import { PARKED_HOURS, isAlways, writeHours } from './hours.ts'
import { classNames, sizeText } from './parameters.ts'

/** A setting that the device cannot hold as it is wanted. */
export interface Loss {
  setting: string
  wanted: string
  /** What it would be on the device; null: it cannot be held at all. */
  nearest: string | null
}

/**
 * A detection in a device's terms, and what is lost on the way: settings that it has no parameter for, values that its
 * scale does not have. A parked one keeps its place with one minute a day and an empty area.
 *
 * @param schedules of the plan; the detection's arming hours are among them
 * @returns null when the device has no rule of that type
 */
export function toRule(
  d: Detection,
  abilities: readonly RuleAbility[],
  schedules: readonly Schedule[] = []
): { rule: Rule; losses: Loss[] } | null {
  const kindRule = ruleOf(d.kind)
  const ability = kindRule && abilities.find((a) => a.type === kindRule.type)
  if (!ability) return null
  const simple: Record<string, string> = {}
  const losses: Loss[] = []
  const lose = (setting: string, wanted: string, nearest: string | null = null): void =>
    void losses.push({ setting, wanted, nearest })
  const takes = (parameter: string): boolean => ability.parameters.includes(parameter)
  /** A number within the device's range. */
  const number = (
    parameter: string,
    setting: string,
    wanted: number,
    unit: string,
    write: (held: number) => string = String
  ): void => {
    if (!takes(parameter)) return lose(setting, `${wanted}${unit}`)
    const range = ability.ranges[parameter] ?? { min: -Infinity, max: Infinity }
    const held = Math.min(range.max, Math.max(range.min, wanted))
    if (held !== wanted) lose(setting, `${wanted}${unit}`, `${held}${unit}`)
    simple[parameter] = write(held)
  }
  const item = (
    parameter: string,
    setting: string,
    value: string,
    wanted = value,
    instead: string | null = null
  ): void => {
    if (takes(parameter)) simple[parameter] = value
    else lose(setting, wanted, instead)
  }

  if ('sensitivity' in d) {
    const range = ability.ranges.Sensitivity
    if (!takes('Sensitivity') || !range) {
      if (d.sensitivity !== 50) lose('sensitivity', String(d.sensitivity))
    } else {
      const step = toScale(d.sensitivity, range)
      const back = fromScale(step, range)
      if (Math.abs(back - d.sensitivity) >= 1)
        lose(
          'sensitivity',
          String(d.sensitivity),
          `${back} (step ${step} of ${range.min} to ${range.max})`
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
        d.classes.join(', '),
        'every class'
      )
    if (d.confirmSeconds > 0)
      number('ConfirmTime', 'confirm time', d.confirmSeconds, ' s', duration)
    const percent = ({ w, h }: { w: number; h: number }): string =>
      `${Math.round(w * 1000) / 10} × ${Math.round(h * 1000) / 10} %`
    if (d.size?.min)
      item('MinimumSize', 'smallest frame', sizeText(d.size.min), percent(d.size.min))
    if (d.size?.max) item('MaximumSize', 'largest frame', sizeText(d.size.max), percent(d.size.max))
    if (d.size?.minMetres !== undefined || d.size?.maxMetres !== undefined)
      lose(
        'size in metres',
        [d.size.minMetres, d.size.maxMetres]
          .map((m) => (m === undefined ? '…' : `${m} m`))
          .join(' to ')
      )
  }
  if (d.holdOffSeconds > 0) number('HoldOff', 'hold-off', d.holdOffSeconds, ' s', duration)

  const points = kindRule.write(d, {
    takes,
    number,
    item,
    lose,
    set: (parameter, value) => void (simple[parameter] = value)
  })

  const schedule = schedules.find((s) => s.id === d.schedule)
  if (d.parked) {
    const hours = writeHours(PARKED_HOURS)!
    if (takes('Hours')) simple.Hours = hours
    else if (!simple.ActiveCells) lose('parked', 'one minute a day', 'always armed')
  } else if (schedule && !isAlways(schedule)) {
    const hours = writeHours(schedule.week)
    if (hours === null) lose('arming hours', `${schedule.name}, tied to the sun`, 'always armed')
    else item('Hours', 'arming hours', hours, schedule.name, 'always armed')
    if (takes('Hours') && schedule.exceptions.length)
      lose('exceptions of the arming hours', `${schedule.exceptions.length}`, 'none')
  }
  if (d.armInput) lose('arm input', d.armInput.input, 'none')
  return {
    rule: { name: d.id, type: ability.type, simple, points: points.map(toStandard) },
    losses
  }
}

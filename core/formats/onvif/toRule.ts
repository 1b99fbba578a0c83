import type { Detection, Schedule } from '../plan.ts'
import { RULE_TYPES, fromScale, toScale, type RuleAbility } from './abilities.ts'
import { writeActiveCells } from './activeCells.ts'
import { toStandard } from './coordinates.ts'
import { duration } from './durations.ts'
import { PARKED_HOURS, isAlways, writeHours } from './hours.ts'
import { classNames, directions, sizeText } from './parameters.ts'
import type { Rule } from './rules.ts'

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
  const ability = abilities.find((a) => a.type === RULE_TYPES[d.kind])
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

  let points: Rule['points'] = []
  switch (d.kind) {
    case 'line':
      points = d.line
      simple.Direction = directions[d.direction]
      break
    case 'entry':
    case 'exit':
      points = d.zone
      break
    case 'intrusion':
    case 'loitering':
      points = d.zone
      if (d.kind === 'loitering' || d.dwellSeconds > 0)
        number('TimeThreshold', 'dwell', d.dwellSeconds, ' s', duration)
      if (d.kind === 'loitering' && (takes('GraceTime') || d.graceSeconds !== 10))
        number('GraceTime', 'grace', d.graceSeconds, ' s', duration)
      if (d.atLeast > 1) lose('number together', String(d.atLeast), '1')
      if (!d.countFirstSeenInside) lose('who is first seen inside', 'not counted', 'counted')
      break
    case 'motion':
    case 'classMotion': {
      const selected = d.cells.join('').replace(/0/g, '').length
      number(
        'MinCount',
        'share of the cells',
        Math.max(1, Math.ceil((d.threshold / 100) * selected - 1e-9)),
        ' cells'
      )
      number('AlarmOnDelay', 'on-delay', d.onDelaySeconds * 1000, ' ms')
      number('AlarmOffDelay', 'off-delay', d.offDelaySeconds * 1000, ' ms')
      simple.ActiveCells = writeActiveCells(
        d.parked ? d.cells.map((row) => '0'.repeat(row.length)) : d.cells
      )
      break
    }
    case 'tamper':
      number('DelayTime', 'delay', d.delaySeconds, ' s', duration)
      if (d.causes.length < 5 || takes('Causes'))
        item('Causes', 'causes', d.causes.join(' '), d.causes.join(', '), 'every cause')
      break
    case 'face':
      item('FaceSize', 'smallest face frame', sizeText(d.faceMin))
      if (d.mask !== 'any') item('Mask', 'mask', d.mask)
      if (d.list !== 'any')
        lose(
          'list of faces',
          d.list === 'listed' ? 'only listed ones' : 'only ones not listed',
          'any face'
        )
      break
    // The device’s own inputs: no rule of video analytics.
    case 'contact':
    case 'signalLoss':
  }

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

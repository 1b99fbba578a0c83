import { coded, said } from '../../messages/said.ts'
import { InputError } from '../../errors.ts'
import { WEEKDAYS, type Schedule, type Weekday } from '../plan.ts'

/**
 * A week of arming hours as one item of a rule, for devices that take it (docs/device-extension.md): the days that have
 * hours, such as `mon=00:00-06:30,18:30-24:00;tue=18:30-24:00`, on the device's wall clock.
 */
export type Hours = Schedule['week']

/** The hours of a parked detection: one minute a day. Common practice, no source. */
export const PARKED_HOURS = Object.fromEntries(
  WEEKDAYS.map((day) => [day, [['00:00', '00:01'] as const]])
) as unknown as Hours

/** @returns null when an end follows the sun: a device does not know it */
export function writeHours(week: Hours): string | null {
  if (
    Object.values(week)
      .flat(2)
      .some((end) => end.startsWith('sun'))
  )
    return null
  return WEEKDAYS.flatMap((day) =>
    week[day].length
      ? [
          `${day}=${week[day]
            .map(([from, to]) => `${from}-${to}`)
            .sort()
            .join(',')}`
        ]
      : []
  ).join(';')
}

/** @throws InputError for what are no hours */
export function readHours(text: string): Hours {
  const week = Object.fromEntries(
    WEEKDAYS.map((day) => [day, [] as (readonly [string, string])[]])
  ) as Record<Weekday, (readonly [string, string])[]>
  for (const part of text.split(';').filter(Boolean)) {
    const m = /^(\w{3})=((?:\d\d:\d\d-\d\d:\d\d,?)+)$/.exec(part.trim())
    if (!m || !(m[1]! in week))
      throw new InputError(
        coded('places.armingHours'),
        said('formats.areMustBe2', part.slice(0, 30))
      )
    week[m[1] as Weekday] = m[2]!
      .split(',')
      .filter(Boolean)
      .map((span) => [span.slice(0, 5), span.slice(6)] as const)
  }
  return week
}

const WHOLE_DAY: Hours['mon'] = [['00:00', '24:00']]

/** Whether a schedule arms every minute, always: then a device needs no hours. */
export const isAlways = ({ week, exceptions }: Schedule): boolean =>
  exceptions.length === 0 &&
  WEEKDAYS.every((day) => JSON.stringify(week[day]) === JSON.stringify(WHOLE_DAY))

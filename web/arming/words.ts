import { words as msg } from '../../core/messages/en/arming.ts'
import type { Weekday } from '../../core/formats/plan.ts'
import { days } from '../../core/messages/en/codes/arming.ts'

export const dayNames: Readonly<Record<Weekday, string>> = days
export const shortDay = (day: Weekday): string => days[day].slice(0, 3)

/** Minutes a week as hours: `84 h`, `10.5 h`, `12 min`. */
export const weekHours = (minutes: number): string =>
  minutes < 60 && minutes > 0
    ? msg.min(Math.max(1, Math.round(minutes)))
    : `${Math.round(minutes / 6) / 10} h`

export const plural = (n: number, one: string, many = `${one}s`): string =>
  `${n} ${n === 1 ? one : many}`

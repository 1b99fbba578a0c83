import { words as msg } from '../../core/messages/en/arming.ts'
import type { Weekday } from '../../core/formats/plan.ts'
import { days, shortDays } from '../../core/messages/en/codes/arming.ts'

export const dayNames: Readonly<Record<Weekday, string>> = days
export const shortDay = (day: Weekday): string => shortDays[day]

/** Minutes a week as hours: `84 h`, `10.5 h`, `12 min`. */
export const weekHours = (minutes: number): string =>
  minutes < 60 && minutes > 0
    ? msg.min(Math.max(1, Math.round(minutes)))
    : msg.hours(Math.round(minutes / 6) / 10)

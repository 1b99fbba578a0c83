import { words as msg } from '../../core/messages/en/arming.ts'
export { DAY_NAMES as dayNames, SHORT_DAYS as shortDays } from '../../core/arming/stretches.ts'

/** Minutes a week as hours: `84 h`, `10.5 h`, `12 min`. */
export const weekHours = (minutes: number): string =>
  minutes < 60 && minutes > 0
    ? msg.min(Math.max(1, Math.round(minutes)))
    : `${Math.round(minutes / 6) / 10} h`

export const plural = (n: number, one: string, many = `${one}s`): string =>
  `${n} ${n === 1 ? one : many}`

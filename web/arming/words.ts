import type { Weekday } from '../../core/formats/plan.ts'

export const dayNames: Record<Weekday, string> = { mon: 'Monday', tue: 'Tuesday', wed: 'Wednesday', thu: 'Thursday', fri: 'Friday', sat: 'Saturday', sun: 'Sunday' }
export const shortDays: Record<Weekday, string> = { mon: 'Mon', tue: 'Tue', wed: 'Wed', thu: 'Thu', fri: 'Fri', sat: 'Sat', sun: 'Sun' }

/** Minutes a week as hours: `84 h`, `10.5 h`, `12 min`. */
export const weekHours = (minutes: number): string => (minutes < 60 && minutes > 0 ? `${Math.max(1, Math.round(minutes))} min` : `${Math.round(minutes / 6) / 10} h`)

export const plural = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`

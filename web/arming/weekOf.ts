import { Calendar } from '../../core/arming/calendar.ts'
import type { SitePosition } from '../../core/formats/plan.ts'

const DAY = 24 * 60 * 60_000

/** The site's week, Monday to Sunday, that an instant is in. */
export function weekOf(instant: number, timeZone: string, position: SitePosition | null): Calendar {
  const near = new Calendar(timeZone, undefined, instant - 8 * DAY, instant + 8 * DAY)
  const mondays = near.days.filter((d) => d.weekday === 'mon')
  const monday = mondays.filter((d) => d.from <= instant).at(-1)!
  const next = mondays.find((d) => d.midnight > monday.midnight)!
  return new Calendar(
    timeZone,
    position ?? undefined,
    monday.midnight - monday.shift,
    next.midnight - next.shift
  )
}

/** Minutes of the wall clock, and the date, of an instant on the site. */
export function wallNow(
  calendar: Calendar,
  instant: number
): { date: string; minutes: number } | null {
  const day = calendar.days.find((d) => d.from <= instant && instant < d.to)
  return day ? { date: day.date, minutes: (instant - (day.midnight - day.shift)) / 60_000 } : null
}

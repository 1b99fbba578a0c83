import { Calendar } from '../../core/arming/calendar.ts'
import { clockText } from '../../core/arming/spans.ts'
import type { SitePosition } from '../../core/formats/plan.ts'

const DAY = 24 * 60 * 60_000

/** The site's week, Monday to Sunday, that an instant is in. */
export function weekOf(instant: number, timeZone: string, position: SitePosition | null): Calendar {
  const near = new Calendar(timeZone, undefined, instant - 8 * DAY, instant + 8 * DAY)
  const mondays = near.days.filter((d) => d.weekday === 'mon')
  const monday = mondays.filter((d) => d.from <= instant).at(-1)!
  const next = mondays.find((d) => d.midnight > monday.midnight)!
  return new Calendar(timeZone, position ?? undefined, monday.midnight - monday.shift, next.midnight - next.shift)
}

/** Minutes of the wall clock, and the date, of an instant on the site. */
export function wallNow(calendar: Calendar, instant: number): { date: string; minutes: number } | null {
  const day = calendar.days.find((d) => d.from <= instant && instant < d.to)
  return day ? { date: day.date, minutes: (instant - (day.midnight - day.shift)) / 60_000 } : null
}

/** An instant as a field of date and time has it, on the site's wall clock: `2026-11-24T18:30`. */
export function wallText(instant: number, timeZone: string): string {
  const { date, minutes } = wallNow(new Calendar(timeZone, undefined, instant - DAY, instant + DAY), instant)!
  return `${date}T${clockText(Math.floor(minutes))}`
}

/** The instant of such a text; null for what is none. A time that comes twice is its first one, one that does not exist is what the clock says then. */
export function wallInstant(text: string, timeZone: string): number | null {
  const m = /^(\d{4}-\d\d-\d\d)T(\d\d):(\d\d)/.exec(text)
  const midnight = m ? Date.parse(`${m[1]}T00:00Z`) : NaN
  if (!m || !Number.isFinite(midnight)) return null
  const parts = new Calendar(timeZone, undefined, midnight - 2 * DAY, midnight + 2 * DAY).days.filter((d) => d.date === m[1])
  const at = parts.map((d) => d.midnight - d.shift + (Number(m[2]) * 60 + Number(m[3])) * 60_000)
  return at.find((t, i) => t >= parts[i].from && t < parts[i].to) ?? at[0] ?? null
}

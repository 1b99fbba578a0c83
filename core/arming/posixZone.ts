import { offsetAt } from './zone.ts'

const MINUTE = 60_000
const HOUR = 60 * MINUTE
const DAY = 24 * HOUR
/** The rule of a change has to hold in so many years. */
const YEARS = 8

/** One of the two changes of a year, as POSIX writes it: month, week of the month (5: the last), weekday, time. */
interface Change {
  month: number
  weekday: number
  /** Minutes after midnight on the wall clock before the change. */
  minutes: number
  /** Day of the month. */
  day: number
  /** Days of that month. */
  days: number
}

/** Instants at which the offset changes, within a year of UTC. */
function changesOf(timeZone: string, year: number): { at: number; before: number }[] {
  const [from, to] = [Date.UTC(year, 0, 1), Date.UTC(year + 1, 0, 1)]
  const found: { at: number; before: number }[] = []
  for (let day = from; day < to; day += DAY) {
    const before = offsetAt(timeZone, day)
    if (offsetAt(timeZone, day + DAY) === before) continue
    let [low, high] = [day, day + DAY]
    while (high - low > MINUTE) {
      const middle = low + Math.floor((high - low) / 2 / MINUTE) * MINUTE
      if (offsetAt(timeZone, middle) === before) low = middle
      else high = middle
    }
    found.push({ at: high, before })
  }
  return found
}

/** A change, as the wall clock before it has it, counted from so many days earlier. */
function changeOf({ at, before }: { at: number; before: number }, earlier: number): Change {
  const wall = new Date(at + before * MINUTE - earlier * DAY)
  return {
    month: wall.getUTCMonth() + 1,
    weekday: wall.getUTCDay(),
    minutes: wall.getUTCHours() * 60 + wall.getUTCMinutes() + earlier * 24 * 60,
    day: wall.getUTCDate(),
    days: new Date(Date.UTC(wall.getUTCFullYear(), wall.getUTCMonth() + 1, 0)).getUTCDate()
  }
}

/**
 * The rule that all of these changes follow; null: they follow none that can be written so. "The Sunday after the first
 * Saturday" is Saturday's hour 24.
 */
function ruleOf(changes: readonly { at: number; before: number }[]): string | null {
  for (let earlier = 0; earlier < 7; earlier++) {
    const rule = ruleFrom(changes.map((c) => changeOf(c, earlier)))
    if (rule !== null) return rule
  }
  return null
}

function ruleFrom(changes: readonly Change[]): string | null {
  const [first] = changes as [Change]
  const { month, weekday, minutes } = first
  if (changes.some((c) => c.month !== month || c.weekday !== weekday || c.minutes !== minutes))
    return null
  const last = changes.every((c) => c.day > c.days - 7)
  const week = Math.ceil(first.day / 7)
  if (!last && changes.some((c) => Math.ceil(c.day / 7) !== week)) return null
  return `M${month}.${last ? 5 : week}.${weekday}${minutes === 120 ? '' : `/${hoursOf(minutes)}`}`
}

/** Hours, and minutes where there are some, as POSIX writes them: `2`, `9:30`, `-1`. */
function hoursOf(minutes: number): string {
  const size = Math.abs(minutes)
  const rest = size % 60
  return `${minutes < 0 ? '-' : ''}${Math.floor(size / 60)}${rest ? `:${String(rest).padStart(2, '0')}` : ''}`
}

/** A name of figures, which every reader of the standard takes: `<+0545>`. */
function nameOf(offset: number): string {
  const size = Math.abs(offset)
  const [hours, minutes] = [Math.floor(size / 60), size % 60].map((n) => String(n).padStart(2, '0'))
  return `<${offset < 0 ? '-' : '+'}${hours}${minutes === '00' ? '' : minutes}>`
}

/**
 * A time zone as devices are told of it: IEEE Std 1003.1 (POSIX), 8.3, `TZ`; ONVIF Core Specification, `TimeZone` of
 * `SetSystemDateAndTime` (from memory). Worked out from the platform's own IANA database, for the years to come.
 *
 * @param timeZone such as `Europe/London` @param from an instant of the first year, ms of UTC
 * @returns such as `<+00>0<+01>,M3.5.0/1,M10.5.0`; where a zone's changes follow no rule, its offset at `from` alone
 * @throws RangeError for what is no time zone
 */
export function posixZone(timeZone: string, from: number): string {
  const year = new Date(from).getUTCFullYear()
  const now = offsetAt(timeZone, from)
  const fixed = `${nameOf(now)}${hoursOf(-now)}`
  const years = Array.from({ length: YEARS }, (_, i) => changesOf(timeZone, year + i))
  if (years.some((changes) => changes.length !== 2)) return fixed
  const offsets = [...new Set(years.flat().map(({ before }) => before))].sort((a, b) => a - b)
  const [standard, summer] = offsets as [number, number]
  if (offsets.length !== 2) return fixed
  const begins = ruleOf(years.flat().filter((c) => c.before === standard))
  const ends = ruleOf(years.flat().filter((c) => c.before === summer))
  if (begins === null || ends === null) return fixed
  const ahead = summer - standard === 60 ? '' : hoursOf(-summer)
  return `${nameOf(standard)}${hoursOf(-standard)}${nameOf(summer)}${ahead},${begins},${ends}`
}

/** Whether two zones as POSIX writes them have the same clock, whatever they call their times. */
export function isSameZone(a: string, b: string): boolean {
  const plain = (zone: string): string =>
    zone
      .replace(/<[^>]*>|[A-Za-z]{3,}/g, '~')
      .replace(/\+/g, '')
      .replace(/:00\b/g, '')
      .replace(/\b0(\d)/g, '$1')
      .replace(/\/2(?=,|$)/g, '')
  return plain(a) === plain(b)
}

/** Whether a zone has summer time at an instant: its offset is the larger one of the year. */
export const isSummerTime = (timeZone: string, instant: number): boolean => {
  const year = new Date(instant).getUTCFullYear()
  const now = offsetAt(timeZone, instant)
  return [Date.UTC(year, 0, 1), Date.UTC(year, 6, 1)].some((at) => offsetAt(timeZone, at) < now)
}

import { WEEKDAYS, type Weekday } from '../formats/plan.ts'
import type { Calendar } from './calendar.ts'
import type { Hours } from './hours.ts'
import { clockText } from './spans.ts'

const MINUTE = 60_000
const WEEK = 7 * 24 * 60 * MINUTE

/** Hours that recur on days of the week, or that are of single dates. */
export interface Stretch {
  /** Empty: single dates. */
  weekdays: Weekday[]
  /** `2026-12-25`; empty: every week. */
  dates: string[]
  /** On the wall clock, such as `06:30 to 18:30`; with `about` where the ends move with the sun. */
  spans: string
}

export interface HoursByDay {
  /** The mean of all weeks of the calendar. */
  minutesPerWeek: number
  stretches: Stretch[]
}

const clock = (ms: number): string => clockText(Math.round(ms / MINUTE))

/**
 * A part of hours on a date's wall clock, milliseconds after its midnight; parts that meet at a
 * change of the clock are one.
 */
export interface WallSpan {
  from: number
  to: number
  /** Milliseconds of UTC. */
  ends: number
}

/** Hours by date, on the wall clock. */
export function spansByDate(
  hours: Hours,
  { days }: Calendar
): Map<string, { weekday: Weekday; spans: WallSpan[] }> {
  const found = new Map<string, { weekday: Weekday; spans: WallSpan[] }>()
  let i = 0
  for (const day of days) {
    const of = found.get(day.date) ?? { weekday: day.weekday, spans: [] }
    found.set(day.date, of)
    while (i < hours.length && hours[i + 1]! <= day.from) i += 2
    for (let k = i; k < hours.length && hours[k]! < day.to; k += 2) {
      const [from, to] = [Math.max(hours[k]!, day.from), Math.min(hours[k + 1]!, day.to)]
      const base = day.midnight - day.shift
      const last = of.spans[of.spans.length - 1]
      if (last?.ends === from) Object.assign(last, { to: to - base, ends: to })
      else of.spans.push({ from: from - base, to: to - base, ends: to })
    }
  }
  return found
}

const text = (spans: readonly { from: number; to: number }[]): string =>
  spans.map(({ from, to }) => `${clock(from)} to ${clock(to)}`).join(', ')

/** So many different spans of one weekday in a year come from the sun, not from exceptions. */
const MOVING = 5

/** The usual spans of a weekday: those of most of its dates; where they move with the sun, the widest, with `about`. */
function usual(dates: readonly WallSpan[][]): { spans: string; isUsual: (s: string) => boolean } {
  const counts = new Map<string, number>()
  for (const spans of dates) counts.set(text(spans), (counts.get(text(spans)) ?? 0) + 1)
  const [most, count] = [...counts].reduce((best, next) => (next[1] > best[1] ? next : best))
  const some = dates.filter((d) => d.length)
  const moving =
    [...counts.keys()].filter(Boolean).length >= MOVING &&
    Math.max(...[...counts].map(([spans, n]) => (spans ? n : 0))) * 2 < some.length
  if (!moving && count * 2 > dates.length) return { spans: most, isUsual: (s) => s === most }
  // Their number is the same on most dates: each is told from its earliest begin to its latest end.
  const numbers = some.map((d) => d.length).sort((a, b) => a - b)
  const usualNumber = numbers[numbers.length >> 1] ?? 0
  const alike = some.filter((d) => d.length === usualNumber)
  const widest = Array.from({ length: usualNumber }, (_, n) => ({
    from: Math.min(...alike.map((d) => d[n]!.from)),
    to: Math.max(...alike.map((d) => d[n]!.to))
  }))
  return {
    spans: usualNumber
      ? `about ${text(widest)}${some.length < dates.length ? ', in a part of the year' : ''}`
      : '',
    isUsual: () => true
  }
}

/**
 * Names hours as people would: the days of the week with the same spans together, then single dates that differ from
 * their weekday.
 */
export function stretchesOf(hours: Hours, calendar: Calendar): HoursByDay {
  const byDate = spansByDate(hours, calendar)
  const stretches: Stretch[] = []
  const odd: { date: string; spans: string }[] = []
  for (const weekday of WEEKDAYS) {
    const dates = [...byDate].filter(([, d]) => d.weekday === weekday)
    if (!dates.length) continue
    const { spans, isUsual } = usual(dates.map(([, d]) => d.spans))
    for (const [date, d] of dates)
      if (!isUsual(text(d.spans))) odd.push({ date, spans: text(d.spans) || 'none' })
    if (!spans) continue
    const same = stretches.find((s) => s.spans === spans)
    if (same) same.weekdays.push(weekday)
    else stretches.push({ weekdays: [weekday], dates: [], spans })
  }
  for (const { date, spans } of odd.sort((a, b) => (a.date < b.date ? -1 : 1))) {
    const same = stretches.find((s) => s.dates.length && s.spans === spans)
    if (same) same.dates.push(date)
    else stretches.push({ weekdays: [], dates: [date], spans })
  }
  const { days } = calendar
  let ms = 0
  for (let i = 0; i < hours.length; i += 2) ms += hours[i + 1]! - hours[i]!
  const length = days.length ? days[days.length - 1]!.to - days[0]!.from : 0
  return { minutesPerWeek: length ? (ms / MINUTE) * (WEEK / length) : 0, stretches }
}

export const DAY_NAMES: Readonly<Record<Weekday, string>> = {
  mon: 'Monday',
  tue: 'Tuesday',
  wed: 'Wednesday',
  thu: 'Thursday',
  fri: 'Friday',
  sat: 'Saturday',
  sun: 'Sunday'
}
export const SHORT_DAYS: Readonly<Record<Weekday, string>> = {
  mon: 'Mon',
  tue: 'Tue',
  wed: 'Wed',
  thu: 'Thu',
  fri: 'Fri',
  sat: 'Sat',
  sun: 'Sun'
}

/** `Mon to Fri`, `Sat and Sun`, `every day`. */
function daysInWords(days: readonly Weekday[]): string {
  if (days.length === 7) return 'every day'
  const at = days.map((d) => WEEKDAYS.indexOf(d))
  const runs: number[][] = []
  for (const d of at) {
    const run = runs[runs.length - 1]
    if (run && run[run.length - 1] === d - 1) run.push(d)
    else runs.push([d])
  }
  const words = runs.flatMap((run) =>
    run.length > 2
      ? [`${SHORT_DAYS[WEEKDAYS[run[0]!]!]} to ${SHORT_DAYS[WEEKDAYS[run[run.length - 1]!]!]}`]
      : run.map((d) => SHORT_DAYS[WEEKDAYS[d]!])
  )
  return words.length > 1
    ? `${words.slice(0, -1).join(', ')} and ${words[words.length - 1]}`
    : words[0]!
}

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec']
/** `2026-12-25` as `25 Dec 2026`. */
export const dateInWords = (date: string): string =>
  `${Number(date.slice(8))} ${MONTHS[Number(date.slice(5, 7)) - 1]} ${date.slice(0, 4)}`

const MAX_DATES = 3

/** One stretch in words: `Sat and Sun, 06:30 to 18:30`. */
export function inWords({ weekdays, dates, spans }: Stretch): string {
  if (weekdays.length) return `${daysInWords(weekdays)}, ${spans}`
  const named = dates.slice(0, MAX_DATES).map(dateInWords)
  const more = dates.length - named.length
  return `${named.join(', ')}${more > 0 ? ` and ${more} more dates` : ''}, ${spans}`
}

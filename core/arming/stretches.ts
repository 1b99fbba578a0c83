import { said, type Said } from '../messages/said.ts'
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
  /** On the wall clock: from, to, from, to, such as `06:30`, `18:30`. */
  spans: readonly string[]
  /** The ends move with the sun: these are the widest. */
  about: boolean
  /** There are none in a part of the year. */
  partly: boolean
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

type Times = Pick<Stretch, 'spans' | 'about' | 'partly'>

const timesOf = (spans: readonly { from: number; to: number }[]): string[] =>
  spans.flatMap(({ from, to }) => [clock(from), clock(to)])
/** The same exactly when the spans are. */
const keyOf = (spans: readonly { from: number; to: number }[]): string => timesOf(spans).join(' ')

/** So many different spans of one weekday in a year come from the sun, not from exceptions. */
const MOVING = 5

/** The usual spans of a weekday: those of most of its dates; where they move with the sun, the widest, with `about`. */
function usual(dates: readonly WallSpan[][]): Times & { isUsual: (key: string) => boolean } {
  const counts = new Map<string, number>()
  for (const spans of dates) counts.set(keyOf(spans), (counts.get(keyOf(spans)) ?? 0) + 1)
  const [most, count] = [...counts].reduce((best, next) => (next[1] > best[1] ? next : best))
  const some = dates.filter((d) => d.length)
  const moving =
    [...counts.keys()].filter(Boolean).length >= MOVING &&
    Math.max(...[...counts].map(([spans, n]) => (spans ? n : 0))) * 2 < some.length
  if (!moving && count * 2 > dates.length)
    return {
      spans: most ? most.split(' ') : [],
      about: false,
      partly: false,
      isUsual: (key) => key === most
    }
  // Their number is the same on most dates: each is told from its earliest begin to its latest end.
  const numbers = some.map((d) => d.length).sort((a, b) => a - b)
  const usualNumber = numbers[numbers.length >> 1] ?? 0
  const alike = some.filter((d) => d.length === usualNumber)
  const widest = Array.from({ length: usualNumber }, (_, n) => ({
    from: Math.min(...alike.map((d) => d[n]!.from)),
    to: Math.max(...alike.map((d) => d[n]!.to))
  }))
  return {
    spans: timesOf(widest),
    about: true,
    partly: some.length < dates.length,
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
  const odd: { date: string; spans: string[] }[] = []
  const isSame = (s: Stretch, times: Times): boolean =>
    s.spans.join() === times.spans.join() && s.about === times.about && s.partly === times.partly
  for (const weekday of WEEKDAYS) {
    const dates = [...byDate].filter(([, d]) => d.weekday === weekday)
    if (!dates.length) continue
    const { isUsual, ...times } = usual(dates.map(([, d]) => d.spans))
    for (const [date, d] of dates)
      if (!isUsual(keyOf(d.spans))) odd.push({ date, spans: timesOf(d.spans) })
    if (!times.spans.length) continue
    const same = stretches.find((s) => isSame(s, times))
    if (same) same.weekdays.push(weekday)
    else stretches.push({ weekdays: [weekday], dates: [], ...times })
  }
  for (const { date, spans } of odd.sort((a, b) => (a.date < b.date ? -1 : 1))) {
    const times = { spans, about: false, partly: false }
    const same = stretches.find((s) => s.dates.length && isSame(s, times))
    if (same) same.dates.push(date)
    else stretches.push({ weekdays: [], dates: [date], ...times })
  }
  const { days } = calendar
  let ms = 0
  for (let i = 0; i < hours.length; i += 2) ms += hours[i + 1]! - hours[i]!
  const length = days.length ? days[days.length - 1]!.to - days[0]!.from : 0
  return { minutesPerWeek: length ? (ms / MINUTE) * (WEEK / length) : 0, stretches }
}

/** One stretch, such as `Sat and Sun, 06:30 to 18:30`. */
export const saidStretch = ({ weekdays, dates, spans, about, partly }: Stretch): Said =>
  said('arming.stretch', weekdays, dates, spans, about, partly)

import { offsetAt as offsetOf } from '../arming/zone.ts'
import { language } from './language.ts'
import { marked } from './messages.ts'

// Numbers, units and times as people read them: the one place that says how. British English, 24 hours, and always the
// clock of the site.

/** Units and months are words too. */
const shown = (text: string): string => (language === 'pseudo' ? marked(text) : text)

const trimmed = (value: number, digits: number): string => String(Number(value.toFixed(digits)))

/** `1,234`. */
export const number = (value: number): string =>
  trimmed(value, 3).replace(/\B(?=(\d{3})+(?!\d))(?<!\.\d*)/g, ',')
/** `1 trigger`, `3 triggers`; the plural is given where it is not the singular with an s. */
export const count = (n: number, one: string, many = `${one}s`): string =>
  `${number(n)} ${n === 1 ? one : many}`
/** `A`, `A and B`, `A, B and C`. One that was kept as a text, before lists were kept as they are, stays it. */
export const list = (items: readonly string[] | string, last = 'and'): string =>
  typeof items === 'string'
    ? items
    : items.length < 2
      ? (items[0] ?? '')
      : `${items.slice(0, -1).join(', ')} ${last} ${items[items.length - 1]!}`
export const capital = (text: string): string => text.slice(0, 1).toUpperCase() + text.slice(1)

/** `33.3%` of a share of 1. */
export const percent = (share: number): string => `${trimmed(100 * share, 1)}%`
/** `33%`: where tenths would only pretend to be known. */
export const wholePercent = (share: number): string => `${Math.round(100 * share)}%`
/** `3.1 × 18.3%`: width and height as shares of the picture. */
export const frameSize = (w: number, h: number): string =>
  `${trimmed(100 * w, 1)} × ${trimmed(100 * h, 1)}%`

/** `2.5 s`, always with the tenth: of what was measured. */
export const seconds = (s: number): string => shown(`${(Math.round(s * 10) / 10).toFixed(1)} s`)
/** `60 s`, `0.3 s`: of what is set. */
export const settingSeconds = (s: number): string => shown(`${trimmed(s, 2)} s`)
export const metres = (m: number): string => shown(`${m.toFixed(2)} m`)
/** `1.5 GB`, `340 MB`, `12 KB`. */
export const byteSize = (bytes: number): string =>
  shown(
    bytes >= 1e9
      ? `${(bytes / 1e9).toFixed(1)} GB`
      : bytes >= 1e6
        ? `${Math.round(bytes / 1e6)} MB`
        : `${Math.round(bytes / 1e3)} KB`
  )
/** `24 h 12 min`, `1 min 15 s`, `40 s`: the two largest units, whole. */
export function duration(s: number): string {
  const whole = Math.round(s)
  const parts = [
    [Math.floor(whole / 3600), 'h'],
    [Math.floor(whole / 60) % 60, 'min'],
    [whole % 60, 's']
  ] as const
  const first = parts.findIndex(([n]) => n > 0)
  const largest = first < 0 ? parts.slice(2) : parts.slice(first, first + 2).filter(([n]) => n > 0)
  return shown(largest.map(([n, unit]) => `${n} ${unit}`).join(' '))
}
/** `25 s`, `12 min`, `1 h 5 min`: of what is only estimated. */
export const aboutDuration = (s: number): string =>
  duration(s < 57.5 ? Math.max(5, 5 * Math.round(s / 5)) : 60 * Math.max(1, Math.round(s / 60)))
/** `00:39.1` of seconds from the start of a clip. */
export function clipTime(s: number): string {
  const tenths = Math.round(s * 10)
  const two = (n: number): string => String(n).padStart(2, '0')
  return `${two(Math.floor(tenths / 600))}:${two(Math.floor((tenths % 600) / 10))}.${tenths % 10}`
}

/** Clocks change on the quarter hour of UTC at the earliest; asking the zone again within one would only cost. */
const QUARTER = 15 * 60_000
let last = { timeZone: '', quarter: NaN, offset: 0 }

function offsetAt(instant: number, timeZone: string): number {
  const quarter = Math.floor(instant / QUARTER)
  if (last.timeZone !== timeZone || last.quarter !== quarter)
    last = { timeZone, quarter, offset: offsetOf(timeZone, instant) }
  return last.offset
}

const SHORT_DAYS = ['Sun', 'Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat']
export const MONTHS = [
  'Jan',
  'Feb',
  'Mar',
  'Apr',
  'May',
  'Jun',
  'Jul',
  'Aug',
  'Sep',
  'Oct',
  'Nov',
  'Dec'
]

/** An instant on the wall clock of a time zone, as a date of UTC. */
const wall = (instant: number, timeZone: string): Date =>
  new Date(instant + offsetAt(instant, timeZone) * 60_000)
const dayAndMonth = (local: Date): string => `${local.getUTCDate()} ${MONTHS[local.getUTCMonth()]}`
const dayOf = (local: Date): string => shown(`${dayAndMonth(local)} ${local.getUTCFullYear()}`)

/** `Mon 18:30:05`; the seconds only where there are some. */
export function weekdayAndTime(instant: number, timeZone: string): string {
  const local = wall(instant, timeZone)
  const clock = local.toISOString().slice(11, 19)
  return shown(
    `${SHORT_DAYS[local.getUTCDay()]} ${clock.endsWith(':00') ? clock.slice(0, 5) : clock}`
  )
}
/** `21:30:05`. */
export const timeOfDay = (instant: number, timeZone: string): string =>
  wall(instant, timeZone).toISOString().slice(11, 19)
/** `21:30`. */
export const minuteOfDay = (instant: number, timeZone: string): string =>
  timeOfDay(instant, timeZone).slice(0, 5)
/** `26 Nov 2026`. */
export const dateOf = (instant: number, timeZone: string): string => dayOf(wall(instant, timeZone))
/** `26 Nov 2026, 21:30`. */
export const dateAndTime = (instant: number, timeZone: string): string =>
  `${dateOf(instant, timeZone)}, ${minuteOfDay(instant, timeZone)}`
/** The ends of a range, for one line: `26 Nov, 21:30` and `27 Nov 2026, 02:00`; of one day `26 Nov 2026, 21:30` and `22:00`. */
export function endsOf(from: number, to: number, timeZone: string): [string, string] {
  const [a, b] = [wall(from, timeZone), wall(to, timeZone)]
  if (dayOf(a) === dayOf(b)) return [dateAndTime(from, timeZone), minuteOfDay(to, timeZone)]
  const day = a.getUTCFullYear() === b.getUTCFullYear() ? shown(dayAndMonth(a)) : dayOf(a)
  return [`${day}, ${minuteOfDay(from, timeZone)}`, dateAndTime(to, timeZone)]
}
/** `26 Nov 2026, 21:30:05`. */
export const dateAndSecond = (instant: number, timeZone: string): string =>
  `${dateOf(instant, timeZone)}, ${timeOfDay(instant, timeZone)}`
/** `25 Dec 2026` of `2026-12-25`. */
export const dateText = (date: string): string => dayOf(new Date(`${date}T00:00Z`))

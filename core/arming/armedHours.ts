import { IANAZone } from 'luxon'
import { getTimes } from 'suncalc'
import { parseSpanEnd } from '../formats/spanEnd.ts'
import { WEEKDAYS, type Schedule, type SitePosition } from '../formats/plan.ts'

/** `[from, to)` in milliseconds of UTC. */
export type Interval = readonly [from: number, to: number]

const MINUTE = 60_000
const DAY = 24 * 60 * MINUTE

/** Stretches of constant offset from UTC in `[from, to)`; a change of the clock is found to the minute. */
function offsetStretches(zone: IANAZone, from: number, to: number): { from: number; to: number; offset: number }[] {
  const stretches = [{ from, to, offset: zone.offset(from) }]
  const step = 3 * 60 * MINUTE
  for (let t = from; t < to; t += step) {
    const end = Math.min(t + step, to)
    const last = stretches[stretches.length - 1]
    if (zone.offset(end) === last.offset) continue
    let low = Math.floor(t / MINUTE)
    let high = Math.ceil(end / MINUTE)
    while (high - low > 1) {
      const middle = (low + high) >> 1
      if (zone.offset(middle * MINUTE) === last.offset) low = middle
      else high = middle
    }
    if (high * MINUTE >= to) continue
    last.to = high * MINUTE
    stretches.push({ from: high * MINUTE, to, offset: zone.offset(high * MINUTE) })
  }
  return stretches
}

/** Intervals in order, with those that touch or overlap made one. */
export function union(intervals: readonly Interval[]): Interval[] {
  const result: [number, number][] = []
  for (const [from, to] of [...intervals].sort((a, b) => a[0] - b[0])) {
    if (!(from < to)) continue
    const last = result[result.length - 1]
    if (last && from <= last[1]) last[1] = Math.max(last[1], to)
    else result.push([from, to])
  }
  return result
}

/**
 * A span's end on a local date, as milliseconds after that date's local midnight on the wall clock. Where the
 * sun does not set, its day is the whole date; where it does not rise, both events are at noon.
 * Source of the sun's times: suncalc.
 */
function endOnDate(text: string, localMidnight: number, zone: IANAZone, position: SitePosition | undefined): number {
  const end = parseSpanEnd(text)
  if (!end) throw new TypeError(`not a span's end: ${text}`)
  if ('minutes' in end) return end.minutes * MINUTE
  if (!position) throw new TypeError('a span tied to the sun needs the position of the site')
  const noon = localMidnight + DAY / 2
  const utcNoon = noon - zone.offset(noon) * MINUTE
  const times = getTimes(new Date(utcNoon), position.latitude, position.longitude)
  const event = times[end.sun]
  let wall: number
  if (event) wall = event.getTime() + zone.offset(event.getTime()) * MINUTE - localMidnight
  else if (times.alwaysUp) wall = end.sun === 'sunrise' ? 0 : DAY
  else wall = DAY / 2
  return Math.min(DAY, Math.max(0, wall + end.offset * MINUTE))
}

/**
 * When a schedule is armed between two instants. The wall clock decides: an hour that does not exist on the
 * day the clock changes is not armed, an hour that comes twice is armed twice (docs/detections.md).
 *
 * @param from, to milliseconds of UTC
 * @returns intervals in order, none touching another
 */
export function armedIntervals(schedule: Schedule, timeZone: string, position: SitePosition | undefined, from: number, to: number): Interval[] {
  const zone = IANAZone.create(timeZone)
  const found: Interval[] = []
  for (const stretch of offsetStretches(zone, from, to)) {
    const shift = stretch.offset * MINUTE
    // Local times are kept as if they were UTC; a local date then is a whole number of days.
    for (let day = Math.floor((stretch.from + shift) / DAY); day * DAY < stretch.to + shift; day++) {
      const midnight = day * DAY
      const date = new Date(midnight).toISOString().slice(0, 10)
      const weekday = WEEKDAYS[(new Date(midnight).getUTCDay() + 6) % 7]
      const spans = schedule.exceptions.find((e) => e.date === date)?.spans ?? schedule.week[weekday]
      for (const [a, b] of spans) {
        const start = midnight + endOnDate(a, midnight, zone, position) - shift
        const stop = midnight + endOnDate(b, midnight, zone, position) - shift
        found.push([Math.max(start, stretch.from), Math.min(stop, stretch.to)])
      }
    }
  }
  return union(found)
}

const WINDOW = 4 * DAY

/** Answers "armed at this instant?" quickly for many instants near each other, keeping the hours around the last one. */
export class ArmedHours {
  private readonly schedule: Schedule
  private readonly timeZone: string
  private readonly position: SitePosition | undefined
  private window: Interval = [0, 0]
  private intervals: Interval[] = []

  constructor(schedule: Schedule, timeZone: string, position?: SitePosition) {
    this.schedule = schedule
    this.timeZone = timeZone
    this.position = position
  }

  /** The armed interval that holds the instant, or null. An end that is days away is not looked for: infinite. */
  intervalAt(instant: number): Interval | null {
    if (instant < this.window[0] + DAY || instant >= this.window[1] - DAY) {
      this.window = [instant - WINDOW, instant + WINDOW]
      this.intervals = armedIntervals(this.schedule, this.timeZone, this.position, ...this.window)
    }
    const found = this.intervals.find(([from, to]) => instant >= from && instant < to)
    return found ? [found[0] <= this.window[0] ? -Infinity : found[0], found[1] >= this.window[1] ? Infinity : found[1]] : null
  }

  /** When it is armed next after the instant, or null if not within some days. */
  nextAfter(instant: number): Interval | null {
    this.intervalAt(instant)
    return this.intervals.find(([from]) => from > instant) ?? null
  }
}

import { getTimes } from 'suncalc'
import { offsetAt } from './zone.ts'
import { parseSpanEnd, type SpanEnd } from '../formats/spanEnd.ts'
import { WEEKDAYS, type Schedule, type SitePosition, type Weekday } from '../formats/plan.ts'

const MINUTE = 60_000
const DAY = 24 * 60 * MINUTE

interface Stretch {
  from: number
  to: number
  offset: number
}

/** Of the last few questions: a site is asked for the same year again and again, and finding them takes some 30 ms. */
const known = new Map<string, readonly Stretch[]>()
const MAX_KNOWN = 20

/** Stretches of constant offset from UTC in `[from, to)`; a change of the clock is found to the minute. */
function offsetStretches(zone: string, from: number, to: number): readonly Stretch[] {
  const key = `${zone} ${from} ${to}`
  let stretches = known.get(key)
  if (!stretches) {
    stretches = findStretches(zone, from, to)
    if (known.size >= MAX_KNOWN) known.clear()
    known.set(key, stretches)
  }
  return stretches
}

function findStretches(zone: string, from: number, to: number): Stretch[] {
  const stretches = [{ from, to, offset: offsetAt(zone, from) }]
  const step = 3 * 60 * MINUTE
  for (let t = from; t < to; t += step) {
    const end = Math.min(t + step, to)
    const last = stretches[stretches.length - 1]!
    if (offsetAt(zone, end) === last.offset) continue
    let low = Math.floor(t / MINUTE)
    let high = Math.ceil(end / MINUTE)
    while (high - low > 1) {
      const middle = (low + high) >> 1
      if (offsetAt(zone, middle * MINUTE) === last.offset) low = middle
      else high = middle
    }
    if (high * MINUTE >= to) continue
    last.to = high * MINUTE
    stretches.push({ from: high * MINUTE, to, offset: offsetAt(zone, high * MINUTE) })
  }
  return stretches
}

/** A local date, or the part of it on one side of a change of the clock. */
export interface CalendarDay {
  /** `2026-11-24` */
  date: string
  weekday: Weekday
  /** Local midnight, kept as if it were UTC: milliseconds. */
  midnight: number
  /** Milliseconds by which the wall clock is ahead of UTC. */
  shift: number
  /** The part of the date that is meant, milliseconds of UTC. */
  from: number
  to: number
}

const ZERO = 48

/**
 * Milliseconds after midnight of a time such as `18:30`; NaN for anything else. Read often, so no
 * pattern is matched.
 */
function clockMs(text: string): number {
  if (text.length !== 5 || text.charCodeAt(2) !== 58) return NaN
  return (
    ((text.charCodeAt(0) - ZERO) * 600 +
      (text.charCodeAt(1) - ZERO) * 60 +
      (text.charCodeAt(3) - ZERO) * 10 +
      (text.charCodeAt(4) - ZERO)) *
    MINUTE
  )
}

/**
 * The days between two instants on a site's wall clock, and the hours of schedules on them. Days and times of the sun
 * are found once, however many schedules are asked for. The wall clock decides: an hour that does not exist on the day
 * the clock changes is not there, an hour that comes twice is there twice (docs/detections.md).
 */
export class Calendar {
  readonly days: readonly CalendarDay[]
  private readonly zone: string
  private readonly position: SitePosition | undefined
  private readonly sunOf = new Map<CalendarDay, { sunrise: number; sunset: number }>()

  /** @param from, to milliseconds of UTC */
  constructor(timeZone: string, position: SitePosition | undefined, from: number, to: number) {
    this.zone = timeZone
    this.position = position
    const days: CalendarDay[] = []
    for (const stretch of offsetStretches(this.zone, from, to)) {
      const shift = stretch.offset * MINUTE
      // Local times are kept as if they were UTC; a local date then is a whole number of days.
      for (
        let day = Math.floor((stretch.from + shift) / DAY);
        day * DAY < stretch.to + shift;
        day++
      ) {
        const midnight = day * DAY
        const at = new Date(midnight)
        days.push({
          date: at.toISOString().slice(0, 10),
          weekday: WEEKDAYS[(at.getUTCDay() + 6) % 7]!,
          midnight,
          shift,
          from: Math.max(stretch.from, midnight - shift),
          to: Math.min(stretch.to, midnight + DAY - shift)
        })
      }
    }
    this.days = days
  }

  /** Whether the sun's times can be told: the position is known. */
  get hasSun(): boolean {
    return this.position !== undefined
  }

  /**
   * Sunrise and sunset of a day, as milliseconds after its local midnight on the wall clock. Where the sun does not set,
   * its day is the whole date; where it does not rise, both are at noon. Source: suncalc.
   *
   * @throws TypeError without a position
   */
  sun(day: CalendarDay): { sunrise: number; sunset: number } {
    const known = this.sunOf.get(day)
    if (known) return known
    if (!this.position) throw new TypeError('a span tied to the sun needs the position of the site')
    const noon = day.midnight + DAY / 2
    const times = getTimes(
      new Date(noon - offsetAt(this.zone, noon) * MINUTE),
      this.position.latitude,
      this.position.longitude
    )
    const wall = (event: Date | null | undefined, whole: number): number => {
      if (event)
        return event.getTime() + offsetAt(this.zone, event.getTime()) * MINUTE - day.midnight
      return times.alwaysUp ? whole : DAY / 2
    }
    const found = { sunrise: wall(times.sunrise, 0), sunset: wall(times.sunset, DAY) }
    this.sunOf.set(day, found)
    return found
  }

  /** A span's end on a day, as milliseconds after its local midnight on the wall clock. */
  wallOf(end: SpanEnd, day: CalendarDay): number {
    if ('minutes' in end) return end.minutes * MINUTE
    return Math.min(DAY, Math.max(0, this.sun(day)[end.sun] + end.offset * MINUTE))
  }

  private endOn(text: string, day: CalendarDay): number {
    const fixed = clockMs(text)
    if (fixed === fixed) return fixed
    const end = parseSpanEnd(text)
    if (!end) throw new TypeError(`not a span's end: ${text}`)
    return this.wallOf(end, day)
  }

  /**
   * When a schedule is armed, as pairs of from and to in milliseconds of UTC, in order, none touching the next.
   *
   * @param schedule left out: always
   */
  hours(schedule: Schedule | undefined): Float64Array {
    const { days } = this
    if (!days.length) return new Float64Array(0)
    if (!schedule) return Float64Array.of(days[0]!.from, days[days.length - 1]!.to)
    const exceptions = schedule.exceptions.length
      ? new Map(schedule.exceptions.map((e) => [e.date, e.spans]))
      : null
    const found: number[] = []
    let ordered = true
    for (const day of days) {
      const spans = exceptions?.get(day.date) ?? schedule.week[day.weekday]
      const base = day.midnight - day.shift
      for (const [a, b] of spans) {
        const from = Math.max(base + this.endOn(a, day), day.from)
        const to = Math.min(base + this.endOn(b, day), day.to)
        if (!(from < to)) continue
        const last = found.length - 1
        if (last > 0 && from <= found[last]! && from >= found[last - 1]!)
          found[last] = Math.max(found[last]!, to)
        else {
          ordered &&= last < 0 || from > found[last]!
          found.push(from, to)
        }
      }
    }
    return ordered ? Float64Array.from(found) : merged(found)
  }
}

/** Pairs in any order, made pairs in order that do not touch. */
function merged(pairs: readonly number[]): Float64Array {
  const starts = Array.from({ length: pairs.length / 2 }, (_, i) => 2 * i).sort(
    (i, j) => pairs[i]! - pairs[j]!
  )
  const result: number[] = []
  for (const i of starts) {
    const last = result.length - 1
    if (last > 0 && pairs[i]! <= result[last]!)
      result[last] = Math.max(result[last]!, pairs[i + 1]!)
    else result.push(pairs[i]!, pairs[i + 1]!)
  }
  return Float64Array.from(result)
}

import { ArmedHours, type Interval } from '../arming/armedHours.ts'
import { Calendar } from '../arming/calendar.ts'
import { wallInstant } from '../arming/zone.ts'
import type { Schedule, SitePosition } from '../formats/plan.ts'
import type { Light } from '../formats/walk.ts'

/** The site's clock and hours, as far as checks need them. */
export interface SiteClock {
  timeZone: string
  position: SitePosition | undefined
  schedules: readonly Schedule[]
}

const MINUTE = 60_000
const HOUR = 60 * MINUTE
const DAY = 24 * HOUR
/** How far from an end of the hours a walk beside it stays. */
const CLEAR_MS = 5000

export interface Moments {
  /** Well within the armed hours; null: never armed in the days looked at. */
  armed: number | null
  /**
   * Of a walk of so many seconds, wholly on one side of the hours' begin, or of their end; null: no
   * such end is near.
   */
  beforeBegin: number | null
  afterBegin: number | null
  beforeEnd: number | null
  afterEnd: number | null
}

/** The hours of a schedule around an instant: the first armed stretch that ends after it. Undefined: always. */
function stretchAt(
  schedule: string | undefined,
  { schedules, timeZone, position }: SiteClock,
  from: number
): Interval | null {
  if (schedule === undefined) return [-Infinity, Infinity]
  const found = schedules.find((s) => s.id === schedule)
  if (!found) return null
  const hours = new ArmedHours(found, timeZone, position)
  for (let t = from, days = 0; days < 8; days++, t += DAY) {
    const at = hours.intervalAt(t) ?? hours.nextAfter(t)
    if (at) return at
  }
  return null
}

/** Noon at the site of an instant's day. */
const noonOf = (instant: number, timeZone: string): number => {
  const date = new Intl.DateTimeFormat('en-CA', {
    timeZone,
    year: 'numeric',
    month: '2-digit',
    day: '2-digit'
  }).format(instant)
  return wallInstant(`${date}T12:00`, timeZone) ?? instant
}

/**
 * When walks of `seconds` can be walked so that a schedule is, or just is not, armed; looked for
 * from an instant on.
 */
export function momentsOf(
  schedule: string | undefined,
  site: SiteClock,
  from: number,
  seconds: number
): Moments {
  const stretch = stretchAt(schedule, site, from)
  const none: Moments = {
    armed: null,
    beforeBegin: null,
    afterBegin: null,
    beforeEnd: null,
    afterEnd: null
  }
  if (!stretch) return none
  const [begin, end] = stretch
  const takes = seconds * 1000 + CLEAR_MS
  const whole = (t: number): number => Math.ceil(t / 1000) * 1000
  if (begin === -Infinity && end === Infinity)
    return { ...none, armed: noonOf(from, site.timeZone) }
  const low = begin === -Infinity ? end - DAY : begin
  const high = end === Infinity ? begin + DAY : end
  if (high - low < takes + CLEAR_MS) return none
  const noon = noonOf(Math.max(low, from), site.timeZone)
  const middle = Math.min(low + (high - low) / 2, low + 4 * HOUR)
  return {
    armed:
      noon > low + CLEAR_MS && noon + takes < high ? noon : whole(Math.min(middle, high - takes)),
    beforeBegin: begin === -Infinity ? null : whole(begin - takes),
    afterBegin: begin === -Infinity ? null : whole(begin + CLEAR_MS / 5),
    beforeEnd: end === Infinity ? null : whole(end - takes),
    afterEnd: end === Infinity ? null : whole(end + CLEAR_MS / 5)
  }
}

/** An instant at which both schedules are armed, or the first is and the second is not; within eight days. */
export function sharedMoment(
  schedule: string | undefined,
  other: string,
  acts: boolean,
  site: SiteClock,
  from: number,
  seconds: number
): number | null {
  const calendar = new Calendar(site.timeZone, site.position, from, from + 8 * DAY)
  const of = (id: string | undefined): Float64Array =>
    calendar.hours(
      id === undefined
        ? undefined
        : (site.schedules.find((s) => s.id === id) ?? {
            id,
            name: id,
            week: { mon: [], tue: [], wed: [], thu: [], fri: [], sat: [], sun: [] },
            exceptions: []
          })
    )
  const [a, b] = [of(schedule), of(other)]
  const takes = seconds * 1000 + CLEAR_MS
  const inside = (hours: Float64Array, at: number): boolean => {
    for (let i = 0; i < hours.length; i += 2)
      if (hours[i]! <= at && at + takes <= hours[i + 1]!) return true
    return false
  }
  const clear = (hours: Float64Array, at: number): boolean => {
    for (let i = 0; i < hours.length; i += 2)
      if (at < hours[i + 1]! && at + takes > hours[i]!) return false
    return true
  }
  for (let t = Math.ceil(from / (15 * MINUTE)) * 15 * MINUTE; t < from + 7 * DAY; t += 15 * MINUTE)
    if (inside(a, t) && (acts ? inside(b, t) : clear(b, t))) return t
  return null
}

/** Daylight or not at an instant; without a position the hours from seven to seven count as day. */
export function lightAt(instant: number, { timeZone, position }: SiteClock): Light {
  const calendar = new Calendar(timeZone, position, instant - DAY, instant + DAY)
  const day = calendar.days.find((d) => d.from <= instant && instant < d.to)
  if (!day) return 'day'
  const wall = instant + day.shift - day.midnight
  const { sunrise, sunset } = calendar.hasSun
    ? calendar.sun(day)
    : { sunrise: 7 * HOUR, sunset: 19 * HOUR }
  return wall >= sunrise && wall < sunset ? 'day' : 'infrared'
}

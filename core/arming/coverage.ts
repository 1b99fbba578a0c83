import type { Schedule, SitePosition } from '../formats/plan.ts'
import { Calendar } from './calendar.ts'
import { shared, total, without, type Hours } from './hours.ts'
import { stretchesOf, type HoursByDay } from './stretches.ts'

const DAY = 24 * 60 * 60_000
const WEEKS = 52

/** How the schedules of a detection and of its actions meet, as a mean over a year ahead. */
export interface Coverage {
  /** Minutes a week in which the detection is armed. */
  armed: number
  /** Of these, minutes in which the other may act. */
  acting: number
}

/** The share of the armed time in which it can act; null: never armed. */
export const shareOf = ({ armed, acting }: Coverage): number | null =>
  armed > 0 ? acting / armed : null

/**
 * The hours of a site's schedules over the 52 weeks that begin with the Monday of an instant, so that exceptions, the
 * sun and both changes of the clock are counted as they come. Each schedule is worked out once, each pair of schedules
 * as well.
 */
export class SiteHours {
  readonly calendar: Calendar
  private readonly schedules: ReadonlyMap<string, Schedule>
  private readonly known = new Map<string, Hours>()
  private readonly pairs = new Map<string, Coverage>()

  constructor(
    schedules: readonly Schedule[],
    timeZone: string,
    position: SitePosition | undefined,
    instant: number
  ) {
    this.schedules = new Map(schedules.map((s) => [s.id, s]))
    this.calendar = new Calendar(timeZone, position, ...yearFrom(instant, timeZone))
  }

  /** @param schedule its id; left out: always. One that is not there arms nothing. */
  hours(schedule: string | undefined): Hours {
    const key = schedule ?? ''
    let hours = this.known.get(key)
    if (!hours) {
      const found = schedule === undefined ? undefined : this.schedules.get(schedule)
      hours = schedule !== undefined && !found ? new Float64Array(0) : this.calendar.hours(found)
      this.known.set(key, hours)
    }
    return hours
  }

  /** How the hours of a detection and of an endpoint meet, by the ids of their schedules. */
  coverage(detection: string | undefined, endpoint: string | undefined): Coverage {
    const key = `${detection ?? ''} ${endpoint ?? ''}`
    let known = this.pairs.get(key)
    if (!known) {
      const [a, b] = [this.hours(detection), this.hours(endpoint)]
      const perWeek = (ms: number): number => ms / 60_000 / WEEKS
      known = { armed: perWeek(total(a)), acting: perWeek(shared(a, b)) }
      this.pairs.set(key, known)
    }
    return known
  }

  /** When the detection is armed and the endpoint silent, named. */
  silent(detection: string | undefined, endpoint: string | undefined): HoursByDay {
    return stretchesOf(without(this.hours(detection), this.hours(endpoint)), this.calendar)
  }
}

/** From the local midnight of an instant's Monday to that of the Monday 52 weeks later, milliseconds of UTC. */
function yearFrom(instant: number, timeZone: string): [number, number] {
  const near = new Calendar(timeZone, undefined, instant - 8 * DAY, instant + 1)
  const monday = near.days
    .filter((d) => d.weekday === 'mon' && d.from <= instant)
    .reduce((best, d) => (d.midnight > best.midnight ? d : best))
  const begin = near.days.find((d) => d.date === monday.date)!
  const end = begin.midnight + WEEKS * 7 * DAY
  const last = new Calendar(
    timeZone,
    undefined,
    end - begin.shift - DAY,
    end - begin.shift + DAY
  ).days.find((d) => d.midnight === end)!
  return [begin.midnight - begin.shift, end - last.shift]
}

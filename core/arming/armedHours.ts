import type { Schedule, SitePosition } from '../formats/plan.ts'
import { Calendar } from './calendar.ts'

/** `[from, to)` in milliseconds of UTC. */
export type Interval = readonly [from: number, to: number]

const DAY = 24 * 60 * 60_000

/**
 * When a schedule is armed between two instants. The wall clock decides: an hour that does not exist on the
 * day the clock changes is not armed, an hour that comes twice is armed twice (docs/detections.md).
 *
 * @param from, to milliseconds of UTC
 * @returns intervals in order, none touching another
 */
export function armedIntervals(
  schedule: Schedule,
  timeZone: string,
  position: SitePosition | undefined,
  from: number,
  to: number
): Interval[] {
  const hours = new Calendar(timeZone, position, from, to).hours(schedule)
  return Array.from(
    { length: hours.length / 2 },
    (_, i) => [hours[2 * i]!, hours[2 * i + 1]!] as const
  )
}

const WINDOW = 4 * DAY

/**
 * Answers "armed at this instant?" quickly for many instants near each other, keeping the hours
 * around the last one.
 */
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
    return found
      ? [
          found[0] <= this.window[0] ? -Infinity : found[0],
          found[1] >= this.window[1] ? Infinity : found[1]
        ]
      : null
  }

  /** When it is armed next after the instant, or null if not within some days. */
  nextAfter(instant: number): Interval | null {
    this.intervalAt(instant)
    return this.intervals.find(([from]) => from > instant) ?? null
  }
}

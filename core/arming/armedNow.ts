import { said, type Said } from '../messages/said.ts'
import type { ArmInputs } from './armInputs.ts'
import { isSet } from './armInputs.ts'
import { Calendar } from './calendar.ts'
import type { Detection, Schedule, SitePosition } from '../formats/plan.ts'
import { clockText } from './spans.ts'
import { holds } from './hours.ts'

const DAY = 24 * 60 * 60_000
/** How far the next beginning is looked for. */
const AHEAD = 8 * DAY

export interface Answer {
  armed: boolean
  words: Said
  /** When that ends or begins by the schedule; null: not within eight days. */
  until: number | null
}

interface SiteClock {
  timeZone: string
  position: SitePosition | undefined
}

/** `06:30`, with the day where it is another one. */
function moment(instant: number, from: number, calendar: Calendar): Said {
  const dayOf = (t: number) => calendar.days.find((d) => d.from <= t && t < d.to)
  // A midnight is the end of the day before: 24:00.
  const at = dayOf(instant - 1) ?? dayOf(instant)
  if (!at) return said('arming.clock', '')
  const minutes = Math.round((instant - (at.midnight - at.shift)) / 60_000)
  const clock = clockText(minutes)
  return at.date === dayOf(from)?.date
    ? said('arming.clock', clock)
    : said('arming.dayAndClock', said(`days.${at.weekday}`), clock)
}

/** Whether a schedule arms an instant, and why. */
export function scheduleAt(
  schedule: Schedule | undefined,
  { timeZone, position }: SiteClock,
  instant: number
): Answer {
  if (!schedule) return { armed: true, words: said('arming.alwaysArmed'), until: null }
  const calendar = new Calendar(timeZone, position, instant - DAY, instant + AHEAD)
  const hours = calendar.hours(schedule)
  const today = calendar.days.find((d) => d.from <= instant && instant < d.to)!
  const exception = schedule.exceptions.find((e) => e.date === today.date)
  const because = exception
    ? said('arming.exception', exception.name ?? said('arming.date', exception.date))
    : null
  const last = calendar.days[calendar.days.length - 1]!.to
  if (holds(hours, instant)) {
    const i = hours.findIndex((t, k) => k % 2 === 1 && t > instant)
    if (hours[i]! >= last)
      return {
        armed: true,
        words: said('arming.longer', schedule.name, because),
        until: null
      }
    return {
      armed: true,
      words: said('arming.until', schedule.name, moment(hours[i]!, instant, calendar), because),
      until: hours[i]!
    }
  }
  const next = hours.find((t, k) => k % 2 === 0 && t > instant)
  if (next === undefined)
    return {
      armed: false,
      words: said('arming.notSoon', schedule.name, because),
      until: null
    }
  return {
    armed: false,
    words: said('arming.from', schedule.name, moment(next + 1, instant, calendar), because),
    until: next
  }
}

/** Whether a detection is armed at an instant by its hours and its arm input, and why. */
export function armedAt(
  detection: Pick<Detection, 'schedule' | 'armInput' | 'enabled'>,
  schedules: readonly Schedule[],
  site: SiteClock,
  inputs: ArmInputs,
  instant: number,
  inputName: (id: string) => string = (id) => id
): Answer {
  if (!detection.enabled) return { armed: false, words: said('arming.switchedOff'), until: null }
  const hours = scheduleAt(
    schedules.find((s) => s.id === detection.schedule),
    site,
    instant
  )
  if (!detection.armInput) return hours
  const { input, inverted } = detection.armInput
  const set = isSet(inputs, input, instant)
  if (set === inverted)
    return {
      armed: false,
      words: said('arming.needsInput', inputName(input), set, inverted),
      until: null
    }
  return { ...hours, words: said('arming.withInput', hours.words, inputName(input), set) }
}

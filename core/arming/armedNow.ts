import type { ArmInputs } from './armInputs.ts'
import { isSet } from './armInputs.ts'
import { Calendar } from './calendar.ts'
import type { Detection, Schedule, SitePosition } from '../formats/plan.ts'
import { clockText } from './spans.ts'
import { DAY_NAMES, dateInWords } from './stretches.ts'
import { holds } from './hours.ts'

const DAY = 24 * 60 * 60_000
/** How far the next beginning is looked for. */
const AHEAD = 8 * DAY

export interface Answer {
  armed: boolean
  /** Why, in words. */
  words: string
  /** When that ends or begins by the schedule; null: not within eight days. */
  until: number | null
}

interface SiteClock {
  timeZone: string
  position: SitePosition | undefined
}

/** `06:30`, with the day where it is another one. */
function moment(instant: number, from: number, calendar: Calendar): string {
  const dayOf = (t: number) => calendar.days.find((d) => d.from <= t && t < d.to)
  // A midnight is the end of the day before: 24:00.
  const at = dayOf(instant - 1) ?? dayOf(instant)
  if (!at) return ''
  const minutes = Math.round((instant - (at.midnight - at.shift)) / 60_000)
  const clock = clockText(minutes)
  return at.date === dayOf(from)?.date ? clock : `${DAY_NAMES[at.weekday]} ${clock}`
}

/** Whether a schedule arms an instant, and why. */
export function scheduleAt(
  schedule: Schedule | undefined,
  { timeZone, position }: SiteClock,
  instant: number
): Answer {
  if (!schedule)
    return { armed: true, words: 'It has no hours, so it is always armed.', until: null }
  const calendar = new Calendar(timeZone, position, instant - DAY, instant + AHEAD)
  const hours = calendar.hours(schedule)
  const today = calendar.days.find((d) => d.from <= instant && instant < d.to)!
  const exception = schedule.exceptions.find((e) => e.date === today.date)
  const because = exception
    ? `, an exception for ${exception.name ?? dateInWords(exception.date)}`
    : ''
  const last = calendar.days[calendar.days.length - 1]!.to
  if (holds(hours, instant)) {
    const i = hours.findIndex((t, k) => k % 2 === 1 && t > instant)
    if (hours[i]! >= last)
      return {
        armed: true,
        words: `${schedule.name} goes on for more than a week${because}.`,
        until: null
      }
    return {
      armed: true,
      words: `${schedule.name} runs to ${moment(hours[i]!, instant, calendar)}${because}.`,
      until: hours[i]!
    }
  }
  const next = hours.find((t, k) => k % 2 === 0 && t > instant)
  if (next === undefined)
    return {
      armed: false,
      words: `${schedule.name} does not begin within a week${because}.`,
      until: null
    }
  return {
    armed: false,
    words: `${schedule.name} begins ${moment(next + 1, instant, calendar)}${because}.`,
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
  if (!detection.enabled) return { armed: false, words: 'It is switched off.', until: null }
  const hours = scheduleAt(
    schedules.find((s) => s.id === detection.schedule),
    site,
    instant
  )
  if (!detection.armInput) return hours
  const { input, inverted } = detection.armInput
  const set = isSet(inputs, input, instant)
  const said = `${inputName(input)} is ${set ? 'set' : 'not set'}`
  if (set === inverted)
    return {
      armed: false,
      words: `${said}, and it counts only while that is ${inverted ? 'not set' : 'set'}.`,
      until: null
    }
  return { ...hours, words: `${hours.words.replace(/\.$/, '')}, and ${said}.` }
}

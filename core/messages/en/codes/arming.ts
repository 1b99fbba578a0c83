import { dateText, list } from '../../format.ts'
import { messages } from '../../messages.ts'

/** Days of the week. */
export const days = messages({
  mon: 'Monday',
  tue: 'Tuesday',
  wed: 'Wednesday',
  thu: 'Thursday',
  fri: 'Friday',
  sat: 'Saturday',
  sun: 'Sunday'
})

export const shortDays = messages({
  mon: 'Mon',
  tue: 'Tue',
  wed: 'Wed',
  thu: 'Thu',
  fri: 'Fri',
  sat: 'Sat',
  sun: 'Sun'
})

const ORDER = Object.keys(days)
const short = (day: number): string => shortDays[ORDER[day] as keyof typeof days]

/** `Mon to Fri`, `Sat and Sun`, `every day`. */
function daysText(weekdays: readonly string[]): string {
  if (weekdays.length === ORDER.length) return 'every day'
  const runs: number[][] = []
  for (const day of weekdays.map((d) => ORDER.indexOf(d))) {
    const run = runs[runs.length - 1]
    if (run && run[run.length - 1] === day - 1) run.push(day)
    else runs.push([day])
  }
  return list(
    runs.flatMap((run) =>
      run.length > 2 ? [`${short(run[0]!)} to ${short(run[run.length - 1]!)}`] : run.map(short)
    )
  )
}

const MAX_DATES = 3

function datesText(dates: readonly string[]): string {
  const named = dates.slice(0, MAX_DATES).map(dateText).join(', ')
  const more = dates.length - MAX_DATES
  return more > 0 ? `${named} and ${more} more dates` : named
}

/** Whether something is armed, and why. */
export const arming = messages({
  fromACalendar: 'Hours from a calendar',
  alwaysArmed: 'No schedule: always armed.',
  switchedOff: 'Switched off.',
  longer: (schedule: string, because: string | null) =>
    `${schedule} continues for more than a week${because ? `, ${because}` : ''}.`,
  until: (schedule: string, moment: string, because: string | null) =>
    `${schedule} ends ${moment}${because ? `, ${because}` : ''}.`,
  notSoon: (schedule: string, because: string | null) =>
    `${schedule} does not start within a week${because ? `, ${because}` : ''}.`,
  from: (schedule: string, moment: string, because: string | null) =>
    `${schedule} starts ${moment}${because ? `, ${because}` : ''}.`,
  exception: (name: string) => `exception for ${name}`,
  date: (date: string) => dateText(date),
  clock: (clock: string) => clock,
  dayAndClock: (day: string, clock: string) => `${day} ${clock}`,
  needsInput: (input: string, set: boolean, inverted: boolean) =>
    `Not armed: ${input} is ${set ? 'set' : 'not set'}, and must be ${inverted ? 'not set' : 'set'}.`,
  withInput: (why: string, input: string, set: boolean) =>
    `${why.replace(/\.$/, '')}; ${input} is ${set ? 'set' : 'not set'}.`,
  /** Hours that recur: days of the week, or single dates; spans as from, to, from, to. */
  stretch: (
    weekdays: readonly string[],
    dates: readonly string[],
    spans: readonly string[],
    about: boolean,
    partly: boolean
  ) => {
    const texts: string[] = []
    for (let i = 0; i < spans.length; i += 2) texts.push(`${spans[i]!} to ${spans[i + 1]!}`)
    return `${weekdays.length ? daysText(weekdays) : datesText(dates)}, ${about ? 'about ' : ''}${
      texts.join(', ') || 'none'
    }${partly ? ', for part of the year' : ''}`
  }
})

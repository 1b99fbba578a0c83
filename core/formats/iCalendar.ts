import { wordsOf } from '../messages/words.ts'
import { coded, said, type Said } from '../messages/said.ts'
import ICAL from 'ical.js'
import { DateTime } from 'luxon'
import { Calendar, type CalendarDay } from '../arming/calendar.ts'
import { clockText } from '../arming/spans.ts'
import { InputError } from '../errors.ts'
import { parseSpanEnd } from './spanEnd.ts'
import { WEEKDAYS, type Schedule, type SitePosition, type Span, type Weekday } from './plan.ts'

/**
 * Arming schedules as iCalendar (RFC 5545), out and in. A span is an event; the week recurs weekly, an exception takes
 * its date out of the week and adds events of its own. Ends tied to the sun have no word there: such days are written
 * one by one, for a year.
 */

const DAY = 24 * 60 * 60_000
const YEAR_DAYS = 366
const BYDAY: Record<Weekday, string> = {
  mon: 'MO',
  tue: 'TU',
  wed: 'WE',
  thu: 'TH',
  fri: 'FR',
  sat: 'SA',
  sun: 'SU'
}

export interface CalendarSite {
  timeZone: string
  position: SitePosition | undefined
}

/** Local time kept as if it were UTC, as a time without a zone. */
const wall = (ms: number): ICAL.Time =>
  ICAL.Time.fromDateTimeString(new Date(ms).toISOString().slice(0, 19))
const utc = (ms: number): ICAL.Time =>
  ICAL.Time.fromDateTimeString(`${new Date(ms).toISOString().slice(0, 19)}Z`)

type Value = string | ICAL.Time | ICAL.Recur | ICAL.UtcOffset

/** A component with its properties; a time on the clock of a zone names it. */
function component(
  name: string,
  properties: readonly (readonly [name: string, value: Value, timeZone?: string])[]
): ICAL.Component {
  const made = new ICAL.Component(name)
  for (const [key, value, timeZone] of properties) {
    const property = made.addPropertyWithValue(key, value)
    if (timeZone) property.setParameter('tzid', timeZone)
  }
  return made
}

/** The zone's offsets over the days, each change one observance. */
function zoneOf(timeZone: string, days: readonly CalendarDay[]): ICAL.Component {
  const zone = component('vtimezone', [['tzid', timeZone]])
  const least = Math.min(...days.map((d) => d.shift))
  let before = days[0]!.shift
  days.forEach((day, i) => {
    if (i > 0 && day.shift === before) return
    // An observance begins on the clock that was there before it.
    const from = i === 0 ? day.midnight - 365 * DAY : day.from + before
    zone.addSubcomponent(
      component(day.shift > least ? 'daylight' : 'standard', [
        ['dtstart', wall(from)],
        ['tzoffsetfrom', ICAL.UtcOffset.fromSeconds(before / 1000)],
        ['tzoffsetto', ICAL.UtcOffset.fromSeconds(day.shift / 1000)]
      ])
    )
    before = day.shift
  })
  return zone
}

/** @param from when the calendar begins, milliseconds of UTC; its first week is the one of that day */
export function writeCalendar(
  schedule: Schedule,
  { timeZone, position }: CalendarSite,
  from: number
): string {
  const { days } = new Calendar(timeZone, position, from, from + YEAR_DAYS * DAY)
  const sun = new Calendar(timeZone, position, days[0]!.from, days[days.length - 1]!.to)
  const calendar = component('vcalendar', [
    ['version', '2.0'],
    ['prodid', '-//Wardoptic//Arming hours//EN'],
    ['calscale', 'GREGORIAN'],
    // No property of the standard: ical.js writes it as it is given.
    ['x-wr-calname', schedule.name.replace(/[\\;,]/g, '\\$&')]
  ])
  calendar.addSubcomponent(zoneOf(timeZone, days))
  let number = 0
  const event = (
    begin: number,
    end: number,
    more: readonly (readonly [name: string, value: Value, timeZone?: string])[] = []
  ): void => {
    if (end <= begin) return
    calendar.addSubcomponent(
      component('vevent', [
        ['uid', `${schedule.id}-${++number}@wardoptic`],
        ['dtstamp', utc(from)],
        ['summary', `Armed: ${schedule.name}`],
        ['dtstart', wall(begin), timeZone],
        ['dtend', wall(end), timeZone],
        ...more
      ])
    )
  }
  const onDay = ([a, b]: Span, day: CalendarDay): void =>
    event(
      day.midnight + sun.wallOf(parseSpanEnd(a)!, day),
      day.midnight + sun.wallOf(parseSpanEnd(b)!, day)
    )
  // Each date once, also where the clock changes on it.
  const dates = sun.days.filter((d, i) => i === 0 || d.date !== sun.days[i - 1]!.date)
  const isException = (date: string): boolean => schedule.exceptions.some((e) => e.date === date)
  const weekly = new Map<string, { span: Span; weekdays: Weekday[] }>()
  for (const weekday of WEEKDAYS)
    for (const span of schedule.week[weekday]) {
      if (span.some((end) => end.startsWith('sun'))) {
        for (const day of dates)
          if (day.weekday === weekday && !isException(day.date)) onDay(span, day)
        continue
      }
      const key = span.join()
      const known = weekly.get(key) ?? { span, weekdays: [] }
      known.weekdays.push(weekday)
      weekly.set(key, known)
    }
  for (const { span, weekdays } of weekly.values()) {
    const first = dates.find((d) => weekdays.includes(d.weekday))!
    const at = (end: string): number => first.midnight + sun.wallOf(parseSpanEnd(end)!, first)
    const out = schedule.exceptions.filter((e) =>
      weekdays.includes(WEEKDAYS[(new Date(`${e.date}T00:00Z`).getUTCDay() + 6) % 7]!)
    )
    event(at(span[0]), at(span[1]), [
      [
        'rrule',
        ICAL.Recur.fromString(`FREQ=WEEKLY;BYDAY=${weekdays.map((d) => BYDAY[d]).join(',')}`)
      ],
      ...out.map(
        ({ date }) =>
          [
            'exdate',
            wall(Date.parse(`${date}T00:00Z`) + at(span[0]) - first.midnight),
            timeZone
          ] as const
      )
    ])
  }
  for (const exception of schedule.exceptions) {
    const midnight = Date.parse(`${exception.date}T00:00Z`)
    const day = dates.find((d) => d.date === exception.date) ?? {
      ...dates[0]!,
      date: exception.date,
      midnight
    }
    for (const span of exception.spans) onDay(span, day)
  }
  return `${calendar.toString()}\r\n`
}

const MAX_OCCURRENCES = 20_000
/** More is no calendar of armed hours; each event costs time. */
const MAX_EVENTS = 5000
const MAX_DATES = 5000
const MAX_INTERVAL = 1000
const MAX_DURATION_DAYS = 366
const YEARS = [1970, 2200] as const

/**
 * Refuses numbers that no calendar of armed hours has: ical.js counts them out one by one. A rule that never comes true
 * (the 30th of February) is not seen from its numbers: whoever reads calendars of others does so with a time limit.
 *
 * @throws InputError that names the event
 */
function checkBounds(component: ICAL.Component): void {
  const named = String(
    component.getFirstPropertyValue('summary') ?? component.getFirstPropertyValue('uid') ?? ''
  ).slice(0, 60)
  const wrong = (what: Said): InputError =>
    new InputError(coded('places.calendar'), said('formats.hasTheEvent', named, what))
  for (const property of component.getAllProperties('rrule')) {
    const { freq, interval, parts } = property.getFirstValue() as unknown as ICAL.Recur & {
      parts: Record<string, unknown[]>
    }
    if (freq === 'SECONDLY' || freq === 'MINUTELY')
      throw wrong(said('formats.aRuleOfEachSecond', freq === 'SECONDLY'))
    if (!(interval >= 1 && interval <= MAX_INTERVAL))
      throw wrong(said('formats.theIntervalMustBe', interval, MAX_INTERVAL))
    if (Object.values(parts ?? {}).some((list) => list.length > 400))
      throw wrong(said('formats.aRuleOfMoreThan'))
  }
  if (
    [...component.getAllProperties('rdate'), ...component.getAllProperties('exdate')].reduce(
      (n, p) => n + p.getValues().length,
      0
    ) > MAX_DATES
  )
    throw wrong(said('formats.moreThanDatesOfIts', MAX_DATES))
  const duration = component.getFirstPropertyValue('duration') as unknown as ICAL.Duration | null
  if (duration) {
    const days =
      duration.weeks * 7 +
      duration.days +
      duration.hours / 24 +
      duration.minutes / 1440 +
      duration.seconds / 86_400
    if (duration.isNegative || !(days <= MAX_DURATION_DAYS))
      throw wrong(said('formats.aDurationThatIsNegative', MAX_DURATION_DAYS))
  }
  for (const name of ['dtstart', 'dtend', 'recurrence-id']) {
    const time = component.getFirstPropertyValue(name) as unknown as ICAL.Time | null
    if (
      time &&
      !(
        time.year >= YEARS[0] &&
        time.year <= YEARS[1] &&
        time.month >= 1 &&
        time.month <= 12 &&
        time.day >= 1 &&
        time.day <= 31
      )
    )
      throw wrong(said('formats.thatIsNoDate', name.toUpperCase(), ...YEARS))
  }
}

/** An iCalendar time as milliseconds of UTC; without a zone it is the site's. */
function instantOf(time: ICAL.Time, tzid: string | undefined, timeZone: string): number {
  const { year, month, day, hour, minute } = time
  const zone =
    time.zone?.tzid === 'UTC'
      ? 'utc'
      : tzid && tzid !== 'floating' && DateTime.local({ zone: tzid }).isValid
        ? tzid
        : timeZone
  return DateTime.fromObject(
    { year, month, day, ...(!time.isDate && { hour, minute }) },
    { zone }
  ).toMillis()
}

/** The intervals of the events of a calendar, within a year from an instant. @throws InputError */
function occurrences(
  text: string,
  timeZone: string,
  from: number,
  to: number
): { name: string | null; intervals: [number, number][] } {
  let root: ICAL.Component
  try {
    const parsed = ICAL.parse(text.replace(/^\uFEFF/, '')) as unknown
    root = new ICAL.Component(
      (Array.isArray((parsed as unknown[])[0]) ? (parsed as unknown[])[0] : parsed) as never
    )
  } catch (error) {
    throw new InputError(
      coded('places.calendar'),
      said('formats.isNotIcalendarRfc5545', (error as Error).message)
    )
  }
  if (!root.name)
    throw new InputError(coded('places.calendar'), said('formats.isNotIcalendarRfc55452'))
  if (root.name !== 'vcalendar')
    throw new InputError(
      coded('places.calendar'),
      said('formats.beginsWithMustBe', root.name.toUpperCase())
    )
  const components = root
    .getAllSubcomponents('vevent')
    .filter(
      (c) =>
        String(c.getFirstPropertyValue('transp') ?? '').toUpperCase() !== 'TRANSPARENT' &&
        String(c.getFirstPropertyValue('status') ?? '').toUpperCase() !== 'CANCELLED'
    )
  if (!components.length)
    throw new InputError(coded('places.calendar'), said('formats.hasNoEventsItsEvents'))
  if (components.length > MAX_EVENTS)
    throw new InputError(
      coded('places.calendar'),
      said('formats.hasEventsMustHaveAt', components.length, MAX_EVENTS)
    )
  components.forEach(checkBounds)
  const events = components.map((c) => new ICAL.Event(c))
  const intervals: [number, number][] = []
  for (const event of events.filter((e) => !e.isRecurrenceException())) {
    for (const other of events)
      if (other.isRecurrenceException() && other.uid === event.uid) event.relateException(other)
    const tzidOf = (e: ICAL.Event): string | undefined =>
      e.component.getFirstProperty('dtstart')?.getParameter('tzid') as string | undefined
    if (!event.startDate)
      throw new InputError(
        coded('places.calendar'),
        said('formats.hasTheEvent2', event.summary ?? event.uid)
      )
    const add = (e: ICAL.Event, start: ICAL.Time, end: ICAL.Time): boolean => {
      const [a, b] = [instantOf(start, tzidOf(e), timeZone), instantOf(end, tzidOf(e), timeZone)]
      if (b > from && a < to) intervals.push([Math.max(a, from), Math.min(b, to)])
      return a < to
    }
    if (!event.isRecurring()) add(event, event.startDate, event.endDate)
    else {
      const iterator = event.iterator()
      let n = 0
      for (let next = iterator.next(); next; next = iterator.next()) {
        if (++n > MAX_OCCURRENCES)
          throw new InputError(
            coded('places.calendar'),
            said('formats.hasTheEvent3', event.summary ?? event.uid, MAX_OCCURRENCES)
          )
        const details = event.getOccurrenceDetails(next)
        if (!add(details.item, details.startDate, details.endDate)) break
      }
    }
  }
  const name = root.getFirstPropertyValue('x-wr-calname')
  // Names that begin with X- are of no type that is known there: what is escaped stays so.
  return { name: typeof name === 'string' ? name.replace(/\\([\\;,])/g, '$1') : null, intervals }
}

/**
 * Reads a calendar as a schedule: what its events cover in the year from an instant. The hours of most dates of a
 * weekday are those of the week; dates that differ become exceptions.
 *
 * @throws InputError with what is wrong with the calendar
 */
export function readCalendar(
  text: string,
  id: string,
  { timeZone, position }: CalendarSite,
  from: number
): Schedule {
  // From the next local midnight on: each date is wholly in.
  const near = new Calendar(timeZone, position, from, from + 2 * DAY).days
  const begin = near.find((d) => d.date !== near[0]!.date)!
  const calendar = new Calendar(
    timeZone,
    position,
    begin.midnight - begin.shift,
    begin.midnight - begin.shift + 52 * 7 * DAY
  )
  const to = calendar.days[calendar.days.length - 1]!.to
  const { name, intervals } = occurrences(text, timeZone, begin.midnight - begin.shift, to)
  intervals.sort((a, b) => a[0] - b[0])
  const byDate = new Map<string, { weekday: Weekday; spans: [number, number][] }>()
  for (const day of calendar.days) {
    const of = byDate.get(day.date) ?? { weekday: day.weekday, spans: [] }
    byDate.set(day.date, of)
    const base = day.midnight - day.shift
    for (const [a, b] of intervals) {
      if (a >= day.to) break
      const [start, end] = [Math.max(a, day.from), Math.min(b, day.to)].map((t) =>
        Math.round((t - base) / 60_000)
      ) as [number, number]
      if (start >= end) continue
      const last = of.spans[of.spans.length - 1]
      // Where the clock is put forward, the hour that does not exist does not part what goes over it.
      if (last && start <= last[1] + (day.from !== base ? 60 : 0)) last[1] = Math.max(last[1], end)
      else of.spans.push([start, end])
    }
  }
  const textOf = (spans: readonly [number, number][]): string =>
    spans.map(([a, b]) => `${clockText(a)} ${clockText(b)}`).join()
  const spansOf = (of: string): Span[] =>
    of
      .split(',')
      .filter(Boolean)
      .map((part) => part.split(' ') as unknown as Span)
  const week = {} as Record<Weekday, Span[]>
  const exceptions: Schedule['exceptions'] = []
  for (const weekday of WEEKDAYS) {
    const dates = [...byDate]
      .filter(([, d]) => d.weekday === weekday)
      .map(([date, d]) => ({ date, text: textOf(d.spans) }))
    const counts = new Map<string, number>()
    for (const d of dates) counts.set(d.text, (counts.get(d.text) ?? 0) + 1)
    const [usual] = [...counts].reduce((best, next) => (next[1] > best[1] ? next : best))
    week[weekday] = spansOf(usual)
    exceptions.push(
      ...dates
        .filter((d) => d.text !== usual)
        .map((d) => ({ date: d.date, spans: spansOf(d.text) }))
    )
  }
  return {
    id,
    name: (name?.replace(/^Armed: /, '') ?? wordsOf(said('arming.fromACalendar'))).slice(0, 80),
    week,
    exceptions: exceptions.sort((a, b) => (a.date < b.date ? -1 : 1))
  }
}

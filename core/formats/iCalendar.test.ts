import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import ICAL from 'ical.js'
import { DateTime } from 'luxon'
import { Calendar } from '../arming/calendar.ts'
import { holds } from '../arming/hours.ts'
import { clockText, tidy } from '../arming/spans.ts'
import { readCalendar, writeCalendar } from './iCalendar.ts'
import { ScheduleSchema, WEEKDAYS, type Schedule, type Span } from './plan.ts'
import { parseWith } from '../schema/parse.ts'

const site = { timeZone: 'Europe/London', position: { latitude: 59.0, longitude: -3.0 } }
const from = Date.parse('2026-11-24T12:00Z')
const schedule = (week: object, exceptions: object[] = []): Schedule =>
  parseWith(ScheduleSchema, { id: 's', name: 'Nights; all, and "more"', week, exceptions })
const nights = schedule(
  {
    mon: [
      ['18:30', '24:00'],
      ['00:00', '06:30']
    ],
    tue: [['18:30', '24:00']],
    sat: [['00:00', '24:00']],
    sun: [['00:00', '24:00']]
  },
  [
    { date: '2026-12-26', spans: [['10:00', '11:00']] },
    { date: '2027-01-04', spans: [] }
  ]
)

/** Intervals of a calendar as ical.js, the reference reader, expands them with the calendar's own time zone. */
function expanded(text: string, until: number): [number, number][] {
  const root = new ICAL.Component(ICAL.parse(text))
  const zone = new ICAL.Timezone(root.getFirstSubcomponent('vtimezone')!)
  const instant = (t: ICAL.Time): number => {
    const copy = t.clone()
    copy.zone = zone
    return copy.toUnixTime() * 1000
  }
  return root.getAllSubcomponents('vevent').flatMap((c) => {
    const event = new ICAL.Event(c)
    if (!event.isRecurring())
      return [[instant(event.startDate), instant(event.endDate)] as [number, number]]
    const found: [number, number][] = []
    const iterator = event.iterator()
    for (let next = iterator.next(); next; next = iterator.next()) {
      const { startDate, endDate } = event.getOccurrenceDetails(next)
      if (instant(startDate) > until) break
      found.push([instant(startDate), instant(endDate)])
    }
    return found
  })
}

/** The two dates on which the clock changes: RFC 5545 has other rules there than the wall clock (3.3.5). */
const changes = ['2027-03-28', '2027-10-31']

describe('schedules as iCalendar', () => {
  test('agrees with ical.js every quarter of an hour of a year, except on clock-change days', () => {
    const sunny = schedule(
      { ...nights.week, wed: [['sunset-00:30', '24:00']], thu: [['00:00', 'sunrise+00:15']] },
      nights.exceptions
    )
    for (const s of [nights, sunny]) {
      const to = from + 360 * 86_400_000
      const theirs = expanded(writeCalendar(s, site, from), to).sort((a, b) => a[0] - b[0])
      const ours = new Calendar(site.timeZone, site.position, from, to).hours(s)
      // One comparison for all of them: an expectation for each would take most of the time.
      const [armedByTheirs, armedByOurs]: [string[], string[]] = [[], []]
      let k = 0
      for (let t = Math.ceil(from / 900_000) * 900_000; t < to; t += 900_000) {
        if (changes.includes(DateTime.fromMillis(t, { zone: site.timeZone }).toISODate()!)) continue
        while (k < theirs.length && Math.max(...theirs.slice(k, k + 3).map((x) => x[1])) <= t) k++
        // An end that follows the sun is written to the second.
        const near = theirs
          .slice(k, k + 6)
          .some(([a, b]) => Math.abs(a - t) < 1000 || Math.abs(b - t) < 1000)
        if (near) continue
        const at = new Date(t).toISOString()
        if (theirs.slice(k, k + 6).some(([a, b]) => t >= a && t < b)) armedByTheirs.push(at)
        if (holds(ours, t)) armedByOurs.push(at)
      }
      expect(armedByTheirs.length).toBeGreaterThan(0)
      expect(armedByOurs).toEqual(armedByTheirs)
    }
  })

  test('follows RFC 5545: CRLF, lines of at most 75 octets, escaped texts, the zone’s changes', () => {
    const text = writeCalendar(nights, site, from)
    expect(text.endsWith('END:VCALENDAR\r\n')).toBe(true)
    for (const line of text.split('\r\n')) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75)
    const root = new ICAL.Component(ICAL.parse(text))
    expect(new ICAL.Event(root.getFirstSubcomponent('vevent')!).summary).toBe(
      'Armed: Nights; all, and "more"'
    )
    expect(text).toContain(
      'BEGIN:DAYLIGHT\r\nDTSTART:20270328T010000\r\nTZOFFSETFROM:+0000\r\nTZOFFSETTO:+0100'
    )
    expect(text).toContain('EXDATE;TZID=Europe/London:20261226T000000')
  })

  test('reads back the same schedule', () => {
    const read = readCalendar(writeCalendar(nights, site, from), 's', site, from)
    expect(read).toEqual({
      ...nights,
      week: Object.fromEntries(WEEKDAYS.map((d) => [d, tidy(nights.week[d])]))
    })
  })

  test('reads back any week and exceptions', () => {
    const half = fc.integer({ min: 0, max: 47 })
    const spans = fc
      .array(fc.tuple(half, fc.integer({ min: 1, max: 10 })), { maxLength: 3 })
      .map((list) =>
        tidy(
          list.map(([a, n]): Span => [clockText(a * 30), clockText(Math.min(1440, (a + n) * 30))])
        )
      )
    const week = fc.record(
      Object.fromEntries(WEEKDAYS.map((d) => [d, spans])) as Record<
        (typeof WEEKDAYS)[number],
        typeof spans
      >
    )
    const exception = fc.record({
      date: fc.constantFrom('2026-12-25', '2027-01-01', '2027-07-14'),
      spans
    })
    fc.assert(
      fc.property(
        week,
        fc.uniqueArray(exception, { maxLength: 3, selector: (e) => e.date }),
        (w, list) => {
          fc.pre(WEEKDAYS.some((d) => w[d].length > 0))
          // An exception that is as its weekday is none, once it has been through a calendar.
          const real = list
            .filter(
              (e) =>
                JSON.stringify(e.spans) !==
                JSON.stringify(w[WEEKDAYS[(new Date(`${e.date}T00:00Z`).getUTCDay() + 6) % 7]!])
            )
            .sort((a, b) => (a.date < b.date ? -1 : 1))
          const read = readCalendar(writeCalendar(schedule(w, list), site, from), 's', site, from)
          expect(read.week).toEqual(w)
          // Where the clock changes, hours that are not there are not read.
          expect(read.exceptions.filter((e) => !changes.includes(e.date))).toEqual(real)
        }
      ),
      { numRuns: 6 }
    )
  })

  // A calendar as another program would write it: rules with an end, a moved occurrence, an all-day
  // event, UTC, no zone.
  test('a calendar from elsewhere', () => {
    const lines = [
      'BEGIN:VCALENDAR',
      'VERSION:2.0',
      'PRODID:-//elsewhere//EN',
      'X-WR-CALNAME:Harbour watch',
      'BEGIN:VEVENT',
      'UID:1',
      'DTSTAMP:20261101T000000Z',
      'DTSTART:20261102T200000',
      'DTEND:20261102T220000',
      'RRULE:FREQ=WEEKLY;BYDAY=MO',
      'END:VEVENT',
      'BEGIN:VEVENT',
      'UID:1',
      'DTSTAMP:20261101T000000Z',
      'RECURRENCE-ID:20261207T200000',
      'DTSTART:20261208T200000',
      'DTEND:20261208T213000',
      'END:VEVENT',
      'BEGIN:VEVENT',
      'UID:2',
      'DTSTAMP:20261101T000000Z',
      'DTSTART;VALUE=DATE:20261225',
      'DTEND;VALUE=DATE:20261226',
      'END:VEVENT',
      'BEGIN:VEVENT',
      'UID:3',
      'DTSTAMP:20261101T000000Z',
      'DTSTART:20270601T190000Z',
      'DTEND:20270601T193000Z',
      'END:VEVENT',
      'BEGIN:VEVENT',
      'UID:4',
      'DTSTAMP:20261101T000000Z',
      'DTSTART:20261201T000000',
      'DTEND:20261201T120000',
      'TRANSP:TRANSPARENT',
      'END:VEVENT',
      'END:VCALENDAR',
      ''
    ]
    const read = readCalendar(lines.join('\r\n'), 'x', site, from)
    expect(read).toMatchObject({
      name: 'Harbour watch',
      week: { mon: [['20:00', '22:00']], tue: [], sun: [] }
    })
    expect(read.exceptions).toEqual([
      { date: '2026-12-07', spans: [] },
      { date: '2026-12-08', spans: [['20:00', '21:30']] },
      { date: '2026-12-25', spans: [['00:00', '24:00']] },
      { date: '2027-06-01', spans: [['20:00', '20:30']] } // 19:00 UTC is 20:00 in summer
    ])
  })

  test.each([
    ['', 'is not iCalendar'],
    ['hello', 'is not iCalendar'],
    ['BEGIN:VCARD\r\nVERSION:4.0\r\nFN:X\r\nEND:VCARD', 'begins with VCARD; must be a VCALENDAR'],
    ['BEGIN:VCALENDAR\r\nVERSION:2.0\r\nEND:VCALENDAR', 'has no events'],
    [
      'BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nUID:1\r\nSUMMARY:Watch\r\nEND:VEVENT\r\nEND:VCALENDAR',
      'has the event "Watch" without DTSTART'
    ]
  ])('refuses %j: %s', (text, why) =>
    expect(() => readCalendar(text, 'x', site, from)).toThrowWords(why)
  )
})

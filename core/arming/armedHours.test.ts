import { describe, expect, test } from '@jest/globals'
import { DateTime } from 'luxon'
import { ArmedHours, armedIntervals } from './armedHours.ts'
import { ScheduleSchema, type Schedule } from '../formats/plan.ts'
import { parseWith } from '../schema/parse.ts'

const skerrow = { latitude: 59.0, longitude: -3.0 }
const schedule = (week: object, exceptions: object[] = []): Schedule =>
  parseWith(ScheduleSchema, { id: 's', name: 'S', week, exceptions })
const nights = schedule({
  mon: [
    ['18:30', '24:00'],
    ['00:00', '06:30']
  ],
  sat: [['00:00', '24:00']],
  sun: [['00:00', '24:00']]
})
const utc = (iso: string) => Date.parse(iso)
const minutes = (list: readonly (readonly [number, number])[]) =>
  list.reduce((sum, [a, b]) => sum + (b - a) / 60000, 0)

describe('armed hours', () => {
  test('a week has as many minutes as its spans', () => {
    const week = armedIntervals(
      nights,
      'Europe/London',
      undefined,
      utc('2026-01-05T00:00:00Z'),
      utc('2026-01-12T00:00:00Z')
    )
    expect(minutes(week)).toBe(12 * 60 + 48 * 60)
  })

  test('arms the start and not the end of a span; joins spans across midnight', () => {
    const hours = new ArmedHours(nights, 'Europe/London')
    expect(hours.intervalAt(utc('2026-01-05T06:29:59.999Z'))).not.toBeNull()
    expect(hours.intervalAt(utc('2026-01-05T06:30:00Z'))).toBeNull()
    expect(hours.intervalAt(utc('2026-01-05T18:30:00Z'))).not.toBeNull()
    expect(hours.nextAfter(utc('2026-01-05T12:00:00Z'))?.[0]).toBe(utc('2026-01-05T18:30:00Z'))
    expect(hours.intervalAt(utc('2026-01-10T23:00:00Z'))).toEqual([
      utc('2026-01-10T00:00:00Z'),
      utc('2026-01-12T06:30:00Z')
    ])
    const always = schedule(
      Object.fromEntries(
        ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'].map((d) => [d, [['00:00', '24:00']]])
      )
    )
    expect(new ArmedHours(always, 'UTC').intervalAt(utc('2026-01-10T23:00:00Z'))).toEqual([
      -Infinity,
      Infinity
    ])
  })

  test('follows the site’s wall clock into summer time', () => {
    const hours = new ArmedHours(nights, 'Europe/London')
    expect(hours.intervalAt(utc('2026-06-15T17:30:00Z'))).not.toBeNull()
    expect(hours.intervalAt(utc('2026-06-15T17:29:00Z'))).toBeNull()
  })

  // The days of the change in the European Union's rule (as in the IANA database): 29 March and 25 October 2026.
  test('leaves the skipped hour unarmed and arms the repeated hour twice', () => {
    const small = schedule({ sun: [['01:15', '01:45']] })
    const spring = armedIntervals(
      small,
      'Europe/London',
      undefined,
      utc('2026-03-28T12:00:00Z'),
      utc('2026-03-30T00:00:00Z')
    )
    expect(spring).toEqual([])
    const autumn = armedIntervals(
      small,
      'Europe/London',
      undefined,
      utc('2026-10-24T12:00:00Z'),
      utc('2026-10-26T00:00:00Z')
    )
    expect(autumn).toEqual([
      [utc('2026-10-25T00:15:00Z'), utc('2026-10-25T00:45:00Z')],
      [utc('2026-10-25T01:15:00Z'), utc('2026-10-25T01:45:00Z')]
    ])
    const day = schedule({ sun: [['00:00', '24:00']] })
    expect(
      minutes(
        armedIntervals(
          day,
          'Europe/London',
          undefined,
          utc('2026-03-28T00:00:00Z'),
          utc('2026-03-31T00:00:00Z')
        )
      )
    ).toBe(23 * 60)
    expect(
      minutes(
        armedIntervals(
          day,
          'Europe/London',
          undefined,
          utc('2026-10-24T00:00:00Z'),
          utc('2026-10-27T00:00:00Z')
        )
      )
    ).toBe(25 * 60)
  })

  test('agrees minute by minute with luxon (general date library) over both clock changes', () => {
    const odd = schedule({
      sat: [['22:10', '24:00']],
      sun: [
        ['00:30', '01:20'],
        ['01:40', '02:10'],
        ['23:00', '23:30']
      ],
      mon: [['00:00', '00:05']]
    })
    for (const [from, to] of [
      ['2026-03-28T20:00Z', '2026-03-30T02:00Z'],
      ['2026-10-24T20:00Z', '2026-10-26T02:00Z']
    ]) {
      const hours = armedIntervals(odd, 'Europe/London', undefined, utc(from!), utc(to!))
      for (let t = utc(from!); t < utc(to!); t += 60000) {
        const local = DateTime.fromMillis(t, { zone: 'Europe/London' })
        const clock = local.hour * 60 + local.minute
        const spans =
          odd.week[(['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'] as const)[local.weekday - 1]!]
        const read = (s: string) => +s.slice(0, 2) * 60 + +s.slice(3)
        const expected = spans.some(([a, b]) => clock >= read(a) && clock < read(b))
        expect([local.toISO(), hours.some(([a, b]) => t >= a && t < b)]).toEqual([
          local.toISO(),
          expected
        ])
      }
    }
  })

  test('an exception replaces the spans of its date', () => {
    const holiday = schedule({ fri: [['09:00', '10:00']] }, [
      { date: '2026-12-25', spans: [['00:00', '24:00']] }
    ])
    const all = armedIntervals(
      holiday,
      'Europe/London',
      undefined,
      utc('2026-12-24T00:00:00Z'),
      utc('2026-12-27T00:00:00Z')
    )
    expect(all).toEqual([[utc('2026-12-25T00:00:00Z'), utc('2026-12-26T00:00:00Z')]])
  })

  // Sunset 15:17 and sunrise 09:03 on 21 December at 59° N 3° W by the NOAA solar calculator's
  // formulas (from memory), to five minutes.
  test('ends tied to the sun', () => {
    const dark = schedule({ mon: [['sunset-00:30', '24:00']], tue: [['00:00', 'sunrise+00:15']] })
    const [first] = armedIntervals(
      dark,
      'Europe/London',
      skerrow,
      utc('2026-12-21T00:00:00Z'),
      utc('2026-12-23T00:00:00Z')
    )
    expect(Math.abs(first![0] - utc('2026-12-21T14:47:00Z'))).toBeLessThan(5 * 60000)
    expect(Math.abs(first![1] - utc('2026-12-22T09:18:00Z'))).toBeLessThan(5 * 60000)
  })
})

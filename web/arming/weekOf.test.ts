import { expect, test } from '@jest/globals'
import { DateTime } from 'luxon'
import { wallInstant, wallNow, wallText, weekOf } from './weekOf.ts'

const zones = ['Europe/London', 'Pacific/Auckland', 'America/St_Johns', 'UTC']

test('times as a field has them agree with luxon (general date library), also where the clock changes', () => {
  for (const zone of zones)
    for (const day of ['2026-03-29', '2026-10-25', '2026-04-05', '2026-12-31'])
      for (let minutes = -600; minutes < 2000; minutes += 45) {
        const instant = Date.parse(`${day}T00:00Z`) + minutes * 60_000
        const text = DateTime.fromMillis(instant, { zone }).toFormat("yyyy-MM-dd'T'HH:mm")
        expect(wallText(instant, zone)).toBe(text)
        // A time that comes twice may be either; it says the same.
        expect(wallText(wallInstant(text, zone)!, zone)).toBe(text)
      }
})

test('a time that does not exist is taken all the same, and what is none is refused', () => {
  expect(wallInstant('2026-03-29T01:30', 'Europe/London')).toBe(Date.parse('2026-03-29T01:30Z'))
  for (const text of ['', 'soon', '2026-13-45T10:00']) expect(wallInstant(text, 'UTC')).toBeNull()
})

test('the week is the site’s own, Monday to Sunday, of seven dates', () => {
  for (const zone of zones)
    for (const iso of ['2026-10-25T00:30Z', '2026-10-26T00:30Z', '2026-03-29T23:30Z', '2026-11-26T12:00Z']) {
      const instant = Date.parse(iso)
      const week = weekOf(instant, zone, null)
      const monday = DateTime.fromMillis(instant, { zone }).startOf('week')
      expect([week.days[0].from, week.days.at(-1)!.to]).toEqual([monday.toMillis(), monday.plus({ weeks: 1 }).toMillis()])
      expect(wallNow(week, instant)!.date).toBe(DateTime.fromMillis(instant, { zone }).toISODate())
    }
})

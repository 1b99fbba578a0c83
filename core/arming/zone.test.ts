import { expect, test } from '@jest/globals'
import { DateTime, IANAZone } from 'luxon'
import { offsetAt, wallInstant, wallText } from './zone.ts'

const zones = [
  'Europe/London',
  'Pacific/Auckland',
  'America/St_Johns',
  'Asia/Kathmandu',
  'Australia/Lord_Howe',
  'UTC'
]

test('offsets agree with luxon (general date library), every three hours of ten years', () => {
  for (const timeZone of zones) {
    const zone = IANAZone.create(timeZone)
    for (let t = Date.UTC(2020, 0, 1); t < Date.UTC(2030, 0, 1); t += 3 * 3_600_000)
      if (offsetAt(timeZone, t) !== zone.offset(t))
        throw new Error(
          `${timeZone} at ${new Date(t).toISOString()}: ${offsetAt(timeZone, t)}, not ${zone.offset(t)}`
        )
  }
  expect(() => offsetAt('Atlantis/Port', 0)).toThrow(RangeError)
})

test('times in a field agree with luxon (general date library), also at clock changes', () => {
  for (const zone of zones)
    for (const day of ['2026-03-29', '2026-10-25', '2026-04-05', '2026-12-31'])
      for (let minutes = -600; minutes < 2000; minutes += 45) {
        const instant = Date.parse(`${day}T00:00Z`) + minutes * 60_000
        const text = DateTime.fromMillis(instant, { zone }).toFormat("yyyy-MM-dd'T'HH:mm:ss")
        expect(wallText(instant, zone)).toBe(text)
        // A time that comes twice may be either; it says the same.
        expect(wallText(wallInstant(text, zone)!, zone)).toBe(text)
      }
})

test('accepts a time that the clock change skips, and refuses what is not a time', () => {
  expect(wallInstant('2026-03-29T01:30', 'Europe/London')).toBe(Date.parse('2026-03-29T01:30Z'))
  for (const text of ['', 'soon', '2026-13-45T10:00']) expect(wallInstant(text, 'UTC')).toBeNull()
})

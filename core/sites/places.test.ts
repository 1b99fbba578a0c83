import { describe, expect, test } from '@jest/globals'
import { DateTime } from 'luxon'
import { places } from './places.ts'
import { SiteSettingsSchema } from './settings.ts'
import { parseWith } from '../schema/parse.ts'

describe('places', () => {
  test('each is a valid position in a time zone that luxon (general date library) knows', () => {
    expect(places.length).toBeGreaterThan(400)
    for (const { name, timeZone, latitude, longitude } of places) {
      expect(DateTime.fromMillis(0, { zone: timeZone }).isValid).toBe(true)
      parseWith(SiteSettingsSchema, {
        name,
        timeZone,
        position: { latitude, longitude },
        surroundings: 'outdoors'
      })
    }
  })

  test('clocks follow the sun: an hour of them is 15° of longitude, give or take three hours', () => {
    const january = Date.UTC(2026, 0, 15)
    for (const { timeZone, longitude } of places) {
      const hours = DateTime.fromMillis(january, { zone: timeZone }).offset / 60
      // Across the date line a day lies between the two.
      const off = Math.abs(((hours - longitude / 15 + 36) % 24) - 12)
      expect([timeZone, off < 3.6]).toEqual([timeZone, true])
    }
  })

  // Source: Greenwich and Sydney, from memory.
  test.each([
    ['Europe/London', 51.5, -0.13],
    ['Australia/Sydney', -33.87, 151.21]
  ])('%s', (zone, latitude, longitude) => {
    const place = places.find(({ timeZone }) => timeZone === zone)!
    expect(Math.abs(place.latitude - latitude)).toBeLessThan(0.1)
    expect(Math.abs(place.longitude - longitude)).toBeLessThan(0.1)
  })
})

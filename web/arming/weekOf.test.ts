import { expect, test } from '@jest/globals'
import { DateTime } from 'luxon'
import { wallNow, weekOf } from './weekOf.ts'

const zones = ['Europe/London', 'Pacific/Auckland', 'America/St_Johns', 'UTC']

test('the week is the site’s, Monday to Sunday', () => {
  for (const zone of zones)
    for (const iso of [
      '2026-10-25T00:30Z',
      '2026-10-26T00:30Z',
      '2026-03-29T23:30Z',
      '2026-11-26T12:00Z'
    ]) {
      const instant = Date.parse(iso)
      const week = weekOf(instant, zone, null)
      const monday = DateTime.fromMillis(instant, { zone }).startOf('week')
      expect([week.days[0]!.from, week.days.at(-1)!.to]).toEqual([
        monday.toMillis(),
        monday.plus({ weeks: 1 }).toMillis()
      ])
      expect(wallNow(week, instant)!.date).toBe(DateTime.fromMillis(instant, { zone }).toISODate())
    }
})

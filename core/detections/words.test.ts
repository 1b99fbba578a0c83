import { expect, test } from '@jest/globals'
import { DateTime } from 'luxon'
import { clockAt, percent, seconds } from './words.ts'

test('the site’s clock agrees with luxon (general date library), also right before and after a change of the clock', () => {
  for (const zone of ['Europe/London', 'Australia/Lord_Howe', 'America/St_Johns', 'Asia/Kathmandu'])
    for (const change of [
      '2026-03-29T01:00:00Z',
      '2026-10-25T01:00:00Z',
      '2026-04-04T15:00:00Z',
      '2026-11-01T04:30:00Z'
    ])
      for (let minutes = -200; minutes <= 200; minutes += 7) {
        const instant = Date.parse(change) + minutes * 60_000
        expect(clockAt(instant, zone)).toBe(
          DateTime.fromMillis(instant, { zone, locale: 'en' }).toFormat('ccc HH:mm')
        )
      }
  expect(clockAt(Date.parse('2026-11-24T08:12:39Z'), 'Europe/London')).toBe('Tue 08:12:39')
})

test('numbers as people read them', () => {
  expect([percent(0.5), percent(1 / 3), percent(1)]).toEqual(['50 %', '33.3 %', '100 %'])
  expect([seconds(0), seconds(12.04), seconds(0.95)]).toEqual(['0.0 s', '12.0 s', '1.0 s'])
})

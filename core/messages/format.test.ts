import { expect, test } from '@jest/globals'
import { DateTime } from 'luxon'
import {
  aboutDuration,
  clipTime,
  count,
  dateAndSecond,
  dateAndTime,
  duration,
  endsOf,
  frameSize,
  list,
  percent,
  seconds,
  settingSeconds,
  weekdayAndTime
} from './format.ts'

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
        const at = DateTime.fromMillis(instant, { zone, locale: 'en' })
        expect(weekdayAndTime(instant, zone)).toBe(at.toFormat('ccc HH:mm'))
        expect(dateAndTime(instant, zone)).toBe(at.toFormat('d LLL yyyy, HH:mm'))
        expect(dateAndSecond(instant, zone)).toBe(at.toFormat('d LLL yyyy, HH:mm:ss'))
      }
  expect(weekdayAndTime(Date.parse('2026-11-24T08:12:39Z'), 'Europe/London')).toBe('Tue 08:12:39')
})

test('says a range in one line: of one day, of one year, and over its end', () => {
  const of = (from: string, to: string) =>
    endsOf(Date.parse(from), Date.parse(to), 'Europe/London').join(' to ')
  expect(of('2026-11-28T15:20Z', '2026-11-28T16:20Z')).toBe('28 Nov 2026, 15:20 to 16:20')
  expect(of('2026-11-28T15:20Z', '2026-11-29T15:20Z')).toBe('28 Nov, 15:20 to 29 Nov 2026, 15:20')
  expect(of('2026-12-31T15:20Z', '2027-01-01T15:20Z')).toBe(
    '31 Dec 2026, 15:20 to 1 Jan 2027, 15:20'
  )
  // Of two days at the site, of one in UTC.
  expect(of('2026-06-01T22:30Z', '2026-06-01T23:30Z')).toBe('1 Jun, 23:30 to 2 Jun 2026, 00:30')
})

test('formats numbers', () => {
  expect([percent(0.5), percent(1 / 3), percent(1)]).toEqual(['50%', '33.3%', '100%'])
  expect([seconds(0), seconds(12.04), seconds(0.95)]).toEqual(['0.0 s', '12.0 s', '1.0 s'])
  expect([settingSeconds(5), settingSeconds(2.5), settingSeconds(0.3)]).toEqual([
    '5 s',
    '2.5 s',
    '0.3 s'
  ])
  expect(frameSize(0.031, 0.183)).toBe('3.1 × 18.3%')
  expect([clipTime(39.1), clipTime(0), clipTime(3599.96)]).toEqual([
    '00:39.1',
    '00:00.0',
    '60:00.0'
  ])
  expect(duration(24 * 3600 + 720)).toBe('24 h 12 min')
  expect([0.4, 13, 57, 58, 100, 731, 3905].map(aboutDuration)).toEqual([
    '5 s',
    '15 s',
    '55 s',
    '1 min',
    '2 min',
    '12 min',
    '1 h 5 min'
  ])
})

test('formats counts and lists', () => {
  expect([count(1, 'trigger'), count(0, 'trigger'), count(2, 'miss', 'misses')]).toEqual([
    '1 trigger',
    '0 triggers',
    '2 misses'
  ])
  expect([list(['a']), list(['a', 'b']), list(['a', 'b', 'c'])]).toEqual([
    'a',
    'a and b',
    'a, b and c'
  ])
})

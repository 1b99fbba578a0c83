import { expect, test } from '@jest/globals'
import { isSpanEnd, parseSpanEnd, sameDayOrder } from './spanEnd.ts'

test('ends of spans: fixed times and the sun', () => {
  expect(parseSpanEnd('18:30')).toEqual({ minutes: 1110 })
  expect(parseSpanEnd('24:00')).toEqual({ minutes: 1440 })
  expect(parseSpanEnd('sunset')).toEqual({ sun: 'sunset', offset: 0 })
  expect(parseSpanEnd('sunset-00:30')).toEqual({ sun: 'sunset', offset: -30 })
  expect(parseSpanEnd('sunrise+01:15')).toEqual({ sun: 'sunrise', offset: 75 })
})

test.each([
  '',
  '6:30',
  '24:01',
  '12:60',
  '18.30',
  '18:30:00',
  'sunset-',
  'sunset-00:75',
  'sunset+13:00',
  'noon',
  '-01:00'
])('refuses %j', (text) => {
  expect(isSpanEnd(text)).toBe(false)
})

test('requires the start before the end where both are fixed', () => {
  expect(sameDayOrder('06:30', '18:30')).toBe(true)
  expect(sameDayOrder('18:30', '06:30')).toBe(false)
  expect(sameDayOrder('12:00', '12:00')).toBe(false)
  expect(sameDayOrder('sunset', '06:00')).toBe(true)
})

test('reads every minute of the day', () => {
  const two = (n: number) => String(n).padStart(2, '0')
  for (let m = 0; m <= 1440; m++)
    expect(parseSpanEnd(`${two(Math.floor(m / 60))}:${two(m % 60)}`)).toEqual({ minutes: m })
})

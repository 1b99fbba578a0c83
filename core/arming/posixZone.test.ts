import { execFileSync } from 'node:child_process'
import { describe, expect, test } from '@jest/globals'
import { isSameZone, isSummerTime, posixZone } from './posixZone.ts'
import { offsetAt } from './zone.ts'

const FROM = Date.UTC(2026, 10, 28)
const HOUR = 3600_000

/** Minutes ahead of UTC at instants, as the C library reads `TZ` (`date` of GNU coreutils). */
function byLibrary(zone: string, instants: readonly number[]): number[] {
  const asked = instants.map((at) => `@${Math.floor(at / 1000)}`).join('\n')
  const said = execFileSync('date', ['-f', '-', '+%z'], {
    input: asked,
    env: { ...process.env, TZ: zone },
    encoding: 'utf8'
  })
  return said
    .trim()
    .split('\n')
    .map((text) => {
      const [, sign, hours, minutes] = /^([+-])(\d\d)(\d\d)$/.exec(text)!
      return (sign === '-' ? -1 : 1) * (Number(hours) * 60 + Number(minutes))
    })
}

/** Every 7 hours of three years, and around each change by quarters of an hour. */
function instantsOf(timeZone: string): number[] {
  const steps = Array.from(
    { length: Math.floor((3 * 365 * 24) / 7) },
    (_, i) => FROM + i * 7 * HOUR
  )
  const around = steps
    .filter((at) => offsetAt(timeZone, at) !== offsetAt(timeZone, at + 7 * HOUR))
    .flatMap((at) => Array.from({ length: 29 }, (_, i) => at + (i * HOUR) / 4))
  return [...steps, ...around]
}

describe('a time zone for devices', () => {
  // Zones north and south of the equator, of half and quarter hours, of other rules than Europe's, and of none.
  test.each([
    'UTC',
    'Europe/London',
    'Europe/Berlin',
    'America/New_York',
    'America/St_Johns',
    'America/Santiago',
    'Australia/Sydney',
    'Australia/Lord_Howe',
    'Pacific/Chatham',
    'Asia/Kathmandu',
    'Asia/Kolkata',
    'Asia/Jerusalem',
    'America/Sao_Paulo',
    'Pacific/Kiritimati',
    'Europe/Dublin'
  ])('%s is read by the C library as the database has it', (timeZone) => {
    const zone = posixZone(timeZone, FROM)
    const instants = instantsOf(timeZone)
    expect([zone, byLibrary(zone, instants)]).toEqual([
      zone,
      instants.map((at) => offsetAt(timeZone, at))
    ])
  })

  test('is written as the standard has it', () => {
    expect(posixZone('Europe/London', FROM)).toBe('<+00>0<+01>,M3.5.0/1,M10.5.0')
    expect(posixZone('Asia/Kathmandu', FROM)).toBe('<+0545>-5:45')
    expect(() => posixZone('Nowhere/At_All', FROM)).toThrow(RangeError)
  })

  test('one whose changes follow no rule has its offset alone', () => {
    // Morocco's clock goes by the moon.
    expect(posixZone('Africa/Casablanca', FROM)).toBe('<+01>-1')
  })

  test.each([
    ['GMT0BST,M3.5.0/1,M10.5.0', '<+00>0<+01>,M3.5.0/1,M10.5.0', true],
    ['GMT+00:00BST,M3.5.0/01:00:00,M10.5.0/02:00:00', '<+00>0<+01>,M3.5.0/1,M10.5.0', true],
    ['EST5EDT,M3.2.0,M11.1.0', '<-05>5<-04>,M3.2.0,M11.1.0', true],
    ['UTC0', '<+00>0<+01>,M3.5.0/1,M10.5.0', false],
    ['CET-1CEST,M3.5.0,M10.5.0/3', '<+00>0<+01>,M3.5.0/1,M10.5.0', false]
  ])('%s and %s: the same %s', (a, b, same) => {
    expect(isSameZone(a, b)).toBe(same)
  })

  test.each([
    ['Europe/London', '2026-07-01', true],
    ['Europe/London', '2026-12-01', false],
    ['Australia/Sydney', '2026-12-01', true],
    ['Asia/Kolkata', '2026-07-01', false]
  ])('%s on %s: summer time %s', (timeZone, day, summer) => {
    expect(isSummerTime(timeZone, Date.parse(day))).toBe(summer)
  })
})

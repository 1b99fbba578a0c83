import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { Calendar } from './calendar.ts'
import { SiteHours } from './coverage.ts'
import { holds, shared, total, without, type Hours } from './hours.ts'
import { DateTime } from 'luxon'
import { scheduleAt, armedAt } from './armedNow.ts'
import { saidStretch, stretchesOf } from './stretches.ts'
import { ScheduleSchema, WEEKDAYS, type Schedule } from '../formats/plan.ts'
import { parseWith } from '../schema/parse.ts'

const skerrow = { latitude: 59.0, longitude: -3.0 }
const schedule = (id: string, week: object, exceptions: object[] = []): Schedule =>
  parseWith(ScheduleSchema, { id, name: id, week, exceptions })
const utc = (iso: string): number => Date.parse(iso)
const everyDay = (...spans: [string, string][]): object =>
  Object.fromEntries(WEEKDAYS.map((day) => [day, spans]))

/** Hours from a bit for each minute. */
const hours = fc
  .array(fc.boolean(), { minLength: 1, maxLength: 60 })
  .map((bits): [Hours, boolean[]] => {
    const pairs: number[] = []
    bits.forEach((on, i) => {
      if (!on) return
      if (i > 0 && bits[i - 1]) pairs[pairs.length - 1] = i + 1
      else pairs.push(i, i + 1)
    })
    return [Float64Array.from(pairs), bits]
  })
const bitsOf = (h: Hours): boolean[] => Array.from({ length: 60 }, (_, i) => holds(h, i))

describe('spans as sets', () => {
  test('difference, overlap and total agree minute by minute, with no touching spans', () => {
    fc.assert(
      fc.property(hours, hours, ([a, inA], [b, inB]) => {
        const left = without(a, b)
        const meet = without(a, left)
        expect(bitsOf(meet)).toEqual(Array.from({ length: 60 }, (_, i) => !!inA[i] && !!inB[i]))
        expect(bitsOf(left)).toEqual(Array.from({ length: 60 }, (_, i) => !!inA[i] && !inB[i]))
        expect(shared(a, b)).toBe(total(meet))
        expect(total(meet) + total(left)).toBe(total(a))
        for (const h of [meet, left])
          for (let i = 2; i < h.length; i += 2) expect(h[i]).toBeGreaterThan(h[i - 1]!)
      })
    )
  })

  test('joins spans in any order, overlapping or touching', () => {
    const minute = fc.integer({ min: 0, max: 1439 })
    const text = (m: number): string =>
      `${String(Math.floor(m / 60)).padStart(2, '0')}:${String(m % 60).padStart(2, '0')}`
    const span = fc
      .tuple(minute, fc.integer({ min: 1, max: 600 }))
      .map(([from, long]): [number, number] => [from, Math.min(1440, from + long)])
    fc.assert(
      fc.property(fc.array(span, { maxLength: 8 }), (spans) => {
        const calendar = new Calendar(
          'UTC',
          undefined,
          utc('2026-06-01T00:00Z'),
          utc('2026-06-02T00:00Z')
        )
        const h = calendar.hours(schedule('s', { mon: spans.map(([a, b]) => [text(a), text(b)]) }))
        const minutes = Array.from({ length: 206 }, (_, i) => 7 * i)
        expect(minutes.filter((m) => holds(h, utc('2026-06-01T00:00Z') + m * 60_000))).toEqual(
          minutes.filter((m) => spans.some(([a, b]) => m >= a && m < b))
        )
        for (let i = 2; i < h.length; i += 2) expect(h[i]).toBeGreaterThan(h[i - 1]!)
      })
    )
  })
})

describe('the sun', () => {
  // NOAA's solar calculator and almanacs for Greenwich (51.48° N, 0°), from memory, to three minutes.
  test.each([
    ['2026-06-21', '04:43', '21:21'],
    ['2026-12-21', '08:04', '15:53'],
    ['2026-03-20', '06:03', '18:13']
  ])('%s at Greenwich: sunrise %s, sunset %s', (date, up, down) => {
    const calendar = new Calendar(
      'Europe/London',
      { latitude: 51.48, longitude: 0 },
      utc(`${date}T10:00Z`),
      utc(`${date}T11:00Z`)
    )
    const { sunrise, sunset } = calendar.sun(calendar.days[0]!)
    const minutes = (text: string): number => Number(text.slice(0, 2)) * 60 + Number(text.slice(3))
    expect(Math.abs(sunrise / 60_000 - minutes(up))).toBeLessThan(3)
    expect(Math.abs(sunset / 60_000 - minutes(down))).toBeLessThan(3)
  })

  test('where the sun does not rise or set, night is the whole day or none of it', () => {
    const nights = schedule('n', everyDay(['sunset', '24:00'], ['00:00', 'sunrise']))
    const tromso = { latitude: 69.65, longitude: 18.96 }
    const dayOf = (iso: string): number =>
      total(new Calendar('Europe/Oslo', tromso, utc(iso), utc(iso) + 86_400_000).hours(nights)) /
      3_600_000
    expect(dayOf('2026-12-20T23:00Z')).toBe(24)
    expect(dayOf('2026-06-20T22:00Z')).toBe(0)
  })
})

describe('how schedules overlap', () => {
  const nights = schedule('nights', {
    ...everyDay(['00:00', '06:30'], ['18:30', '24:00']),
    sat: [['00:00', '24:00']],
    sun: [['00:00', '24:00']]
  })
  const lights = schedule('lights', everyDay(['00:00', '06:30'], ['18:30', '24:00']))
  const site = (...more: Schedule[]): SiteHours =>
    new SiteHours([nights, lights, ...more], 'Europe/London', skerrow, utc('2026-11-24T12:00Z'))

  test('counts minutes a week and names the gaps', () => {
    const { armed, acting } = site().coverage('nights', 'lights')
    // 5 nights of 12 h and two whole days, of which the lights have 12 h each. Both changes of the
    // clock are at night: they cancel out.
    expect(armed).toBeCloseTo((5 * 12 + 48) * 60, 6)
    expect(acting).toBeCloseTo(7 * 12 * 60, 6)
    const { minutesPerWeek, stretches } = site().silent('nights', 'lights')
    expect(minutesPerWeek).toBeCloseTo(24 * 60, 6)
    expect(stretches.map(saidStretch)).toEqual(['Sat and Sun, 06:30 to 18:30'])
  })

  test('names exceptions by date; an action without a schedule has no gaps', () => {
    const holiday = schedule('holiday', everyDay(['18:00', '24:00']), [
      { date: '2026-12-25', name: 'Christmas Day', spans: [['00:00', '24:00']] },
      { date: '2026-12-26', spans: [['00:00', '24:00']] }
    ])
    const evening = schedule('evening', everyDay(['18:00', '24:00']))
    expect(site(holiday, evening).silent('holiday', 'evening').stretches.map(saidStretch)).toEqual([
      '25 Dec 2026, 26 Dec 2026, 00:00 to 18:00'
    ])
    expect(site(holiday, evening).silent('evening', 'holiday').stretches).toEqual([])
    expect(site().silent('nights', undefined).stretches).toEqual([])
    expect(site().coverage('nothing of the kind', undefined)).toEqual({ armed: 0, acting: 0 })
  })

  test('agrees minute by minute with luxon (general date library) on clock-change days', () => {
    const early = schedule('early', everyDay(['00:30', '02:30']))
    const small = schedule('small', everyDay(['01:00', '02:00']))
    for (const [from, to] of [
      ['2026-03-28T00:00Z', '2026-03-30T12:00Z'],
      ['2026-10-24T00:00Z', '2026-10-26T12:00Z']
    ].map((pair) => pair.map(utc))) {
      const calendar = new Calendar('Europe/London', undefined, from!, to!)
      const gap = without(calendar.hours(early), calendar.hours(small))
      for (let t = from; t! < to!; t! += 60_000) {
        const at = DateTime.fromMillis(t!, { zone: 'Europe/London' })
        const minute = at.hour * 60 + at.minute
        expect([at.toISO(), holds(gap, t!)]).toEqual([
          at.toISO(),
          minute >= 30 && minute < 150 && !(minute >= 60 && minute < 120)
        ])
      }
    }
    // In spring 01:00 to 02:00 is not there, in autumn twice.
    const [spring] = [
      new Calendar('Europe/London', undefined, utc('2026-03-29T00:00Z'), utc('2026-03-29T23:00Z'))
    ]
    expect(total(spring.hours(small))).toBe(0)
    expect(
      stretchesOf(without(spring.hours(early), spring.hours(small)), spring).stretches.map(
        (s) => s.spans
      )
    ).toEqual([['00:30', '02:30']])
    const autumn = new Calendar(
      'Europe/London',
      undefined,
      utc('2026-10-24T23:00Z'),
      utc('2026-10-26T00:00Z')
    )
    expect(total(autumn.hours(small)) / 60_000).toBe(120)
  })

  test('marks times that move with the sun as approximate', () => {
    const dark = schedule('dark', everyDay(['sunset', '24:00']))
    const fixed = schedule('fixed', everyDay(['18:30', '24:00']))
    const { stretches } = site(dark, fixed).silent('dark', 'fixed')
    expect(saidStretch(stretches[0]!)).toSay(/, about 15:\d\d to 18:30, for part of the year$/)
  })

  test('the year starts on the local Monday and has 52 weeks', () => {
    for (const zone of ['Europe/London', 'Pacific/Auckland', 'America/St_Johns', 'UTC']) {
      const { days } = new SiteHours([], zone, undefined, utc('2026-10-26T00:30Z')).calendar
      expect([
        days[0]!.weekday,
        days[days.length - 1]!.weekday,
        new Set(days.map((d) => d.date)).size
      ]).toEqual(['mon', 'sun', 364])
      expect(DateTime.fromMillis(days[0]!.from, { zone }).toFormat('ccc HH:mm')).toBe('Mon 00:00')
    }
  })
})

describe('is it armed?', () => {
  const nights = schedule(
    'Nights',
    {
      wed: [
        ['00:00', '06:30'],
        ['18:30', '24:00']
      ],
      thu: [['00:00', '06:30']]
    },
    [{ date: '2026-12-02', name: 'Fair', spans: [] }]
  )
  const clock = { timeZone: 'Europe/London', position: skerrow }
  test.each([
    ['2026-11-25T05:10Z', true, 'Nights ends 06:30.'],
    ['2026-11-25T06:30Z', false, 'Nights starts 18:30.'],
    ['2026-11-25T23:00Z', true, 'Nights ends Thursday 06:30.'],
    ['2026-11-26T12:00Z', false, 'Nights starts Thursday 00:00.'],
    ['2026-12-02T05:10Z', false, 'Nights starts Thursday 00:00, exception for Fair.']
  ])('%s: %s, %s', (iso, armed, words) =>
    expect(scheduleAt(nights, clock, utc(iso))).toMatchObject({ armed, words })
  )

  test('combines schedule and arm input, inverted or not; respects switched off', () => {
    const d = { enabled: true, schedule: 'Nights', armInput: { input: 'panel', inverted: false } }
    const at = utc('2026-11-25T05:10Z')
    const ask = (more: object, set: boolean) =>
      armedAt(
        { ...d, ...more },
        [nights],
        clock,
        { panel: [{ at: 0, set }] },
        at,
        () => 'Alarm panel'
      )
    expect(ask({}, true)).toMatchObject({
      armed: true,
      words: 'Nights ends 06:30; Alarm panel is set.'
    })
    expect(ask({}, false)).toMatchObject({
      armed: false,
      words: 'Not armed: Alarm panel is not set, and must be set.'
    })
    expect(ask({ armInput: { input: 'panel', inverted: true } }, true).armed).toBe(false)
    expect(ask({ armInput: { input: 'panel', inverted: true } }, false).armed).toBe(true)
    expect(ask({ enabled: false }, true)).toMatchObject({
      armed: false,
      words: 'Switched off.'
    })
  })
})

import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import {
  added,
  cleared,
  clockText,
  copied,
  fixedMinutes,
  moved,
  tidy,
  withException
} from './spans.ts'
import { ScheduleSchema, type Span } from '../formats/plan.ts'
import { parseWith } from '../schema/parse.ts'

const span = fc
  .tuple(fc.integer({ min: 0, max: 1439 }), fc.integer({ min: 1, max: 1440 }))
  .map(([from, long]): Span => [clockText(from), clockText(Math.min(1440, from + long))])
const minutesOf = (spans: readonly Span[]): Set<number> =>
  new Set(
    spans.flatMap(([a, b]) =>
      Array.from({ length: fixedMinutes(b)! - fixedMinutes(a)! }, (_, i) => fixedMinutes(a)! + i)
    )
  )

describe('editing the spans of a day', () => {
  test('tidying keeps the armed minutes and joins touching spans', () => {
    fc.assert(
      fc.property(fc.array(span, { maxLength: 8 }), (spans) => {
        const after = tidy(spans)
        expect(minutesOf(after)).toEqual(minutesOf(spans))
        for (let i = 1; i < after.length; i++)
          expect(fixedMinutes(after[i]![0])).toBeGreaterThan(fixedMinutes(after[i - 1]![1])!)
      })
    )
  })

  test('adding and clearing change exactly their minutes', () => {
    fc.assert(
      fc.property(
        fc.array(span, { maxLength: 5 }),
        fc.integer({ min: 0, max: 1440 }),
        fc.integer({ min: 0, max: 1440 }),
        (spans, a, b) => {
          const [from, to] = [Math.min(a, b), Math.max(a, b)]
          const inside = (m: number): boolean => m >= from && m < to
          const all = Array.from({ length: 1440 }, (_, m) => m)
          const before = minutesOf(spans)
          expect([...minutesOf(added(spans, a, b))].sort((x, y) => x - y)).toEqual(
            all.filter((m) => before.has(m) || inside(m))
          )
          expect([...minutesOf(cleared(spans, from, to))].sort((x, y) => x - y)).toEqual(
            all.filter((m) => before.has(m) && !inside(m))
          )
        }
      )
    )
  })

  test('a moved span stays within the day and keeps its length', () => {
    fc.assert(
      fc.property(
        span,
        fc.integer({ min: -2000, max: 2000 }),
        fc.constantFrom('from' as const, 'to' as const, 'both' as const),
        (s, by, what) => {
          const [a, b] = moved(s, by, what).map((end) => fixedMinutes(end)!) as [number, number]
          expect(a).toBeGreaterThanOrEqual(0)
          expect(b).toBeLessThanOrEqual(1440)
          expect(a).toBeLessThan(b)
          if (what === 'both') expect(b - a).toBe(fixedMinutes(s[1])! - fixedMinutes(s[0])!)
        }
      )
    )
  })

  test('ends tied to the sun move by their offset', () => {
    expect(moved(['sunset-00:30', '24:00'], 30, 'from')).toEqual(['sunset', '24:00'])
    expect(moved(['00:00', 'sunrise'], 15, 'to')).toEqual(['00:00', 'sunrise+00:15'])
    expect(
      tidy([
        ['sunset', '24:00'],
        ['08:00', '09:00'],
        ['09:00', '10:00']
      ])
    ).toEqual([
      ['08:00', '10:00'],
      ['sunset', '24:00']
    ])
  })

  test('copies a day to others; adds, changes and removes an exception', () => {
    const s = parseWith(ScheduleSchema, {
      id: 's',
      name: 'S',
      week: { mon: [['18:30', '24:00']], sun: [['00:00', '24:00']] }
    })
    expect(copied(s.week, 'mon', ['tue', 'wed'])).toEqual({
      ...s.week,
      tue: s.week.mon,
      wed: s.week.mon
    })
    const made = withException(
      withException(s, '2026-12-25', { name: 'Christmas Day', spans: [] }),
      '2026-12-24',
      { spans: [['12:00', '24:00']] }
    )
    expect(made.exceptions).toEqual([
      { date: '2026-12-24', spans: [['12:00', '24:00']] },
      { date: '2026-12-25', name: 'Christmas Day', spans: [] }
    ])
    expect(parseWith(ScheduleSchema, made)).toEqual(made)
    expect(withException(made, '2026-12-25', null).exceptions).toHaveLength(1)
  })
})

import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import type { Trigger } from '../detections/index.ts'
import { score, type Expected } from './score.ts'

const seen = (
  time: number,
  detection = 'a',
  direction?: 'leftToRight' | 'rightToLeft'
): Trigger => ({
  detection,
  kind: 'line',
  target: 1,
  frame: Math.round(time * 10) + 1,
  time,
  ...(direction && { direction })
})
const wanted = (time: number, more: Partial<Expected> = {}): Expected => ({
  detection: 'a',
  time,
  ...more
})

describe('scoring', () => {
  test('a hit, a miss and a false alarm give R = P = 1/2', () => {
    expect(score([wanted(5), wanted(50)], [seen(6), seen(30)])).toMatchObject({
      hits: [{ seen: { time: 6 } }],
      misses: [{ time: 50 }],
      false: [{ time: 30 }],
      recall: 0.5,
      precision: 0.5,
      f1: 0.5,
      weightedF1: 0.5
    })
  })

  // F1 = (α + 1)·R·P / (R + α·P): UK Home Office i-LIDS user guide (from memory); worked by hand for R = 1, P = 1/2.
  test('the weighted F1, worked by hand', () => {
    const result = score([wanted(5)], [seen(6), seen(40)], 0.65)
    expect([result.recall, result.precision]).toEqual([1, 0.5])
    expect(result.f1).toBeCloseTo(2 / 3, 12)
    expect(result.weightedF1).toBeCloseTo((1.65 * 1 * 0.5) / (1 + 0.65 * 0.5), 12)
  })

  // An alarm counts when it comes within 10 s of the start of the event (i-LIDS user guide, from memory).
  test('the window starts with the event and lasts 10 s by default', () => {
    expect(score([wanted(5)], [seen(15)]).hits).toHaveLength(1)
    expect(score([wanted(5)], [seen(15.1)]).hits).toHaveLength(0)
    expect(score([wanted(5)], [seen(4.9)]).hits).toHaveLength(0)
    expect(score([wanted(5, { early: 0.5 })], [seen(4.9)]).hits).toHaveLength(1)
    expect(score([wanted(5, { within: 2 })], [seen(8)]).hits).toHaveLength(0)
  })

  test('needs the same detection and direction; one trigger is one hit', () => {
    expect(score([wanted(5, { detection: 'b' })], [seen(5)]).hits).toHaveLength(0)
    expect(
      score([wanted(5, { direction: 'leftToRight' })], [seen(5, 'a', 'rightToLeft')]).hits
    ).toHaveLength(0)
    expect(score([wanted(5), wanted(6)], [seen(7)])).toMatchObject({ recall: 0.5, precision: 1 })
  })

  test('nothing expected and nothing seen is a pass', () => {
    expect(score([], [])).toMatchObject({ recall: 1, precision: 1, f1: 1 })
    expect(score([], [seen(1)])).toMatchObject({ recall: 1, precision: 0, f1: 0 })
  })

  test('finds the most hits of all pairings', () => {
    const most = (e: Expected[], t: Trigger[]): number => {
      if (!e.length) return 0
      const [first, ...rest] = e as [Expected, Expected]
      const ways = t.flatMap((x, i) =>
        x.time >= first.time - 1e-9 && x.time - first.time <= (first.within ?? 10) + 1e-9
          ? [
              1 +
                most(
                  rest,
                  t.filter((_, k) => k !== i)
                )
            ]
          : []
      )
      return Math.max(most(rest, t), ...ways)
    }
    const time = fc.integer({ min: 0, max: 30 })
    fc.assert(
      fc.property(
        fc.array(fc.tuple(time, fc.integer({ min: 0, max: 8 })), { maxLength: 5 }),
        fc.array(time, { maxLength: 5 }),
        (events, moments) => {
          const e = events.map(([t, within]) => wanted(t, { within }))
          const t = moments.map((m) => seen(m))
          const result = score(e, t)
          expect(result.hits).toHaveLength(most(e, t))
          expect(result.hits.length + result.misses.length).toBe(e.length)
          expect(result.hits.length + result.false.length).toBe(t.length)
        }
      )
    )
  })
})

import { describe, expect, test } from '@jest/globals'
import munkres from 'munkres-js'
import { colourDistance } from './appearance.ts'
import { classify, classOfShape } from './classify.ts'
import type { Blob } from './foreground.ts'
import { Kalman } from './kalman.ts'
import type { SeenRow } from './target.ts'
import { isKept } from './targetFinder.ts'
import { Tracker } from './tracker.ts'

const colours = (n: number): Float32Array => {
  const h = new Float32Array(128)
  h[n] = h[64 + n] = 0.5
  return h
}
const blob = (x: number, y: number, look = 1, w = 12, h = 30): Blob => ({
  x,
  y,
  w,
  h,
  area: w * h * 0.7,
  colours: colours(look),
  wavers: false
})
const follow = (frames: Blob[][]) => {
  const tracker = new Tracker(10)
  frames.forEach((blobs, i) => tracker.step(blobs, i + 1))
  return tracker.finish().filter((t) => t.seen >= 5)
}
const frames = (n: number, at: (i: number) => Blob[]) => Array.from({ length: n }, (_, i) => at(i))

describe('tracker', () => {
  test('gives one walker one target with a row per frame', () => {
    const [only, ...others] = follow(frames(40, (i) => [blob(10 + 2.5 * i, 100)]))
    expect(others).toEqual([])
    expect(only!.rows.map((r) => r.frame)).toEqual(Array.from({ length: 40 }, (_, i) => i + 1))
  })

  test('bridges a gap of up to a second and fills in its rows', () => {
    const [only, ...others] = follow(
      frames(40, (i) => (i >= 15 && i < 24 ? [] : [blob(10 + 2.5 * i, 100)]))
    )
    expect(others).toEqual([])
    expect(only!.rows).toHaveLength(40)
    expect(only!.rows[20]).toMatchObject({ frame: 21, measured: false })
    expect(only!.rows[20]!.x).toBeCloseTo(60, 0)
  })

  test('starts a new target after a longer gap', () => {
    expect(
      follow(frames(60, (i) => (i >= 15 && i < 40 ? [] : [blob(10 + 2.5 * i, 100)])))
    ).toHaveLength(2)
  })

  test('keeps identities when two people merge into one patch and part again', () => {
    const found = follow(
      frames(50, (i) => {
        const [a, b] = [blob(20 + 2.4 * i, 100, 1), blob(140 - 2.4 * i, 102, 9)]
        if (Math.abs(a.x - b.x) > 12) return [a, b]
        const x = Math.min(a.x, b.x)
        return [
          {
            x,
            y: 100,
            w: Math.abs(a.x - b.x) + 12,
            h: 32,
            area: 500,
            colours: colours(1).map((v, k) => (v + colours(9)[k]!) / 2),
            wavers: false
          }
        ]
      })
    )
    expect(found).toHaveLength(2)
    for (const target of found) {
      const looks = [1, 9].find((n) => colourDistance(target.colours, colours(n)) < 0.5)
      const [first, last] = [target.rows[0]!, target.rows[target.rows.length - 1]!]
      expect([looks, last.x > first.x]).toEqual(looks === 1 ? [1, true] : [9, false])
    }
  })

  test('a body split in two for a moment stays one target', () => {
    const found = follow(
      frames(40, (i) =>
        i === 20 || i === 21
          ? [blob(10 + 2 * i, 100, 1, 12, 14), blob(10 + 2 * i, 117, 1, 12, 13)]
          : [blob(10 + 2 * i, 100)]
      )
    )
    expect(found).toHaveLength(1)
  })

  test('a long patch that slides to and fro along itself is no target; one that gets on is', () => {
    const [tape] = follow(frames(60, (i) => [blob(100 + 25 * Math.sin(i / 9), 80, 1, 70, 3)]))
    expect(isKept(tape!, 10)).toBe(false)
    const [boat] = follow(frames(60, (i) => [blob(20 + 2 * i, 80, 1, 70, 3)]))
    expect(isKept(boat!, 10)).toBe(true)
    const [car] = follow(frames(60, (i) => [blob(100 + 25 * Math.sin(i / 9), 80, 1, 60, 20)]))
    expect(isKept(car!, 10)).toBe(true)
  })

  test('ignores a patch of one or two frames', () => {
    expect(follow(frames(20, (i) => (i === 5 || i === 6 ? [blob(50, 50)] : [])))).toEqual([])
  })

  test('assigns at the lowest cost, compared with every permutation', () => {
    const costs = [
      [4, 1, 3.5, 9],
      [2, 0, 5, 7],
      [3, 2, 2, 1],
      [8, 3, 1, 6]
    ]
    const orders = (list: number[]): number[][] =>
      list.length < 2
        ? [list]
        : list.flatMap((x) => orders(list.filter((y) => y !== x)).map((rest) => [x, ...rest]))
    const total = (order: number[]) =>
      order.reduce((sum, column, row) => sum + costs[row]![column]!, 0)
    expect(munkres(costs).reduce((sum, [r, c]) => sum + costs[r]![c]!, 0)).toBe(
      Math.min(...orders([0, 1, 2, 3]).map(total))
    )
  })
})

describe('Kalman filter', () => {
  test('finds the velocity of a steady movement and predicts its course', () => {
    const filter = new Kalman(0, 1, 10, 5)
    for (let i = 1; i <= 60; i++) {
      filter.predict(0.1)
      filter.correct(7 * i * 0.1 + (i % 2 ? 0.3 : -0.3), 1)
    }
    expect(filter.velocity).toBeCloseTo(7, 0)
    filter.predict(1)
    expect(Math.abs(filter.value - 49)).toBeLessThan(0.8)
  })
})

describe('classes', () => {
  test('classifies by shape and pace as docs/classification.md says', () => {
    const shape = { upright: 2.6, swing: 0.2, pace: 0.8, height: 0.2, area: 0.01 }
    expect(classOfShape(shape)).toBe('person')
    expect(classOfShape({ ...shape, upright: 1.6, pace: 3 })).toBe('cycle')
    expect(classOfShape({ ...shape, upright: 1, pace: 2 })).toBe('cycle')
    expect(classOfShape({ ...shape, upright: 1 })).toBe('person')
    expect(classOfShape({ ...shape, upright: 0.5, area: 0.05, swing: 0.05 })).toBe('vehicle')
    expect(classOfShape({ ...shape, upright: 0.6, height: 0.06, area: 0.004 })).toBe('animal')
    expect(classOfShape({ ...shape, upright: 0.6, height: 0.3, area: 0.05, swing: 0.6 })).toBe(
      'unknown'
    )
  })

  test('is unknown until seen for a while; a box cut by the edge gives no vote', () => {
    const size = { width: 320, height: 180 }
    const rows = (x0: number): SeenRow[] =>
      Array.from({ length: 20 }, (_, i) => ({
        frame: i + 101,
        x: x0 + i,
        y: 60,
        w: 14,
        h: 40,
        measured: true,
        area: 400,
        wavers: false
      }))
    const classes = classify(rows(50), 10, size).map(({ cls }) => cls)
    expect(classes.slice(0, 4)).toEqual(['unknown', 'unknown', 'unknown', 'unknown'])
    expect(new Set(classes.slice(8))).toEqual(new Set(['person']))
    // Where things waver, and in the first ten seconds, only targets that travel count; swaying in place does not.
    const wavering = (place: (i: number) => number, first = 101) =>
      new Set(
        classify(
          Array.from({ length: 50 }, (_, i) => ({
            ...rows(0)[0]!,
            frame: first + i,
            x: place(i),
            wavers: first > 100
          })),
          10,
          size
        ).map(({ cls }) => cls)
      )
    for (const first of [101, 1]) {
      expect(wavering((i) => 100 + 8 * Math.sin(i / 2), first)).toEqual(new Set(['unknown']))
      expect(wavering((i) => 50 + 3 * i, first)).toEqual(new Set(['unknown', 'person']))
    }
    const cut = rows(0).map((r) => ({ ...r, x: 0 }))
    const leaving = classify(cut, 10, size).map(({ cls }) => cls)
    expect(new Set(leaving)).toEqual(new Set(['unknown']))
  })

  test('what the detector says counts from a second before the picture that it is about', () => {
    const rows = Array.from({ length: 40 }, (_, i) => ({
      ...{ frame: i + 101, x: 0, y: 60, w: 14, h: 40 },
      ...{ measured: true, area: 400, wavers: false }
    }))
    const told = [
      { frame: 121, cls: 'animal' as const, likelihood: 0.4 },
      { frame: 131, cls: 'vehicle' as const, likelihood: 0.9 }
    ]
    const classes = classify(rows, 10, { width: 320, height: 180 }, told).map(({ cls }) => cls)
    expect(classes.slice(0, 10)).toEqual(Array(10).fill('unknown'))
    expect(classes.slice(10, 20)).toEqual(Array(10).fill('animal'))
    expect(classes.slice(20)).toEqual(Array(20).fill('vehicle'))
  })
})

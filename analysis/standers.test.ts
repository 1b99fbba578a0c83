import { describe, expect, test } from '@jest/globals'
import type { Stander } from './detector/standing.ts'
import { withStanders } from './standers.ts'
import { Followed } from './target.ts'

const FPS = 10
const car: Stander = {
  ...{ x: 50, y: 100, w: 45, h: 25, cls: 'vehicle', likelihood: 0.7 },
  ...{ from: 1, to: Infinity }
}
/** A target of that size that moves to the right from a frame on. */
function moving(frame: number, x: number, y: number, w: number, h: number): Followed {
  const patch = { y, w, h, area: w * h, colours: new Float32Array(48), wavers: false }
  const target = new Followed({ ...patch, x }, frame)
  for (let i = 1; i <= 30; i++) {
    target.predict(1 / FPS)
    target.correct({ ...patch, x: x + 3 * i }, frame + i)
  }
  return target
}

describe('what stood and then moves', () => {
  test('a car that sets off is one target, from the first frame on without a gap', () => {
    const target = moving(81, 52, 101, 44, 24)
    expect(withStanders([target], [car], FPS, 400)).toEqual([{ stood: { ...car, to: 80 }, target }])
  })

  test('who passes it, gets out of it, or comes from elsewhere is another', () => {
    for (const target of [
      moving(81, 0, 100, 44, 24),
      moving(81, 80, 98, 8, 22),
      moving(81, 20, 40, 120, 100)
    ])
      expect(withStanders([target], [car], FPS, 400)).toEqual([
        { stood: { ...car, to: 400 }, target: null },
        { stood: null, target }
      ])
  })

  test('ends where it was last seen, or with the clip', () => {
    expect(withStanders([], [{ ...car, to: 121 }], FPS, 400)[0]!.stood!.to).toBe(121)
    expect(withStanders([], [{ ...car, to: 500 }], FPS, 400)[0]!.stood!.to).toBe(400)
  })

  test('targets are in the order in which they came into view', () => {
    const [early, late] = [moving(1, 10, 20, 10, 30), moving(60, 10, 20, 10, 30)]
    const wholes = withStanders([late, early], [car, { ...car, x: 200 }], FPS, 400)
    expect(wholes.map(({ stood, target }) => stood?.x ?? target!.rows[0]!.frame)).toEqual([
      ...[1, 50, 200, 60]
    ])
  })
})

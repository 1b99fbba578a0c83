import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import type { Trigger } from '../detections/index.ts'
import { tracksFromRows } from '../targets/tracks.ts'
import { judge, placeMarks, type PlacedMark } from './judge.ts'
import { readMarks, type Mark } from './marks.ts'

const trigger = (target: number, time: number, more: Partial<Trigger> = {}): Trigger => ({
  detection: 'd',
  kind: 'intrusion',
  target,
  frame: Math.round(time * 10) + 1,
  time,
  ...more
})
const mark = (target: number | null, time: number, of: Mark['mark'] = 'wanted'): PlacedMark => ({
  file: 0,
  time,
  target,
  mark: of,
  from: 0,
  to: 1000
})
const said = (triggers: Trigger[], marks: PlacedMark[]) =>
  judge(triggers, marks).ofTrigger.map((m) => m?.mark ?? null)

describe('which trigger a mark belongs to', () => {
  test('of its target the nearest within 2 s, and 2 s are within', () => {
    const two = [trigger(1, 10), trigger(1, 13)]
    expect(said(two, [mark(1, 11.4)])).toEqual(['wanted', null])
    expect(said(two, [mark(1, 11.6)])).toEqual([null, 'wanted'])
    expect(said([trigger(1, 10), trigger(1, 20)], [mark(1, 12)])).toEqual(['wanted', null])
    expect(said([trigger(2, 10)], [mark(1, 10)])).toEqual([null])
  })

  test('with none there it belongs to the target: a trigger at another moment is what it means', () => {
    expect(said([trigger(1, 30)], [mark(1, 10, 'nuisance')])).toEqual(['nuisance'])
    expect(judge([], [mark(1, 10)]).answered.size).toBe(0)
  })

  test('one that another mark is near to is not taken by the target’s', () => {
    const back = [trigger(1, 5), trigger(1, 40)]
    expect(said(back, [mark(1, 5), mark(1, 20, 'nuisance')])).toEqual(['wanted', 'nuisance'])
  })

  test('of two that disagree the nearer counts, and what is wanted where they are equally near', () => {
    expect(said([trigger(1, 10)], [mark(1, 10.5), mark(1, 10.1, 'nuisance')])).toEqual(['nuisance'])
    expect(said([trigger(1, 10)], [mark(1, 11, 'nuisance'), mark(1, 9)])).toEqual(['wanted'])
  })

  test('a mark of a target that stands again after a gap is of that stay alone', () => {
    const rows = [0, 1, 2, 100, 101, 102].map((n) => ({
      frame: n + 1,
      id: 1,
      x: 0,
      y: 0,
      w: 0.1,
      h: 0.1,
      cls: 'person' as const,
      confidence: 1
    }))
    const [placed] = placeMarks([mark(1, 10.1)], [tracksFromRows(rows, 10)])
    expect(placed).toMatchObject({ from: 10, to: 10.2 })
    expect(said([trigger(1, 0.2)], [placed!])).toEqual([null])
  })

  test('a zone that counts several is of each of them; what has no target, of its moment', () => {
    expect(said([trigger(1, 5, { targets: [1, 4] })], [mark(4, 5)])).toEqual(['wanted'])
    const covered: Trigger = { detection: 'd', kind: 'tamper', frame: 51, time: 5 }
    expect(said([covered], [mark(null, 5.5, 'nuisance')])).toEqual(['nuisance'])
    expect(said([covered], [mark(1, 5)])).toEqual([null])
  })

  test('whatever marks and triggers there are: each mark has a trigger of its target, or none is there', () => {
    const time = fc.integer({ min: 0, max: 300 }).map((n) => n / 10)
    const target = fc.integer({ min: 1, max: 3 })
    const kind = fc.constantFrom('wanted' as const, 'nuisance' as const)
    fc.assert(
      fc.property(
        fc.array(fc.tuple(target, time), { maxLength: 8 }),
        fc.array(fc.tuple(target, time, kind), { maxLength: 6 }),
        (fired, marked) => {
          const triggers = fired.map(([id, at]) => trigger(id, at)).sort((a, b) => a.time - b.time)
          const marks = marked.map(([id, at, of]) => mark(id, at, of))
          const { ofTrigger, answered } = judge(triggers, marks)
          ofTrigger.forEach((m, i) => {
            if (m) expect(m.target).toBe(triggers[i]!.target)
          })
          for (const m of marks) {
            const near = triggers.some(
              (t) => t.target === m.target && Math.abs(t.time - m.time) <= 2 + 1e-9
            )
            if (near) expect(answered.has(m)).toBe(true)
          }
        }
      )
    )
  })
})

describe('marks as JSON lines', () => {
  test('times in seconds of their file, the first one unless another is named', () => {
    expect(
      readMarks(
        '\uFEFF{"time":12.3,"target":7,"mark":"wanted"}\r\n\n{"time":1,"target":7,"mark":"nuisance","file":1}\n',
        2
      )
    ).toEqual([
      { file: 0, time: 12.3, target: 7, mark: 'wanted' },
      { file: 1, time: 1, target: 7, mark: 'nuisance' }
    ])
  })

  test.each([
    ['{"time":1,"target":7,"mark":"good"}', 'line 1, $.mark'],
    ['{"time":-1,"target":7,"mark":"wanted"}', 'line 1, $.time'],
    ['\n{"time":1,"target":7.5,"mark":"wanted"}', 'line 2, $.target'],
    ['{"time":1,"mark":"wanted","why":"x"}', 'line 1, $.why'],
    ['{"time":1,"target":7,"mark":"wanted","file":1}', 'line 1, file'],
    ['wanted', 'line 1']
  ])('%s is refused with its place', (text, place) => {
    expect(() => readMarks(text, 1)).toThrow(expect.objectContaining({ place }))
  })
})

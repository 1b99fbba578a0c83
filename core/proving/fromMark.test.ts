import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { CheckSchema } from '../formats/check.ts'
import { parseWith } from '../schema/parse.ts'
import { checkOfMark, stretchAround } from './fromMark.ts'

const marked = {
  id: 'gate.own-1',
  detection: 'gate',
  name: 'Reported 28 Nov 2026, 21:41',
  clip: { id: 'c', start: Date.UTC(2026, 10, 28, 21) },
  stretch: { from: 90, to: 130 },
  time: 100.4
}

describe('a marked moment as a check', () => {
  test('what was wanted must trigger at its moment, a nuisance must not at all', () => {
    expect(checkOfMark({ ...marked, mark: 'wanted', fired: true })).toMatchObject({
      about: 'passes',
      side: 'inside',
      by: { how: 'clip', clip: 'c', from: 90, to: 130 },
      at: marked.clip.start,
      expect: { what: 'trigger', from: expect.closeTo(8.4), to: expect.closeTo(12.4) }
    })
    const nuisance = checkOfMark({ ...marked, mark: 'nuisance', fired: true })
    expect(nuisance).toMatchObject({ about: 'nuisance', expect: { what: 'silence' } })
    expect(nuisance.side).toBeUndefined()
  })

  test('one that should have triggered may do so at any moment of its stay', () => {
    expect(checkOfMark({ ...marked, mark: 'wanted', fired: false }).expect).toEqual({
      what: 'trigger',
      from: 0,
      to: 40
    })
  })

  test('the stretch holds the moment and the whole stay, within the clip and an hour; the check is valid', () => {
    const clip = fc.double({ min: 2, max: 7200, noNaN: true })
    const share = fc.double({ min: 0, max: 1, noNaN: true })
    fc.assert(
      fc.property(
        clip,
        share,
        share,
        share,
        fc.boolean(),
        fc.boolean(),
        (length, a, b, c, fired, known) => {
          const [from, time, to] = [a, b, c].map((x) => x * length).sort((x, y) => x - y) as [
            number,
            number,
            number
          ]
          const stretch = stretchAround(time, known ? { from, to } : null, length)
          expect(stretch.from).toBeLessThanOrEqual(time)
          expect(stretch.to).toBeGreaterThanOrEqual(time)
          expect(stretch.from).toBeGreaterThanOrEqual(0)
          expect(stretch.to).toBeLessThanOrEqual(length)
          expect(stretch.to - stretch.from).toBeLessThanOrEqual(3600)
          if (known && to - from < 3000) {
            expect(stretch.from).toBeLessThanOrEqual(from)
            expect(stretch.to).toBeGreaterThanOrEqual(to)
          }
          // The clip of a stretch that was looked back at begins with it.
          const own = { from: 0, to: stretch.to - stretch.from }
          for (const mark of ['wanted', 'nuisance'] as const)
            parseWith(
              CheckSchema,
              checkOfMark({ ...marked, stretch: own, time: time - stretch.from, mark, fired })
            )
        }
      )
    )
  })
})

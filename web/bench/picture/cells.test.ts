import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { everyCell, isEmpty, painted, rectangle, toggled } from './cells.ts'

const none = ['00000', '00000', '00000', '00000']

describe('painting cells', () => {
  test('a stroke paints every cell on its path, also when the pointer jumps', () => {
    expect(painted(none, { column: 0, row: 0 }, { column: 4, row: 2 }, true)).toEqual([
      '10000',
      '01100',
      '00011',
      '00000'
    ])
    expect(painted(none, { column: 2, row: 3 }, { column: 2, row: 3 }, true)).toEqual([
      '00000',
      '00000',
      '00000',
      '00100'
    ])
  })

  test('a rectangle works from any corner, on and off', () => {
    const on = rectangle(none, { column: 3, row: 2 }, { column: 1, row: 1 }, true)
    expect(on).toEqual(['00000', '01110', '01110', '00000'])
    expect(rectangle(on, { column: 2, row: 0 }, { column: 2, row: 3 }, false)).toEqual([
      '00000',
      '01010',
      '01010',
      '00000'
    ])
  })

  test('toggles one cell', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 4 }), fc.integer({ min: 0, max: 3 }), (column, row) => {
        const once = toggled(none, { column, row })
        expect(once.join('').replace(/0/g, '')).toBe('1')
        expect(toggled(once, { column, row })).toEqual(none)
      })
    )
  })

  test('a stroke touches neighbours only: no step is longer than a cell', () => {
    const cell = fc.record({
      column: fc.integer({ min: 0, max: 4 }),
      row: fc.integer({ min: 0, max: 3 })
    })
    fc.assert(
      fc.property(cell, cell, (a, b) => {
        const on = painted(none, a, b, true).flatMap((line, row) =>
          [...line].flatMap((c, column) => (c === '1' ? [{ column, row }] : []))
        )
        expect(on.length).toBe(Math.max(Math.abs(a.column - b.column), Math.abs(a.row - b.row)) + 1)
      })
    )
  })

  test('all, none and empty', () => {
    expect(isEmpty(everyCell(none, false))).toBe(true)
    expect(everyCell(none, true).every((row) => row === '11111')).toBe(true)
    expect(isEmpty(['000', '010'])).toBe(false)
  })
})

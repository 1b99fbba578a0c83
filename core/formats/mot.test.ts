import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { CLASSES } from '../targets/classes.ts'
import { rowAt, tracksFromRows } from '../targets/tracks.ts'
import { readMot, writeMot } from './mot.ts'

const size = { width: 640, height: 360 }
const read = (text: string) => readMot(text, 10, size)

describe('MOTChallenge text', () => {
  // Rows of the form published with MOT16 (ground truth of a training sequence; layout from memory).
  test('reads rows in pixels in any order, with classes as numbers or names', () => {
    const t = read(
      '2,3,320,180,64,36,1,1,0.9\n1,3,0,0,64,36,1,7,1\r\n1,1,-6.4,36,64,90,0.5,animal,1\n\n3,1,1,1,2,2,1,3\n4,1,1,1,2,2,1,6\n5,1,1,1,2,2,1,11\n'
    )
    expect(rowAt(t, 0)).toEqual({
      frame: 1,
      id: 1,
      x: -0.01,
      y: 0.1,
      w: 0.1,
      h: 0.25,
      cls: 'animal',
      confidence: 0.5
    })
    expect([...t.cls].map((c) => CLASSES[c])).toEqual([
      'animal',
      'person',
      'person',
      'vehicle',
      'cycle',
      'unknown'
    ])
  })

  test('columns after the sixth are optional: the class is unknown', () => {
    expect(rowAt(read('1,1,0,0,64,36'), 0).cls).toBe('unknown')
    expect(rowAt(read('1,1,0,0,64,36,0.7'), 0).cls).toBe('unknown')
    expect(rowAt(read('1,1,0,0,64,36,1,-1,-1,-1'), 0).cls).toBe('unknown')
    expect(read('').length).toBe(0)
  })

  test('reads back what it writes to a hundredth of a pixel', () => {
    const rows = fc.uniqueArray(
      fc.record({
        frame: fc.integer({ min: 1, max: 500 }),
        id: fc.integer({ min: 1, max: 9 }),
        x: fc.double({ min: -0.1, max: 0.9, noNaN: true }),
        y: fc.double({ min: 0, max: 0.9, noNaN: true }),
        w: fc.double({ min: 0.01, max: 0.5, noNaN: true }),
        h: fc.double({ min: 0.01, max: 0.5, noNaN: true }),
        cls: fc.constantFrom(...CLASSES),
        confidence: fc.constant(1)
      }),
      { selector: (r) => `${r.frame} ${r.id}`, maxLength: 40 }
    )
    fc.assert(
      fc.property(rows, (list) => {
        const before = tracksFromRows(list, 10)
        const after = read(writeMot(before, size))
        expect([...after.frame]).toEqual([...before.frame])
        expect([...after.id]).toEqual([...before.id])
        expect([...after.cls]).toEqual([...before.cls])
        for (const k of ['x', 'y', 'w', 'h'] as const)
          for (let i = 0; i < before.length; i++)
            expect(Math.abs(after[k][i]! - before[k][i]!)).toBeLessThan(0.006 / 360)
      })
    )
  })

  test.each([
    ['1,1,0,0', 'line 1: has 4 columns'],
    ['1,1,0,0,5,5\nx,1,0,0,5,5', 'line 2, frame: is "x"; must be a number'],
    ['0,1,0,0,5,5', 'line 1, frame: is 0; must be a whole number from 1'],
    ['1.5,1,0,0,5,5', 'line 1, frame: is 1.5'],
    ['1,-1,0,0,5,5', 'line 1, id: is -1'],
    ['1,1,0,0,0,5', 'line 1, width: is 0; must be above 0'],
    ['1,1,0,0,5,-2', 'line 1, height: is -2; must be above 0'],
    ['1,1,0,0,5,Infinity', 'line 1, height'],
    ['1,1,0,,5,5', 'line 1, top: is ""'],
    ['1,1,0,0,5,5,1,dragon', 'line 1, class: is "dragon"; must be a MOT16 number or one of'],
    ['1,1,0,0,5,5\n1,1,0,0,6,6', 'line 2: target 1 stands twice in frame 1']
  ])('refuses %j with the place', (text, message) => {
    expect(() => read(text)).toThrowWords(message)
  })
})

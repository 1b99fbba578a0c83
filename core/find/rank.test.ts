import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { find } from './rank.ts'

const things = [
  { name: 'Slipway', more: 'camera' },
  { name: 'Quay edge', more: 'Slipway Line crossing' },
  { name: 'Quay path', more: 'camera' },
  { name: 'Path crossing', more: 'Quay path Line crossing' },
  { name: 'Łódź gate', more: 'camera' }
]
const names = (typed: string): string[] => find(things, typed, 10).map(({ name }) => name)

test('the name before what is said besides; its beginning before its middle', () => {
  expect(names('quay')).toEqual(['Quay edge', 'Quay path', 'Path crossing'])
  expect(names('path')).toEqual(['Path crossing', 'Quay path'])
  expect(names('slip')).toEqual(['Slipway', 'Quay edge'])
  expect(names('way')).toEqual(['Slipway', 'Quay edge'])
})

test('all words, in any order, in any spelling of letters', () => {
  expect(names('line quay')).toEqual(['Quay edge', 'Path crossing'])
  expect(names('LODZ')).toEqual(['Łódź gate'])
  expect(names('łódź')).toEqual(['Łódź gate'])
  expect(names('quay nothing')).toEqual([])
})

test('nothing typed: all, in their order; never more than asked for', () => {
  expect(names('  ')).toEqual(things.map(({ name }) => name))
  expect(find(things, '', 2)).toEqual(things.slice(0, 2))
})

test('whatever is typed, what is found has each word in it', () => {
  fc.assert(
    fc.property(fc.string(), fc.array(fc.string()), (typed, all) => {
      const found = find(
        all.map((name) => ({ name })),
        typed,
        100
      )
      expect(found.length).toBeLessThanOrEqual(all.length)
      expect(new Set(found).size).toBe(found.length)
    })
  )
  fc.assert(
    fc.property(
      fc.stringMatching(/^[a-z]{1,8}$/),
      fc.stringMatching(/^[a-z ]{0,8}$/),
      (word, rest) => {
        expect(find([{ name: `${rest}${word}` }], word, 1)).toHaveLength(1)
      }
    )
  )
})

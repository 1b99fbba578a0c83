import { expect, test } from '@jest/globals'
import { memoized } from './memoized.ts'

test('gives the same frozen value for the same text', () => {
  let times = 0
  const read = memoized((text) => (times++, JSON.parse(text) as unknown), 1000)
  const text = '{"zones":[[[0,0],[1,1]]],"name":"Quay"}'
  const value = read(text) as { zones: number[][][]; name: string }
  expect(value).toEqual(JSON.parse(text))
  expect(read(`${text.slice(0, 5)}${text.slice(5)}`)).toBe(value)
  expect(times).toBe(1)
  expect(() => value.zones[0]!.push([2, 2])).toThrow(TypeError)
  expect(() => (value.name = 'Slip')).toThrow(TypeError)
  expect(read('null')).toBeNull()
})

test('empties its cache when that is full, and reads again', () => {
  const read = memoized((text) => JSON.parse(text) as unknown, 1000)
  const text = '["kept"]'
  const value = read(text)
  for (let n = 0; n < 9; n++)
    expect(read(JSON.stringify(String(n).padEnd(99, 'x')))).toHaveLength(99)
  expect(read(text)).toBe(value)
  expect(read(JSON.stringify('x'.padEnd(99, 'x')))).toHaveLength(99)
  expect(read(text)).not.toBe(value)
  expect(read(text)).toEqual(value)
})

test('throws each time for what cannot be read', () => {
  const read = memoized((text) => JSON.parse(text) as unknown, 1000)
  for (let n = 0; n < 2; n++) expect(() => read('{')).toThrow(SyntaxError)
})

import { expect, test } from '@jest/globals'
import { parsedOnce } from './columns.ts'

test('the same text gives the same value, which nobody can change', () => {
  const text = '{"zones":[[[0,0],[1,1]]],"name":"Quay"}'
  const value = parsedOnce<{ zones: number[][][]; name: string }>(text)
  expect(value).toEqual(JSON.parse(text))
  expect(parsedOnce(`${text.slice(0, 5)}${text.slice(5)}`)).toBe(value)
  expect(() => value.zones[0]!.push([2, 2])).toThrow(TypeError)
  expect(() => (value.name = 'Slip')).toThrow(TypeError)
  expect(parsedOnce('null')).toBeNull()
})

test('what is remembered is bounded, and what was forgotten is read anew', () => {
  const text = '["kept"]'
  const value = parsedOnce(text)
  const long = (n: number): string => JSON.stringify([String(n).padEnd(2 ** 20, 'x')])
  for (let n = 0; n < 9; n++) expect(parsedOnce<string[]>(long(n))[0]).toHaveLength(2 ** 20)
  expect(parsedOnce(text)).not.toBe(value)
  expect(parsedOnce(text)).toEqual(value)
})

import { expect, test } from '@jest/globals'
import { deviceWords } from './deviceLimits.ts'

const ability = {
  type: 'tt:FieldDetector',
  most: 4,
  parameters: ['Sensitivity', 'TimeThreshold', 'ClassFilter'],
  ranges: { Sensitivity: { min: 1, max: 4 }, TimeThreshold: { min: 0, max: 10 } }
}
const limits = { device: 'Yard camera', ability }

test.each([
  ['Sensitivity', 100, '', { words: 'Yard camera: step 4 of 1 to 4', holds: true }],
  ['Sensitivity', 50, '', { words: 'Yard camera: step 2 of 1 to 4, which is 34', holds: false }],
  ['TimeThreshold', 10, ' s', { words: 'Yard camera: 0 to 10 s', holds: true }],
  ['TimeThreshold', 30, ' s', { words: 'Yard camera: 0 to 10 s; it will use 10 s', holds: false }],
  ['ConfirmTime', 0.5, ' s', { words: 'Yard camera does not support this setting', holds: false }],
  ['ClassFilter', 0, '', null]
])('what a device makes of %s %d', (parameter, value, unit, words) =>
  expect(deviceWords(limits, parameter, value, unit)).toEqual(words)
)

test('says when a device lacks the kind', () =>
  expect(deviceWords({ device: 'Yard camera', ability: null }, 'Sensitivity', 50, '')).toEqual({
    words: 'Yard camera does not support this kind',
    holds: false
  }))

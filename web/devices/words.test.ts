import { expect, test } from '@jest/globals'
import type { DeviceDetection } from '../../core/api.ts'
import { abilityWords, detectionWords, eventWords } from './words.ts'

test.each([
  [{ type: 'tt:LineDetector', most: 4, parameters: ['ClassFilter'], ranges: { Sensitivity: { min: 1, max: 100 } } }, 'Line crossing (up to 4, sensitivity in 100 steps)'],
  [{ type: 'tt:FieldDetector', most: null, parameters: [], ranges: { Sensitivity: { min: 1, max: 4 }, TimeThreshold: { min: 0, max: 10 } } }, 'Intrusion (sensitivity in 4 steps, dwell up to 10 s, no classes)'],
  [{ type: 'tt:TamperDetector', most: null, parameters: [], ranges: {} }, 'Tamper'],
  [{ type: 'tt:QueueDetector', most: 1, parameters: ['ClassFilter'], ranges: {} }, 'QueueDetector (up to 1)']
])('what a device can do: %j', (ability, words) => expect(abilityWords(ability)).toBe(words))

test('how a detection stands on its device, each state in words of its own', () => {
  const states: DeviceDetection['state'][] = ['same', 'differs', 'missing', 'unsupported', 'off', 'unread']
  const words = states.map((state) => detectionWords({ id: 'x', name: 'X', kind: 'line', state, differences: [], losses: [] }))
  expect(new Set(words).size).toBe(states.length)
  expect(words[2]).toBe('is not on the device yet')
})

test.each([
  ['tns1:RuleEngine/LineDetector/Crossed', { Direction: 'Right', ObjectId: '4' }, 'the line was crossed (right), target 4'],
  ['tns1:RuleEngine/CellMotionDetector/Motion', {}, 'motion'],
  ['tns1:RuleEngine/Own/Thing', {}, 'Thing']
])('%s with %j', (topic, data, words) => expect(eventWords({ id: 1, topic, rule: 'r', data, deviceAt: 0, receivedAt: 0 })).toBe(words))

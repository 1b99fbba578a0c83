/** @jest-environment ./scripts/jestBrowser.mjs */
import { expect, test } from '@jest/globals'
import { said } from '../../core/messages/said.ts'
import type { ChannelLoss, StandingState } from '../../core/devices/views.ts'
import { DetectionSchema } from '../../core/formats/plan.ts'
import { abilityWords, detectionWords, eventWords, lossWords } from './words.tsx'
import { parseWith } from '../../core/schema/parse.ts'

test.each([
  [
    {
      type: 'tt:LineDetector',
      most: 4,
      parameters: ['ClassFilter'],
      ranges: { Sensitivity: { min: 1, max: 100 } }
    },
    'Line crossing (up to 4, sensitivity in 100 steps)'
  ],
  [
    {
      type: 'tt:FieldDetector',
      most: null,
      parameters: [],
      ranges: { Sensitivity: { min: 1, max: 4 }, TimeThreshold: { min: 0, max: 10 } }
    },
    'Intrusion (sensitivity in 4 steps, dwell up to 10 s, no classes)'
  ],
  [
    { type: 'tt:TamperDetector', most: null, parameters: ['Hours'], ranges: {} },
    'Tamper (schedules on device)'
  ],
  [
    { type: 'tt:QueueDetector', most: 1, parameters: ['ClassFilter'], ranges: {} },
    'QueueDetector (up to 1)'
  ]
])('what a device can do: %j', (ability, words) => expect(abilityWords(ability)).toBe(words))

test('each state of a detection on its device has its own text', () => {
  const states: StandingState[] = [
    'same',
    'differs',
    'missing',
    'drifted',
    'unsupported',
    'off',
    'unread',
    'own'
  ]
  const words = states.map((state) => detectionWords({ state, elsewhere: null, parked: false }))
  expect(new Set(words).size).toBe(states.length)
  expect(words[2]).toBe('not on the device')
  expect(detectionWords({ state: 'unsupported', elsewhere: 'Recorder', parked: false })).toBe(
    'not supported here, sent through Recorder'
  )
})

test.each([
  [
    {
      setting: 'dwell',
      wanted: said('values.seconds', 12),
      nearest: said('values.seconds', 10),
      elsewhere: null
    },
    'Dwell 12 s: the nearest is 10 s'
  ],
  [
    { setting: 'armInput', wanted: said('values.text', 'panel'), nearest: null, elsewhere: null },
    'Arming contact panel: not supported'
  ],
  [
    {
      setting: 'arming',
      wanted: said('values.text', 'Nights'),
      nearest: said('values.always'),
      elsewhere: 'Recorder'
    },
    'Arming schedule Nights: only through Recorder'
  ]
] as [ChannelLoss, string][])('what becomes of a setting: %j', (loss, words) =>
  expect(lossWords(loss)).toBe(words)
)

test.each([
  [
    'tns1:RuleEngine/LineDetector/Crossed',
    { Direction: 'Right', ObjectId: '4' },
    'line crossed (right), target 4'
  ],
  ['tns1:RuleEngine/CellMotionDetector/Motion', {}, 'motion'],
  ['tns1:RuleEngine/TamperDetector/Tamper', { Cause: 'covered' }, 'tamper (covered)'],
  ['tns1:Device/Trigger/DigitalInput', { LogicalState: 'true' }, 'active'],
  ['tns1:RuleEngine/Own/Thing', {}, 'Thing']
])('%s with %j', (topic, data, words) => expect(eventWords({ topic, data })).toBe(words))

test('names a line’s crossing by its sides', () => {
  const line = parseWith(DetectionSchema, {
    id: 'edge',
    name: 'Edge',
    kind: 'line',
    line: [
      [0, 0.5],
      [1, 0.5]
    ],
    sides: { left: 'Water', right: 'Land' }
  })
  const event = (Direction: string) => ({
    topic: 'tns1:RuleEngine/LineDetector/Crossed',
    data: { Direction }
  })
  expect([eventWords(event('Right'), line), eventWords(event('Left'), line)]).toEqual([
    'line crossed (Water → Land)',
    'line crossed (Land → Water)'
  ])
})

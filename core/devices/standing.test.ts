import { describe, expect, test } from '@jest/globals'
import { toRule } from '../formats/onvif/toRule.ts'
import { DetectionSchema, type Detection } from '../formats/plan.ts'
import {
  changesOf,
  standingOf,
  unheldOf,
  unmanagedOf,
  wantedRules,
  type Channel
} from './standing.ts'
import { parseWith } from '../schema/parse.ts'
import { line } from './testing/line.ts'
import type { Rule } from '../formats/onvif/rule.ts'

const parameters = ['Direction', 'Sensitivity', 'ClassFilter', 'ConfirmTime']
const channel = (more: Partial<Channel> = {}): Channel => ({
  device: 'cam',
  deviceName: 'The camera',
  token: 'analytics',
  name: 'Picture',
  camera: 'gate',
  used: true,
  readAt: 1,
  mostRules: null,
  modes: [],
  held: [],
  sent: null,
  surroundings: null,
  abilities: [
    {
      type: 'tt:LineDetector',
      most: null,
      parameters,
      ranges: { Sensitivity: { min: 1, max: 100 } }
    }
  ],
  ...more
})
const ruleOf = (d: Detection): Rule => toRule(d, channel().abilities)!.rule
const state = (d: Detection, more: Partial<Channel>): string =>
  standingOf(d, channel(more), [], []).state

describe('who is watched for', () => {
  const one = line()
  const contact = parseWith(DetectionSchema, {
    id: 'door',
    name: 'Door',
    kind: 'contact',
    input: 'door'
  })
  const held = { name: 'one', type: 'tt:LineDetector', simple: {}, elements: {} } as unknown as Rule
  test.each([
    ['nothing shows the camera', [], ['one']],
    ['its channel holds nothing', [channel()], ['one']],
    ['its channel holds it, however it is set', [channel({ held: [held] })], []],
    ['another channel of it holds it', [channel(), channel({ held: [held] })], []],
    ['another camera holds one of that name', [channel({ camera: 'x', held: [held] })], ['one']]
  ])('%s', (_, channels, unheld) => {
    // A contact needs no rule on a device.
    expect(unheldOf('gate', [one, contact], channels)).toEqual(unheld)
  })
})

describe('state of a detection by plan, what was sent and what the device holds', () => {
  const [a, b, c] = [
    line({ sensitivity: 20 }),
    line({ sensitivity: 50 }),
    line({ sensitivity: 80 })
  ]
  // The three-way comparison of plan, sent and held; every case of equal and different.
  test.each([
    ['never sent, not held', a, null, null, 'missing'],
    ['never sent, held as wanted', a, null, a, 'same'],
    ['never sent, held otherwise', a, null, b, 'differs'],
    ['sent and held', a, a, a, 'same'],
    ['plan changed since', a, b, b, 'differs'],
    ['device changed since', a, a, b, 'drifted'],
    ['both changed, to the same', a, b, a, 'same'],
    ['both changed, to different ones', a, b, c, 'drifted'],
    ['sent, and removed on the device', a, a, null, 'drifted']
  ] as const)('%s', (_, plan, sent, held, expected) => {
    expect(state(plan, { sent: sent && [ruleOf(sent)], held: held ? [ruleOf(held)] : [] })).toBe(
      expected
    )
  })

  test('off, unread, unsupported, and kinds no device has', () => {
    expect(state(line({ enabled: false }), {})).toBe('off')
    expect(state(line({ enabled: false }), { held: [ruleOf(a)] })).toBe('differs')
    expect(state(a, { readAt: null })).toBe('unread')
    expect(state(a, { abilities: [] })).toBe('unsupported')
    expect(state(parseWith(DetectionSchema, { id: 's', name: 'S', kind: 'signalLoss' }), {})).toBe(
      'own'
    )
  })

  test('names the route for settings that another route takes', () => {
    const d = line({ confirmSeconds: 2 })
    const poor = channel({
      abilities: [
        { ...channel().abilities[0]!, parameters: ['Direction', 'Sensitivity', 'ClassFilter'] }
      ]
    })
    const recorder = channel({ deviceName: 'Recorder' })
    expect(standingOf(d, poor, [], []).losses).toEqual([
      { setting: 'confirm', wanted: '2 s', nearest: null, elsewhere: null }
    ])
    expect(standingOf(d, poor, [], [recorder]).losses).toMatchObject([{ elsewhere: 'Recorder' }])
    expect(standingOf(d, channel({ abilities: [] }), [], [recorder])).toMatchObject({
      state: 'unsupported',
      elsewhere: 'Recorder'
    })
    expect(
      standingOf(d, channel({ abilities: [] }), [], [{ ...recorder, readAt: null }]).elsewhere
    ).toBeNull()
  })

  test('sends detections in use that the device supports; lists unmanaged rules as changes', () => {
    const list = [
      a,
      line({ id: 'off', enabled: false }),
      parseWith(DetectionSchema, { id: 't', name: 'T', kind: 'tamper' })
    ]
    expect(wantedRules(list, channel(), []).map(({ name }) => name)).toEqual(['one'])
    const held = [
      { ...ruleOf(a), name: 'theirs' },
      { name: 'odd', type: 'tt:Unheard', simple: {}, points: [] }
    ]
    const unmanaged = unmanagedOf(list, channel({ held }))
    expect(unmanaged).toEqual([
      { name: 'theirs', kind: 'line' },
      { name: 'odd', kind: null }
    ])
    const detections = list.map((d) => standingOf(d, channel({ held }), [], []))
    const all = { detections, unmanaged, surroundings: null }
    expect(changesOf({ ...all, used: true })).toBe(3)
    expect(changesOf({ ...all, used: false })).toBe(0)
    const surroundings = { held: 'outdoors', wanted: 'indoors' } as const
    expect(changesOf({ ...all, surroundings, used: true })).toBe(4)
    expect(changesOf({ ...all, surroundings, used: false })).toBe(0)
    expect(changesOf({ ...all, surroundings: { ...surroundings, wanted: null }, used: true })).toBe(
      3
    )
  })
})

import { readFileSync } from 'node:fs'
import { beforeEach, describe, expect, test } from '@jest/globals'
import { Outputs, type SavedOutput } from './outputs.ts'

const voice = readFileSync(new URL('../../server/voices/leave.wav', import.meta.url))
const list = [
  { token: 'lamp', kind: 'strobe' as const, name: 'Lamp' },
  { token: 'horn', kind: 'speaker' as const, name: 'Horn' },
  { token: 'gate', kind: 'relay' as const, name: 'Gate' },
  { token: 'bell', kind: 'buzzer' as const, name: 'Bell' }
]
let said: [string, boolean][]
let outputs: Outputs
beforeEach(() => {
  said = []
  outputs = new Outputs(
    list,
    {},
    () => {},
    (token, active) => void said.push([token, active])
  )
})
const kept = (more: Partial<SavedOutput> = {}): SavedOutput => ({
  settings: { Time: 'PT10S', Pattern: 'fast' },
  hours: '',
  rules: ['analytics/edge'],
  voice: null,
  ...more
})

describe('outputs of a simulated device', () => {
  test('stay active for the set time, and report start and end', () => {
    outputs.activate('lamp', 1000, { Time: 'PT10S', Pattern: 'slow' }, null)
    expect([
      outputs.isActive('lamp', 1000),
      outputs.isActive('lamp', 10_999),
      outputs.isActive('lamp', 11_000)
    ]).toEqual([true, true, false])
    outputs.step(5000)
    outputs.step(11_000)
    outputs.step(12_000)
    expect(said).toEqual([
      ['lamp', true],
      ['lamp', false]
    ])
  })

  test('a message lasts as long as its file and repeats', () => {
    outputs.activate('horn', 0, { Voice: 'phrase:leave', Repeats: '3', Volume: '80' }, voice)
    expect(outputs.isActive('horn', 11_500)).toBe(true)
    expect(outputs.isActive('horn', 11_800)).toBe(false)
  })

  test('a relay until acknowledged stays closed until released', () => {
    outputs.activate('gate', 0, { Mode: 'untilAcknowledged', Time: 'PT5S' }, null)
    expect(outputs.isActive('gate', 1e12)).toBe(true)
    outputs.release('gate', 5000)
    expect(outputs.isActive('gate', 5000)).toBe(false)
  })

  // Common practice, no source: a larger number is refused, not cut (docs/references.md).
  test.each([
    ['lamp', { Time: 'PT61S', Pattern: 'fast' }, 'Time is PT61S; must be from PT1S to PT60S'],
    [
      'lamp',
      { Time: 'PT5S', Pattern: 'disco' },
      'Pattern is disco; must be one of slow, medium, fast, steady'
    ],
    ['horn', { Repeats: '51', Volume: '80' }, 'Repeats is 51; must be from 1 to 50'],
    ['horn', { Repeats: '1', Volume: '0' }, 'Volume is 0; must be from 1 to 100'],
    ['gate', { Mode: 'pulse', Time: 'PT601S' }, 'Time is PT601S; must be from PT1S to PT600S'],
    ['bell', {}, 'Time is not given; must be from PT1S to PT60S'],
    ['siren', { Time: 'PT5S' }, 'there is no output siren']
  ])('%s with %j is refused', (token, settings, why) => {
    expect(() =>
      outputs.activate(token, 0, settings, token === 'horn' ? voice : null)
    ).toThrowWords(why)
    expect(said).toEqual([])
  })

  test('are switched by its rules within its schedule on the device’s wall clock', () => {
    outputs.set('lamp', kept({ hours: 'tue=18:30-24:00' }))
    const tuesday = (hour: number, minute = 0): number => 1440 + hour * 60 + minute
    const fires = (rule: string, wall: number): boolean => {
      said = []
      outputs.fired(rule, 0, wall)
      return said.length > 0
    }
    expect([
      fires('analytics/edge', tuesday(18, 29)),
      fires('analytics/edge', tuesday(18, 30)),
      fires('analytics/edge', tuesday(23, 59)),
      fires('analytics/edge', tuesday(24)),
      fires('analytics/other', tuesday(20))
    ]).toEqual([false, true, true, false, false])
    outputs.set('lamp', kept())
    expect(fires('analytics/edge', 0)).toBe(true)
  })

  test('refuse settings out of range and invalid schedules', () => {
    expect(() => outputs.set('lamp', kept({ settings: { Time: 'PT99S' } }))).toThrowWords(
      'must be from PT1S to PT60S'
    )
    expect(() => outputs.set('lamp', kept({ hours: 'someday' }))).toThrowWords(
      'must be such as mon=18:30-24:00'
    )
    expect(() =>
      outputs.set(
        'horn',
        kept({
          settings: { Repeats: '1', Volume: '50' },
          voice: Buffer.from('no wave').toString('base64')
        })
      )
    ).toThrowWords(/byte/)
    expect(outputs.settingOf('lamp')).toBeNull()
  })
})

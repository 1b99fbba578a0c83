import { describe, expect, test } from '@jest/globals'
import * as fc from 'fast-check'
import { SEVERITIES } from '../kinds/parts.ts'
import { NO_FILTER, groupAlarms, passes, readFilter } from './queue.ts'

const states = ['waiting', 'acknowledged', 'closed'] as const
const anAlarm = fc.record({
  id: fc.integer(),
  camera: fc.constantFrom('gate', 'yard'),
  detection: fc.constantFrom('line', 'zone'),
  state: fc.constantFrom(...states),
  severity: fc.constantFrom(...SEVERITIES),
  run: fc.constantFrom(null, 'run')
})
const name = (a: { camera: string; detection: string; state: string; run: string | null }) =>
  JSON.stringify([a.camera, a.detection, a.state, a.run])

describe('groups of alarms', () => {
  test('lose none, keep the order, hold alike ones only, and never stand beside an alike one', () => {
    fc.assert(
      fc.property(fc.array(anAlarm, { maxLength: 30 }), (alarms) => {
        const groups = groupAlarms(alarms)
        expect(groups.flat()).toEqual(alarms)
        const names = groups.map((g) => [...new Set(g.map(name))])
        expect(names.every((n) => n.length === 1)).toBe(true)
        expect(names.some((n, i) => i > 0 && n[0] === names[i - 1]![0])).toBe(false)
      })
    )
  })
})

describe('filters', () => {
  test('none lets all through; each takes away by its own part alone', () => {
    fc.assert(
      fc.property(anAlarm, (a) => {
        expect(passes(NO_FILTER, a)).toBe(true)
        expect(passes({ ...NO_FILTER, cameras: ['yard'] }, a)).toBe(a.camera === 'yard')
        expect(passes({ ...NO_FILTER, openOnly: true }, a)).toBe(a.state !== 'closed')
        expect(passes({ ...NO_FILTER, lowest: 'major' }, a)).toBe(
          a.severity === 'major' || a.severity === 'critical'
        )
      })
    )
  })

  test('are read as they were kept; what is broken hides nothing', () => {
    const filter = { cameras: ['gate'], lowest: 'minor', openOnly: true } as const
    expect(readFilter(JSON.stringify(filter))).toEqual(filter)
    for (const text of [
      null,
      '',
      '{',
      'null',
      '[]',
      '7',
      '{"cameras":"gate","lowest":9,"openOnly":1}'
    ])
      expect(readFilter(text)).toEqual(NO_FILTER)
  })
})

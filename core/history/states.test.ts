import { describe, expect, test } from '@jest/globals'
import { NO_ACTIONS } from '../formats/noActions.ts'
import { DetectionSchema, ScheduleSchema } from '../formats/plan.ts'
import { canonical, differencesBetween, stateOf, type EditEntry } from './states.ts'
import { parseWith } from '../schema/parse.ts'

const line = (id: string, more: object = {}) =>
  parseWith(DetectionSchema, {
    id,
    name: id.toUpperCase(),
    kind: 'line',
    line: [
      [0.1, 0.5],
      [0.9, 0.5]
    ],
    ...more
  })
const nights = parseWith(ScheduleSchema, {
  id: 'n',
  name: 'Nights',
  week: { mon: [['18:30', '24:00']] }
})
let id = 0
const edit = (thing: EditEntry['thing'], thingId: string, body: unknown): EditEntry => ({
  id: ++id,
  camera: 'c',
  thing,
  thingId,
  body,
  label: 'x',
  by: 'Isla',
  at: 0
})

describe('the state after edits', () => {
  const state = stateOf([
    edit('schedule', 'n', nights),
    edit('detection', 'b', { detection: line('b'), position: 1 }),
    edit('detection', 'a', { detection: line('a'), position: 0 }),
    edit('actions', 'a', { ...NO_ACTIONS, links: ['mail'] }),
    edit('scene', 'c', { ignore: [], marks: null })
  ])
  test('has every detection in the order of the rail', () => {
    expect(state.detections.map((p) => p.detection.id)).toEqual(['a', 'b'])
    expect([...state.actions]).toEqual([['a', { ...NO_ACTIONS, links: ['mail'] }]])
    expect(state.scene).toEqual({ ignore: [], marks: null })
  })

  test('has no difference from itself, whatever the order of keys', () => {
    expect(differencesBetween(state, state)).toEqual([])
    expect(canonical({ b: 1, a: [{ d: 1, c: 2 }] })).toBe(canonical({ a: [{ c: 2, d: 1 }], b: 1 }))
  })

  test('lists differences setting by setting', () => {
    const later = stateOf([
      edit('schedule', 'n', { ...nights, week: { ...nights.week, tue: [['00:00', '06:00']] } }),
      edit('detection', 'a', {
        detection: line('a', {
          sensitivity: 60,
          schedule: 'n',
          classes: ['person'],
          line: [
            [0.1, 0.4],
            [0.9, 0.5]
          ]
        }),
        position: 0
      }),
      edit('detection', 'c', { detection: line('c'), position: 2 }),
      edit('scene', 'c', {
        ignore: [
          [
            [0, 0],
            [1, 0],
            [1, 1]
          ]
        ],
        marks: null
      })
    ])
    expect(differencesBetween(state, later)).toEqual([
      {
        name: 'A',
        change: 'changed',
        settings: expect.arrayContaining([
          { setting: 'sensitivity', before: '50', after: '60' },
          { setting: 'arming schedule', before: 'always', after: 'Nights' },
          { setting: 'classes', before: 'any', after: 'person' },
          { setting: 'shape', before: '2 vertices', after: 'changed' },
          { setting: 'actions', before: '1 linked', after: '0 linked' }
        ])
      },
      { name: 'B', change: 'deleted', settings: [] },
      { name: 'C', change: 'added', settings: [] },
      {
        name: 'Nights',
        change: 'changed',
        settings: [{ setting: 'week', before: 'set', after: 'changed' }]
      },
      {
        name: null,
        change: 'changed',
        settings: [{ setting: 'ignore areas', before: '0 areas', after: '1 area' }]
      }
    ])
  })
})

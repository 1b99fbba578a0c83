import { describe, expect, test } from '@jest/globals'
import { DetectionSchema, ScheduleSchema } from '../../../core/formats/plan.ts'
import type { Point } from '../../../core/geometry/shapes.ts'
import { freeName } from './freeName.ts'
import { TEMPLATES } from './templates.ts'
import { parseWith } from '../../../core/schema/parse.ts'

const shapes = {
  line: [
    [0.1, 0.5],
    [0.9, 0.5]
  ],
  intrusion: [
    [0.2, 0.2],
    [0.8, 0.2],
    [0.5, 0.8]
  ]
} satisfies Record<string, Point[]>
const context = {
  placed: [],
  schedules: [],
  hasPosition: true,
  surroundings: 'outdoors' as const
}
const make = (id: string, more: object = {}) => {
  const t = TEMPLATES.find((x) => x.id === id)!
  return t.make(t.shape ? shapes[t.shape] : [], { ...context, ...more })
}

describe('templates', () => {
  test.each(TEMPLATES.map((t) => t.id))(
    '%s: valid detections with free names, the second time too',
    (id) => {
      const { detections } = make(id)
      for (const d of detections) expect(parseWith(DetectionSchema, d)).toEqual(d)
      const again = make(id, {
        placed: detections.map((detection, position) => ({ detection, position }))
      }).detections
      expect(new Set([...detections, ...again].map((d) => d.name)).size).toBe(2 * detections.length)
      expect(new Set([...detections, ...again].map((d) => d.id)).size).toBe(2 * detections.length)
    }
  )

  test('in a room: a shorter confirmation time and a smaller overlap; tamper stays as it is', () => {
    const gates = (id: string, surroundings: string) =>
      make(id, { surroundings }).detections.map((d) => [
        'confirmSeconds' in d && d.confirmSeconds,
        'sensitivity' in d && d.sensitivity
      ])
    expect(gates('no-go-night', 'outdoors')).toEqual([[0.5, 60]])
    expect(gates('no-go-night', 'roofed')).toEqual([[0.5, 60]])
    expect(gates('no-go-night', 'indoors')).toEqual([[0.3, 70]])
    expect(gates('fence-line', 'indoors')).toEqual([[0.2, 77]])
    const care = (surroundings: string) =>
      make('camera-care', { surroundings }).detections.map((d) => ({ ...d, id: '' }))
    expect(care('indoors')).toEqual(care('outdoors'))
  })

  test('at night: uses the schedule of that name, or a new one that follows the sun where the position is known', () => {
    const nights = parseWith(ScheduleSchema, { id: 'n', name: 'Nights', week: {} })
    expect(make('no-go-night', { schedules: [nights] })).toMatchObject({
      schedules: [],
      detections: [{ schedule: 'n' }]
    })
    const sun = make('no-go-night')
    expect(sun.schedules).toHaveLength(1)
    expect(sun.detections[0]!.schedule).toBe(sun.schedules[0]!.id)
    expect(sun.schedules[0]!.week.wed).toEqual([
      ['00:00', 'sunrise'],
      ['sunset', '24:00']
    ])
    expect(make('no-go-night', { hasPosition: false }).schedules[0]!.week.wed).toEqual([
      ['00:00', '06:30'],
      ['18:30', '24:00']
    ])
  })
})

test('a free name is the same or has the next number', () => {
  const placed = ['Gate', 'Gate 2', 'Yard'].map((name, position) => ({
    detection: parseWith(DetectionSchema, { id: `x${position}`, name, kind: 'signalLoss' }),
    position
  }))
  expect([
    freeName('Quay', placed),
    freeName('Gate', placed),
    freeName('Gate 2', placed),
    freeName('Yard', placed)
  ]).toEqual(['Quay', 'Gate 3', 'Gate 3', 'Yard 2'])
})

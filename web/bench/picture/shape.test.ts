import { describe, expect, test } from '@jest/globals'
import { DetectionSchema, parseWith } from '../../../core/formats/plan.ts'
import type { Point } from '../../../core/geometry/shapes.ts'
import { stayBins } from '../inspector/stayBins.ts'
import { newDrawn } from '../rail/newDetection.ts'
import { ZONE_KINDS, asZoneKind, crossingEdges, limitsOf, shapeFault, shapeOf, withVertexAt, withoutVertex, type DrawnDetection, type ZoneDetection } from './shape.ts'

const square: Point[] = [[0.2, 0.2], [0.8, 0.2], [0.8, 0.8], [0.2, 0.8]]
const zone = (more: object = {}): ZoneDetection => parseWith(DetectionSchema, { id: 'z', name: 'Z', kind: 'intrusion', zone: square, ...more }) as ZoneDetection
const line = (points: Point[]): DrawnDetection => parseWith(DetectionSchema, { id: 'l', name: 'L', kind: 'line', line: points }) as DrawnDetection

describe('vertices', () => {
  test('a new one goes into the nearest edge, also into the one that closes a zone', () => {
    expect(withVertexAt(shapeOf(line([[0, 0], [0.5, 0], [0.5, 1]])), [0.48, 0.7])!).toEqual([[0, 0], [0.5, 0], [0.48, 0.7], [0.5, 1]])
    expect(withVertexAt(shapeOf(zone()), [0.5, 0.21])!).toEqual([[0.2, 0.2], [0.5, 0.21], [0.8, 0.2], [0.8, 0.8], [0.2, 0.8]])
    expect(withVertexAt(shapeOf(zone()), [0.19, 0.5])!).toEqual([...square, [0.19, 0.5]])
  })

  test('no more than there may be, no fewer than there must', () => {
    const full = line(Array.from({ length: 10 }, (_, i): Point => [i / 10, (i % 2) / 10]))
    expect(withVertexAt(shapeOf(full), [0.5, 0.5])).toBeNull()
    expect(withoutVertex(shapeOf(line([[0, 0], [1, 1]])), 0)).toBeNull()
    expect(withoutVertex(shapeOf(zone()), 0)!).toEqual(square.slice(1))
    expect(withoutVertex(shapeOf(zone({ zone: square.slice(1) })), 0)).toBeNull()
  })

  test('one whose going would make the outline cross itself stays', () => {
    const bay: Point[] = [[0, 0], [1, 0], [1, 1], [0.5, 0.1], [0.2, 1], [0.3, 0.05]]
    expect(shapeFault('intrusion', bay)).toBeNull()
    expect(bay.every((_, i) => { const less = withoutVertex(shapeOf(zone({ zone: bay })), i); return less === null || shapeFault('intrusion', less) === null })).toBe(true)
  })
})

describe('what is wrong with a shape', () => {
  const bow: Point[] = [[0.2, 0.2], [0.8, 0.8], [0.8, 0.2], [0.2, 0.8]]
  test('a zone that crosses itself: said, and its two edges shown', () => {
    expect(shapeFault('entry', bow)).toContain('crosses itself')
    expect(crossingEdges(bow)).toEqual([[[0.2, 0.2], [0.8, 0.8]], [[0.8, 0.2], [0.2, 0.8]]])
    expect(crossingEdges(square)).toBeNull()
  })
  test('too few vertices, an edge without length, no area', () => {
    expect(shapeFault('line', [[0, 0]])).toContain('a line needs 2 to 10')
    expect(shapeFault('exit', [[0, 0], [1, 1]])).toContain('a zone needs at least 3')
    expect(shapeFault('line', [[0, 0], [0, 0]])).toContain('has no length')
    expect(shapeFault('intrusion', [[0, 0], [0.5, 0.5], [1, 1]])).not.toBeNull()
  })
})

describe('a zone of another kind', () => {
  test.each(ZONE_KINDS.flatMap((from) => ZONE_KINDS.map((to) => [from, to] as const)))('%s to %s: valid, with what both have', (from, to) => {
    const before = newDrawn(from, square, []) as ZoneDetection
    const set = { ...before, sensitivity: 70, confirmSeconds: 0.4, holdOffSeconds: 9, size: { min: { w: 0.01, h: 0.02 } }, schedule: 'nights' } as ZoneDetection
    const after = asZoneKind(set, to)
    expect(parseWith(DetectionSchema, after)).toEqual(after)
    expect(after).toMatchObject({ id: before.id, name: 'Zone 1', kind: to, zone: square, sensitivity: 70, confirmSeconds: 0.4, holdOffSeconds: 9, size: { min: { w: 0.01, h: 0.02 } }, schedule: 'nights', classes: ['person'] })
    expect(asZoneKind(after, from)).toMatchObject({ kind: from, zone: square })
  })

  test('the dwell goes along, as far as the kind allows', () => {
    expect(asZoneKind(zone({ dwellSeconds: 8, atLeast: 2 }), 'loitering')).toMatchObject({ dwellSeconds: 8, atLeast: 2, graceSeconds: 10 })
    expect(asZoneKind(zone({ dwellSeconds: 0 }), 'loitering')).toMatchObject({ dwellSeconds: 1 })
    expect(asZoneKind(zone({ dwellSeconds: 8 }), 'entry')).not.toHaveProperty('dwellSeconds')
  })
})

test('a shape that was just drawn is valid as it is, with a name that is free', () => {
  const first = newDrawn('line', [[0, 0], [1, 1]], [])
  expect(first).toMatchObject({ name: 'Line 1', kind: 'line', classes: ['person'] })
  expect(newDrawn('line', [[0, 0], [1, 1]], [{ detection: first, position: 0 }]).name).toBe('Line 2')
  expect(limitsOf('line')).toEqual({ least: 2, most: 10 })
})

describe('stays as bars', () => {
  const stay = (seconds: number, passing: boolean) => ({ target: 1, from: 0, seconds, passing })
  test('each stay is in the bar of its time, passers-by apart', () => {
    const { bars, width, end } = stayBins([stay(1.2, true), stay(1.9, true), stay(9.5, false)], 4)
    expect([width, end]).toEqual([0.5, 10])
    expect(bars.filter((b) => b.passing || b.staying)).toEqual([{ middle: 1.25, passing: 1, staying: 0 }, { middle: 1.75, passing: 1, staying: 0 }, { middle: 9.75, passing: 0, staying: 1 }])
  })
  test('long stays and a long dwell are within the chart, in bars of a width that a person would choose', () => {
    const { bars, width, end } = stayBins([stay(700, false)], 1000)
    expect(width).toBe(60)
    expect(end).toBeGreaterThan(1000)
    expect(bars.length).toBeLessThanOrEqual(21)
  })
})

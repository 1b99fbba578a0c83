import { describe, expect, test } from '@jest/globals'
import { DetectionSchema } from '../../../core/formats/plan.ts'
import { signedArea, type Point } from '../../../core/geometry/shapes.ts'
import fc from 'fast-check'
import { moved, snapped } from './geometry.ts'
import { stayBins } from '../../kinds/stayBins.ts'
import { newDrawn } from '../../kinds/newDetection.ts'
import {
  crossingEdges,
  limitsOf,
  mirrored,
  shapeFault,
  shapeOf,
  shapesAt,
  splitAt,
  withVertexAfter,
  withVertexAt,
  withoutVertex
} from './shape.ts'
import { parseWith } from '../../../core/schema/parse.ts'
import { ZONE_KINDS, asZoneKind } from '../../kinds/zones.ts'
import type { ShapeDetection, ZoneDetection } from '../../../core/kinds/schemas.ts'

const square: Point[] = [
  [0.2, 0.2],
  [0.8, 0.2],
  [0.8, 0.8],
  [0.2, 0.8]
]
const zone = (more: object = {}): ZoneDetection =>
  parseWith(DetectionSchema, {
    id: 'z',
    name: 'Z',
    kind: 'intrusion',
    zone: square,
    ...more
  }) as ZoneDetection
const line = (points: Point[]): ShapeDetection =>
  parseWith(DetectionSchema, { id: 'l', name: 'L', kind: 'line', line: points }) as ShapeDetection

describe('vertices', () => {
  test('adds to the nearest edge, including the closing one', () => {
    expect(
      withVertexAt(
        shapeOf(
          line([
            [0, 0],
            [0.5, 0],
            [0.5, 1]
          ])
        ),
        [0.48, 0.7]
      )!
    ).toEqual([
      [0, 0],
      [0.5, 0],
      [0.48, 0.7],
      [0.5, 1]
    ])
    expect(withVertexAt(shapeOf(zone()), [0.5, 0.21])!).toEqual([
      [0.2, 0.2],
      [0.5, 0.21],
      [0.8, 0.2],
      [0.8, 0.8],
      [0.2, 0.8]
    ])
    expect(withVertexAt(shapeOf(zone()), [0.19, 0.5])!).toEqual([...square, [0.19, 0.5]])
  })

  test('keeps to the most and fewest allowed', () => {
    const full = line(Array.from({ length: 10 }, (_, i): Point => [i / 10, (i % 2) / 10]))
    expect(withVertexAt(shapeOf(full), [0.5, 0.5])).toBeNull()
    expect(
      withoutVertex(
        shapeOf(
          line([
            [0, 0],
            [1, 1]
          ])
        ),
        0
      )
    ).toBeNull()
    expect(withoutVertex(shapeOf(zone()), 0)!).toEqual(square.slice(1))
    expect(withoutVertex(shapeOf(zone({ zone: square.slice(1) })), 0)).toBeNull()
  })

  test('keeps one whose removal would make the outline cross itself', () => {
    const bay: Point[] = [
      [0, 0],
      [1, 0],
      [1, 1],
      [0.5, 0.1],
      [0.2, 1],
      [0.3, 0.05]
    ]
    expect(shapeFault('intrusion', bay)).toBeNull()
    expect(
      bay.every((_, i) => {
        const less = withoutVertex(shapeOf(zone({ zone: bay })), i)
        return less === null || shapeFault('intrusion', less) === null
      })
    ).toBe(true)
  })
})

describe('what is wrong with a shape', () => {
  const bow: Point[] = [
    [0.2, 0.2],
    [0.8, 0.8],
    [0.8, 0.2],
    [0.2, 0.8]
  ]
  test('names the two edges of a self-crossing zone', () => {
    expect(shapeFault('entry', bow)).toSay('crosses itself')
    expect(crossingEdges(bow)).toEqual([
      [
        [0.2, 0.2],
        [0.8, 0.8]
      ],
      [
        [0.8, 0.2],
        [0.2, 0.8]
      ]
    ])
    expect(crossingEdges(square)).toBeNull()
  })
  test('finds too few vertices, an edge without length, no area', () => {
    expect(shapeFault('line', [[0, 0]])).toSay('a line needs 2 to 10')
    expect(
      shapeFault('exit', [
        [0, 0],
        [1, 1]
      ])
    ).toSay('a zone needs at least 3')
    expect(
      shapeFault('line', [
        [0, 0],
        [0, 0]
      ])
    ).toSay('has no length')
    expect(
      shapeFault('intrusion', [
        [0, 0],
        [0.5, 0.5],
        [1, 1]
      ])
    ).not.toBeNull()
  })
})

describe('a zone of another kind', () => {
  test.each(ZONE_KINDS.flatMap((from) => ZONE_KINDS.map((to) => [from, to] as const)))(
    '%s to %s: stays valid and keeps shared settings',
    (from, to) => {
      const before = newDrawn(from, square, []) as ZoneDetection
      const set = {
        ...before,
        sensitivity: 70,
        confirmSeconds: 0.4,
        holdOffSeconds: 9,
        size: { min: { w: 0.01, h: 0.02 } },
        schedule: 'nights'
      } as ZoneDetection
      const after = asZoneKind(set, to)
      expect(parseWith(DetectionSchema, after)).toEqual(after)
      expect(after).toMatchObject({
        id: before.id,
        name: 'Zone 1',
        kind: to,
        zone: square,
        sensitivity: 70,
        confirmSeconds: 0.4,
        holdOffSeconds: 9,
        size: { min: { w: 0.01, h: 0.02 } },
        schedule: 'nights',
        classes: ['person']
      })
      expect(asZoneKind(after, from)).toMatchObject({ kind: from, zone: square })
    }
  )

  test('keeps the dwell as far as the kind allows', () => {
    expect(asZoneKind(zone({ dwellSeconds: 8, atLeast: 2 }), 'loitering')).toMatchObject({
      dwellSeconds: 8,
      atLeast: 2,
      graceSeconds: 10
    })
    expect(asZoneKind(zone({ dwellSeconds: 0 }), 'loitering')).toMatchObject({ dwellSeconds: 1 })
    expect(asZoneKind(zone({ dwellSeconds: 8 }), 'entry')).not.toHaveProperty('dwellSeconds')
  })
})

test('a new shape is valid and has a free name', () => {
  const first = newDrawn(
    'line',
    [
      [0, 0],
      [1, 1]
    ],
    []
  )
  expect(first).toMatchObject({ name: 'Line 1', kind: 'line', classes: ['person'] })
  expect(
    newDrawn(
      'line',
      [
        [0, 0],
        [1, 1]
      ],
      [{ detection: first }]
    ).name
  ).toBe('Line 2')
  expect(limitsOf('line')).toEqual({ least: 2, most: 10 })
})

describe('stays as bars', () => {
  const stay = (seconds: number, passing: boolean) => ({ target: 1, from: 0, seconds, passing })
  test('puts each stay in the bar of its time, passers-by apart', () => {
    const { bars, width, end } = stayBins([stay(1.2, true), stay(1.9, true), stay(9.5, false)], 4)
    expect([width, end]).toEqual([0.5, 10])
    expect(bars.filter((b) => b.passing || b.staying)).toEqual([
      { middle: 1.25, passing: 1, staying: 0 },
      { middle: 1.75, passing: 1, staying: 0 },
      { middle: 9.75, passing: 0, staying: 1 }
    ])
  })
  test('fits long stays and a long dwell, in bars of a round width', () => {
    const { bars, width, end } = stayBins([stay(700, false)], 1000)
    expect(width).toBe(60)
    expect(end).toBeGreaterThan(1000)
    expect(bars.length).toBeLessThanOrEqual(21)
  })
})

describe('editing shapes', () => {
  test('splits a zone into two that cover it, as equal as a diagonal allows', () => {
    const polygon = fc
      .array(fc.double({ min: 0.15, max: 0.45, noNaN: true }), { minLength: 4, maxLength: 9 })
      .map((radii) =>
        radii.map((r, i): Point => [
          0.5 + r * Math.cos((2 * Math.PI * i) / radii.length),
          0.5 + r * Math.sin((2 * Math.PI * i) / radii.length)
        ])
      )
    fc.assert(
      fc.property(polygon, fc.nat(), (points, at) => {
        if (shapeFault('intrusion', points)) return
        const parts = splitAt({ kind: 'intrusion', name: 'Z', points }, at % points.length)
        if (!parts) return
        expect(parts.every((part) => shapeFault('intrusion', part) === null)).toBe(true)
        expect(Math.abs(signedArea(parts[0])) + Math.abs(signedArea(parts[1]))).toBeCloseTo(
          Math.abs(signedArea(points)),
          9
        )
      })
    )
    const [a, b] = splitAt({ kind: 'intrusion', name: 'Z', points: square }, 1)!
    expect([a, b].map((part) => Math.abs(signedArea(part)))).toEqual([
      expect.closeTo(0.18, 9),
      expect.closeTo(0.18, 9)
    ])
  })

  test('splits a line at a vertex, not at its ends', () => {
    const bent = shapeOf(
      line([
        [0, 0],
        [0.5, 0.2],
        [1, 0]
      ])
    )
    expect(splitAt(bent, 1)).toEqual([
      [
        [0, 0],
        [0.5, 0.2]
      ],
      [
        [0.5, 0.2],
        [1, 0]
      ]
    ])
    expect([splitAt(bent, 0), splitAt(bent, 2)]).toEqual([null, null])
  })

  test('reversing twice changes nothing; with both directions the side names swap', () => {
    const named = (direction: string) =>
      parseWith(DetectionSchema, {
        id: 'l',
        name: 'L',
        kind: 'line',
        line: [
          [0, 0],
          [1, 1]
        ],
        direction,
        sides: { left: 'Water', right: 'Land' }
      }) as Extract<ShapeDetection, { kind: 'line' }>
    expect(mirrored(named('leftToRight'))).toEqual(named('rightToLeft'))
    expect(mirrored(named('both'))).toMatchObject({
      direction: 'both',
      line: [
        [1, 1],
        [0, 0]
      ],
      sides: { left: 'Land', right: 'Water' }
    })
    for (const direction of ['leftToRight', 'rightToLeft', 'both'])
      expect(mirrored(mirrored(named(direction)))).toEqual(named(direction))
  })

  test('finds shapes under a point: inside a zone or near its outline on screen', () => {
    const shapes = [
      shapeOf(zone()),
      shapeOf(
        line([
          [0, 0.5],
          [1, 0.5]
        ])
      )
    ]
    expect(shapesAt(shapes, [0.5, 0.5], 0.01, 16 / 9)).toEqual([0, 1])
    expect(shapesAt(shapes, [0.5, 0.6], 0.01, 16 / 9)).toEqual([0])
    expect(shapesAt(shapes, [0.9, 0.515], 0.01, 16 / 9)).toEqual([1])
    expect(shapesAt(shapes, [0.9, 0.6], 0.01, 16 / 9)).toEqual([])
  })

  test('adds a vertex in the middle of an edge, also after the last of a zone', () => {
    expect(withVertexAfter(shapeOf(zone()), 3)).toEqual([...square, [0.2, 0.5]])
    expect(
      withVertexAfter(
        shapeOf(
          line([
            [0, 0],
            [1, 0]
          ])
        ),
        0
      )
    ).toEqual([
      [0, 0],
      [0.5, 0],
      [1, 0]
    ])
    expect(
      withVertexAfter(
        shapeOf(
          line([
            [0, 0],
            [1, 0]
          ])
        ),
        1
      )
    ).toBeNull()
  })

  test('snaps to the nearest of eight directions on screen, within the picture', () => {
    const aspect = 16 / 9
    fc.assert(
      fc.property(
        fc.tuple(...Array.from({ length: 4 }, () => fc.double({ min: 0, max: 1, noNaN: true }))),
        ([ax, ay, bx, by]) => {
          const [x, y] = snapped([ax!, ay!], [bx!, by!], aspect)
          expect(x >= 0 && x <= 1 && y >= 0 && y <= 1).toBe(true)
          const [dx, dy] = [(x - ax!) * aspect, y - ay!]
          if (Math.hypot(dx, dy) < 0.02) return
          const turns = Math.atan2(dy, dx) / (Math.PI / 4)
          expect(Math.abs(turns - Math.round(turns))).toBeLessThan(0.02)
          const wanted = Math.atan2(by! - ay!, (bx! - ax!) * aspect) / (Math.PI / 4)
          expect(Math.abs(((turns - wanted + 12) % 8) - 4)).toBeLessThan(0.53)
        }
      )
    )
    expect(
      moved(
        [
          [0.9, 0.9],
          [0.95, 0.9]
        ],
        0.2,
        0
      )
    ).toEqual([
      [0.95, 0.9],
      [1, 0.9]
    ])
  })
})

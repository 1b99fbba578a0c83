import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import clipping from 'polygon-clipping'
import { contains, segmentsMeet, selfCrossing, side, signedArea, type Point } from './shapes.ts'
import { shareInZone } from './share.ts'

/** What two outlines share; null: the library gives up, as it does now and then over edges that nearly coincide. */
function commonOf(a: Outline, b: Outline): Outline[] | null {
  try {
    return clipping.intersection(a, b)
  } catch (error) {
    if (/^Unable to complete output ring/.test((error as Error).message)) return null
    throw error
  }
}
type Outline = [number, number][][]

/**
 * A random simple polygon: vertices at random distances around a centre, in order of angle
 * (star-shaped, so often concave).
 */
const polygons = fc
  .tuple(
    fc.double({ min: 0.3, max: 0.7, noNaN: true }),
    fc.double({ min: 0.3, max: 0.7, noNaN: true }),
    fc.array(
      fc.tuple(
        fc.double({ min: 0.05, max: 0.3, noNaN: true }),
        fc.double({ min: 0.5, max: 1, noNaN: true })
      ),
      { minLength: 4, maxLength: 12 }
    )
  )
  .map(([cx, cy, spokes]) => {
    const total = spokes.reduce((sum, [, step]) => sum + step, 0)
    let angle = 0
    return spokes.map(([radius, step]): Point => {
      angle += (2 * Math.PI * step) / total
      return [cx + radius * Math.cos(angle), cy + radius * Math.sin(angle)]
    })
  })
const boxes = fc.record({
  x: fc.double({ min: 0, max: 0.9, noNaN: true }),
  y: fc.double({ min: 0, max: 0.9, noNaN: true }),
  w: fc.double({ min: 0.01, max: 0.6, noNaN: true }),
  h: fc.double({ min: 0.01, max: 0.6, noNaN: true })
})

const ringArea = (ring: [number, number][]) => Math.abs(signedArea(ring))

describe('box in polygon, against polygon-clipping (general geometry library)', () => {
  test('shares of random concave zones agree to 1e-9', () => {
    fc.assert(
      fc.property(polygons, boxes, (polygon, { x, y, w, h }) => {
        const rect: [number, number][] = [
          [x, y],
          [x + w, y],
          [x + w, y + h],
          [x, y + h]
        ]
        const parts = clipping.intersection(
          [rect],
          [polygon.map(([a, b]): [number, number] => [a, b])]
        )
        const area = parts.reduce(
          (sum, [outer, ...holes]) =>
            sum + ringArea(outer!) - holes.reduce((s, hole) => s + ringArea(hole), 0),
          0
        )
        expect(Math.abs(shareInZone(polygon, x, y, w, h) - area / (w * h))).toBeLessThan(1e-9)
      }),
      { numRuns: 2000 }
    )
  })

  test('worked by hand: halves, quarters, a box inside, a box around, a box beside', () => {
    const square: Point[] = [
      [0.2, 0.2],
      [0.6, 0.2],
      [0.6, 0.6],
      [0.2, 0.6]
    ]
    expect(shareInZone(square, 0.3, 0.3, 0.1, 0.1)).toBeCloseTo(1, 12)
    expect(shareInZone(square, 0.5, 0.3, 0.2, 0.1)).toBeCloseTo(0.5, 12)
    expect(shareInZone(square, 0.5, 0.5, 0.2, 0.2)).toBeCloseTo(0.25, 12)
    expect(shareInZone(square, 0, 0, 1, 1)).toBeCloseTo(0.16, 12)
    expect(shareInZone([...square].reverse(), 0, 0, 1, 1)).toBeCloseTo(0.16, 12)
    expect(shareInZone(square, 0.7, 0.7, 0.1, 0.1)).toBe(0)
    expect(shareInZone(square, 0.3, 0.3, 0, 0.1)).toBe(0)
  })
})

describe('side and contains', () => {
  test('a line drawn from bottom to top has the left of the picture on its left', () => {
    expect(side(0.5, 1, 0.5, 0, 0.2, 0.5)).toBeLessThan(0)
    expect(side(0.5, 1, 0.5, 0, 0.8, 0.5)).toBeGreaterThan(0)
    expect(Math.abs(side(0.5, 1, 0.5, 0, 0.5, 0.3))).toBe(0)
  })

  test('a point is in the polygon exactly when the general library says that a tiny box around it is', () => {
    fc.assert(
      fc.property(
        polygons,
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (polygon, x, y) => {
          const r = 1e-7
          const rect: [number, number][] = [
            [x - r, y - r],
            [x + r, y - r],
            [x + r, y + r],
            [x - r, y + r]
          ]
          const parts = clipping.intersection(
            [rect],
            [polygon.map(([a, b]): [number, number] => [a, b])]
          )
          const share = parts.reduce((sum, [outer]) => sum + ringArea(outer!), 0) / (4 * r * r)
          fc.pre(share < 0.01 || share > 0.99)
          expect(contains(polygon, x, y)).toBe(share > 0.5)
        }
      ),
      { numRuns: 1000 }
    )
  })

  test('segments meet as their intersection by the general library says', () => {
    const c = fc.integer({ min: 0, max: 8 }).map((n) => n / 8)
    const p = fc.tuple(c, c)
    fc.assert(
      fc.property(p, p, p, p, (a, b, d, e) => {
        fc.pre((a[0] !== b[0] || a[1] !== b[1]) && (d[0] !== e[0] || d[1] !== e[1]))
        // A hair-thin rectangle about each segment; they overlap when the segments meet.
        const thin = ([x1, y1]: Point, [x2, y2]: Point): [number, number][] => {
          const length = Math.hypot(x2 - x1, y2 - y1)
          const [ux, uy] = [((x2 - x1) / length) * 1e-6, ((y2 - y1) / length) * 1e-6]
          return [
            [x1 - ux - uy, y1 - uy + ux],
            [x2 + ux - uy, y2 + uy + ux],
            [x2 + ux + uy, y2 + uy - ux],
            [x1 - ux + uy, y1 - uy - ux]
          ]
        }
        const common = commonOf([thin(a, b)], [thin(d, e)])
        fc.pre(common !== null)
        expect(segmentsMeet(a, b, d, e)).toBe(common.length > 0)
      }),
      { numRuns: 1000 }
    )
  })

  test('a figure of eight crosses itself, a concave arrow does not, a spike folds back', () => {
    expect(
      selfCrossing([
        [0, 0],
        [1, 1],
        [1, 0],
        [0, 1]
      ])
    ).toEqual([0, 2])
    expect(
      selfCrossing([
        [0, 0],
        [1, 0],
        [1, 1],
        [0.5, 0.2],
        [0, 1]
      ])
    ).toBeNull()
    expect(
      selfCrossing([
        [0, 0],
        [1, 0],
        [0.5, 0],
        [0.5, 1]
      ])
    ).toEqual([0, 1])
    fc.assert(fc.property(polygons, (polygon) => expect(selfCrossing(polygon)).toBeNull()))
  })
})

import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { evaluate } from '../detections/index.ts'
import { DetectionSchema } from '../formats/plan.ts'
import { clip } from '../readiness/testing/facts.ts'
import {
  dwellAbovePassers,
  staysIn,
  timedStays,
  type DwellDetection,
  type ZoneStay
} from './stays.ts'
import { parseWith } from '../schema/parse.ts'

const middle = {
  zone: [
    [0.3, 0.3],
    [0.7, 0.3],
    [0.7, 0.8],
    [0.3, 0.8]
  ] as [number, number][],
  sensitivity: 50,
  classes: []
}
const of = (walks: Parameters<typeof clip>[0], more: object = {}): ZoneStay[] =>
  staysIn({ ...middle, ...more }, clip(walks).tracks)

describe('how long targets stay in a zone', () => {
  test('a straight walk across is passing by, and lasts width over speed', () => {
    const [stay] = of([{ from: [0.1, 0.6], to: [0.9, 0.6], seconds: 20 }]) as [ZoneStay]
    // 0.4 of the picture at 0.04 a second; half the body is in from edge to edge.
    expect(stay).toMatchObject({ target: 1, passing: true })
    expect(Math.abs(stay.seconds - 10)).toBeLessThan(0.15)
    expect(Math.abs(stay.from - 5)).toBeLessThan(0.15)
  })

  test('standing, coming to stay, and being there from the start are stays', () => {
    expect(of([{ from: [0.5, 0.6], to: [0.5, 0.6], seconds: 12 }])).toMatchObject([
      { passing: false, seconds: 12 }
    ])
    expect(of([{ from: [0.1, 0.6], to: [0.5, 0.6], seconds: 10 }])).toMatchObject([
      { passing: false }
    ])
  })

  test('more overlap shortens a stay; other classes and places do not count', () => {
    const across = [{ from: [0.1, 0.6], to: [0.9, 0.6], seconds: 20 }] as const
    expect(of([...across] as never, { sensitivity: 1 })[0]!.seconds).toBeLessThan(
      of([...across] as never, { sensitivity: 99 })[0]!.seconds
    )
    expect(of([...across] as never, { classes: ['vehicle'] })).toEqual([])
    expect(of([{ from: [0.1, 0.95], to: [0.9, 0.95], seconds: 20, h: 0.05 }])).toEqual([])
  })
})

describe('a dwell just above passers-by', () => {
  const stays = (...seconds: number[]): ZoneStay[] =>
    seconds.map((s, target) => ({ target, from: 0, seconds: s, passing: true }))
  test('exceeds nine in ten by half a second', () => {
    expect(dwellAbovePassers(stays(4, 5, 6, 5, 4, 5, 6, 5, 5, 5, 60))).toEqual({
      usual: 6,
      dwell: 7
    })
    expect(dwellAbovePassers(stays(4.6, 4.6, 4.6))).toEqual({ usual: 4.6, dwell: 6 })
  })
  test('needs enough passers-by, and ignores stayers', () => {
    expect(dwellAbovePassers(stays(4, 5))).toBeNull()
    expect(
      dwellAbovePassers([...stays(4, 5), { target: 9, from: 0, seconds: 30, passing: false }])
    ).toBeNull()
  })
})

describe('when targets are timed', () => {
  const detection = (more: object): DwellDetection =>
    parseWith(DetectionSchema, {
      id: 'd',
      name: 'D',
      kind: 'intrusion',
      zone: middle.zone,
      dwellSeconds: 4,
      ...more
    }) as DwellDetection

  test('runs from entering until the dwell is over; none without a dwell', () => {
    const { tracks } = clip([{ from: [0.1, 0.6], to: [0.9, 0.6], seconds: 20 }])
    const [stay, ...more] = timedStays(detection({}), tracks)
    expect(more).toEqual([])
    expect(Math.abs(stay!.from - 5)).toBeLessThan(0.15)
    expect(stay!.filled - stay!.from).toBeCloseTo(4, 9)
    expect(stay!.to).toBeGreaterThan(stay!.filled)
    expect(timedStays(detection({ dwellSeconds: 0 }), tracks)).toEqual([])
    expect(timedStays(detection({ classes: ['vehicle'] }), tracks)).toEqual([])
  })

  test('a complete stay is a trigger of the engine at that moment; an incomplete one is not', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 15 }),
        fc.integer({ min: 4, max: 40 }),
        fc.constantFrom(20, 50, 80),
        fc.constantFrom('intrusion', 'loitering'),
        (dwellSeconds, seconds, sensitivity, kind) => {
          const { tracks } = clip([
            { from: [0.1, 0.6], to: [0.9, 0.6], seconds },
            { from: [0.5, 0.1], to: [0.5, 0.95], seconds: seconds + 3 }
          ])
          const d = detection({ dwellSeconds, sensitivity, kind })
          const fired = evaluate(
            {
              plan: { schedules: [], timeZone: 'UTC' },
              camera: { ignore: [], detections: [d] },
              fps: tracks.fps,
              start: 0
            },
            tracks
          )
          const filled = timedStays(d, tracks).filter((s) => s.to >= s.filled - 1e-9)
          expect(filled.map((s) => s.target).sort()).toEqual(fired.map((t) => t.target).sort())
          for (const t of fired)
            expect(
              Math.abs(t.time - filled.find((s) => s.target === t.target)!.filled)
            ).toBeLessThan(1 / tracks.fps + 1e-6)
        }
      ),
      { numRuns: 40 }
    )
  })
})

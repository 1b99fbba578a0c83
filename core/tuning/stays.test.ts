import { describe, expect, test } from '@jest/globals'
import { clip } from '../readiness/testing/facts.ts'
import { dwellAbovePassers, staysIn, type ZoneStay } from './stays.ts'

const middle = { zone: [[0.3, 0.3], [0.7, 0.3], [0.7, 0.8], [0.3, 0.8]] as [number, number][], sensitivity: 50, classes: [] }
const of = (walks: Parameters<typeof clip>[0], more: object = {}): ZoneStay[] => staysIn({ ...middle, ...more } as typeof middle, clip(walks).tracks)

describe('how long targets stay in a zone', () => {
  test('who walks straight across passes by, for the width of the zone over their speed', () => {
    const [stay] = of([{ from: [0.1, 0.6], to: [0.9, 0.6], seconds: 20 }])
    // 0.4 of the picture at 0.04 a second; half the body is in from edge to edge.
    expect(stay).toMatchObject({ target: 1, passing: true })
    expect(Math.abs(stay.seconds - 10)).toBeLessThan(0.15)
    expect(Math.abs(stay.from - 5)).toBeLessThan(0.15)
  })

  test('who stands, who comes in to stay, and who is there from the first stays', () => {
    expect(of([{ from: [0.5, 0.6], to: [0.5, 0.6], seconds: 12 }])).toMatchObject([{ passing: false, seconds: 12 }])
    expect(of([{ from: [0.1, 0.6], to: [0.5, 0.6], seconds: 10 }])).toMatchObject([{ passing: false }])
  })

  test('more of the body that must be in makes it shorter; other classes and other places do not count', () => {
    const across = [{ from: [0.1, 0.6], to: [0.9, 0.6], seconds: 20 }] as const
    expect(of([...across] as never, { sensitivity: 1 })[0].seconds).toBeLessThan(of([...across] as never, { sensitivity: 99 })[0].seconds)
    expect(of([...across] as never, { classes: ['vehicle'] })).toEqual([])
    expect(of([{ from: [0.1, 0.95], to: [0.9, 0.95], seconds: 20, h: 0.05 }])).toEqual([])
  })
})

describe('a dwell just above what passers-by take', () => {
  const stays = (...seconds: number[]): ZoneStay[] => seconds.map((s, target) => ({ target, from: 0, seconds: s, passing: true }))
  test('nine in ten of them, and half a second more', () => {
    expect(dwellAbovePassers(stays(4, 5, 6, 5, 4, 5, 6, 5, 5, 5, 60))).toEqual({ usual: 6, dwell: 7 })
    expect(dwellAbovePassers(stays(4.6, 4.6, 4.6))).toEqual({ usual: 4.6, dwell: 6 })
  })
  test('too few say nothing, and stayers are not asked', () => {
    expect(dwellAbovePassers(stays(4, 5))).toBeNull()
    expect(dwellAbovePassers([...stays(4, 5), { target: 9, from: 0, seconds: 30, passing: false }])).toBeNull()
  })
})

import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { tracksFromRows, spansOf, frameTime, type TargetRow } from '../targets/tracks.ts'
import { PictureNeed, pictureNear, pictureOfVisit, picturesToKeep, visitAt } from './pictures.ts'
import { TEN_MINUTES } from './rows.ts'

const START = Date.parse('2026-11-24T10:00:00Z')
const box = (id: number, w = 0.1, h = 0.2) => ({ id, w, h })

describe('when a picture is needed', () => {
  /** A camera that has had its first picture. */
  const heard = (): PictureNeed => {
    const need = new PictureNeed(START)
    need.taken(START)
    return need
  }

  test('once for a visit, and not again while its target is no larger', () => {
    const need = heard()
    const wanted: number[] = []
    for (let ms = 2000; ms < 60_000; ms += 100) {
      need.take(START + ms, [box(1)])
      if (!need.isNeeded(START + ms)) continue
      wanted.push(ms)
      need.taken(START + ms)
    }
    expect(wanted).toEqual([2300])
  })

  test('again when the target has grown by half, some seconds later', () => {
    const need = heard()
    need.take(START + 2000, [box(1)])
    need.take(START + 2500, [box(1)])
    need.taken(START + 2500)
    need.take(START + 3000, [box(1, 0.2)])
    expect(need.isNeeded(START + 3400)).toBe(false)
    need.take(START + 3800, [box(1, 0.149)])
    need.take(START + 4600, [box(1, 0.149)])
    expect(need.isNeeded(START + 4600)).toBe(false)
    need.take(START + 4700, [box(1, 0.151)])
    expect(need.isNeeded(START + 4700)).toBe(true)
  })

  test('of what comes under the same number after a gap, as of another', () => {
    const need = heard()
    for (const ms of [2000, 2500]) need.take(START + ms, [box(1)])
    need.taken(START + 2500)
    for (const ms of [3600, 4000]) need.take(START + ms, [box(1)])
    expect(need.isNeeded(START + 4000)).toBe(true)
  })

  test('not of what flickers, nor of who has gone, nor twice within a second', () => {
    const need = heard()
    need.take(START + 2000, [box(1)])
    expect(need.isNeeded(START + 2100)).toBe(false)
    need.take(START + 2400, [box(1)])
    expect(need.isNeeded(START + 2400)).toBe(true)
    expect(need.isNeeded(START + 3000)).toBe(false)
    for (const ms of [5000, 5500]) need.take(START + ms, [box(2)])
    need.taken(START + 5500)
    for (const ms of [5600, 6000]) need.take(START + ms, [box(2), box(3)])
    expect(need.isNeeded(START + 6000)).toBe(false)
    need.take(START + 6500, [box(2), box(3)])
    expect(need.isNeeded(START + 6500)).toBe(true)
  })

  test('who came while it was being taken has none yet', () => {
    const need = heard()
    for (const ms of [3000, 3400]) need.take(START + ms, [box(1)])
    need.taken(START + 2900)
    need.take(START + 4000, [box(1)])
    expect(need.isNeeded(START + 4000)).toBe(true)
  })

  test('a minute after a camera begins to be heard, and for ten minutes without any', () => {
    const need = new PictureNeed(START)
    expect(need.isNeeded(START + 59_000)).toBe(false)
    expect(need.isNeeded(START + 60_000)).toBe(true)
    need.taken(START + 60_000)
    expect(need.isNeeded(START + 60_000 + TEN_MINUTES - 1)).toBe(false)
    expect(need.isNeeded(START + 60_000 + TEN_MINUTES)).toBe(true)
  })
})

/** Targets that come, grow, shrink, go and come again; and pictures at any moments. */
const seen = fc.record({
  visits: fc.array(
    fc.record({
      id: fc.integer({ min: 1, max: 3 }),
      first: fc.integer({ min: 0, max: 200 }),
      sizes: fc.array(fc.double({ min: 0.01, max: 0.3, noNaN: true }), {
        minLength: 1,
        maxLength: 60
      })
    }),
    { maxLength: 5 }
  ),
  pictures: fc.uniqueArray(fc.integer({ min: -2000, max: 40_000 }), { maxLength: 12 })
})
const tracksOfVisits = (visits: { id: number; first: number; sizes: number[] }[]) => {
  const rows = new Map<string, TargetRow>()
  for (const { id, first, sizes } of visits)
    sizes.forEach((w, k) => {
      const frame = first + k + 1
      rows.set(`${id} ${frame}`, { frame, id, x: 0, y: 0, w, h: 0.2, cls: 'person', confidence: 1 })
    })
  return tracksFromRows([...rows.values()], 10)
}

describe('pictures of visits', () => {
  test('of a visit it is the one in which its target is largest', () => {
    fc.assert(
      fc.property(seen, ({ visits, pictures }) => {
        const tracks = tracksOfVisits(visits)
        const times = pictures.map((ms) => START + ms).sort((a, b) => a - b)
        for (const visit of spansOf(tracks)) {
          const found = pictureOfVisit(tracks, START, visit, times)
          // By looking at each pair of a picture and a row.
          let largest = 0
          for (const at of times) {
            const away = (row: number): number =>
              Math.abs(frameTime(tracks.frame[row]!, 10) - (at - START) / 1000)
            const near = Math.min(...visit.rows.map(away))
            if (near > 0.5 + 1e-9) continue
            const row = visit.rows.find((r) => away(r) === near)!
            largest = Math.max(largest, tracks.w[row]! * tracks.h[row]!)
          }
          expect(found === null).toBe(largest === 0)
          if (found) expect(tracks.w[found.row]! * tracks.h[found.row]!).toBeCloseTo(largest, 12)
        }
      })
    )
  })

  test('what is kept has one of each visit that had any, one of each ten minutes, and no other', () => {
    fc.assert(
      fc.property(seen, fc.integer({ min: 0, max: 3 }), ({ visits, pictures }, later) => {
        const tracks = tracksOfVisits(visits)
        const times = [
          ...pictures.map((ms) => START + ms),
          ...[1, 2, 3].slice(0, later).map((n) => START + n * TEN_MINUTES)
        ].sort((a, b) => a - b)
        const keep = picturesToKeep(tracks, START, times)
        const ofVisits = spansOf(tracks).flatMap(
          (visit) => pictureOfVisit(tracks, START, visit, times)?.at ?? []
        )
        for (const at of ofVisits) expect(keep).toContain(at)
        const tenOf = (at: number): number => Math.floor(at / TEN_MINUTES)
        const kept = [...keep]
        expect(new Set(kept.map(tenOf))).toEqual(new Set(times.map(tenOf)))
        for (const at of kept)
          if (!ofVisits.includes(at))
            expect(kept.filter((other) => tenOf(other) === tenOf(at))).toEqual([at])
      })
    )
  })

  test('the visit of a moment is the one that it is in, or else the nearest', () => {
    const tracks = tracksOfVisits([
      { id: 1, first: 0, sizes: Array<number>(20).fill(0.1) },
      { id: 1, first: 100, sizes: Array<number>(20).fill(0.1) },
      { id: 2, first: 50, sizes: [0.1] }
    ])
    expect(visitAt(spansOf(tracks), 1, 1)?.from).toBe(0)
    expect(visitAt(spansOf(tracks), 1, 5)?.from).toBe(0)
    expect(visitAt(spansOf(tracks), 1, 8)?.from).toBe(10)
    expect(visitAt(spansOf(tracks), 1, 90)?.from).toBe(10)
    expect(visitAt(spansOf(tracks), 9, 1)).toBeNull()
  })

  test('the nearest in time is shown, none that is further away than ten minutes', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.integer({ min: 0, max: 5_000_000 }), { maxLength: 8 }),
        fc.integer({ min: 0, max: 5_000_000 }),
        (list, at) => {
          const times = list.sort((a, b) => a - b)
          const away = Math.min(...times.map((one) => Math.abs(one - at)))
          const found = pictureNear(times, at)
          if (away > TEN_MINUTES) expect(found).toBeNull()
          else expect(Math.abs(found! - at)).toBe(away)
        }
      )
    )
  })
})

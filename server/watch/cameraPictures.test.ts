import { setImmediate as turn } from 'node:timers/promises'
import { createCanvas } from '@napi-rs/canvas'
import { beforeEach, expect, test } from '@jest/globals'
import { DeviceError } from '../devices/link/deviceError.ts'
import { CameraPictures } from './cameraPictures.ts'

const START = Date.parse('2026-11-24T10:00:00Z')
const jpeg = createCanvas(640, 360).toBuffer('image/jpeg')

/** Devices that give no snapshots; the streams of these end without a picture. */
let without: Set<string>
let dark: Set<string>
let now: number
let asked: [what: 'snapshot' | 'stream', camera: string, at: number][]
let kept: [camera: string, at: number][]
/** How many were answered without a picture. */
let refused: number
/** How long a stream takes to its first picture, ms; the time goes on by hand. */
let opening: { until: number; done: () => void }[]
let pictures: CameraPictures

beforeEach(() => {
  without = new Set()
  dark = new Set()
  now = START
  asked = []
  kept = []
  refused = 0
  opening = []
  pictures = new CameraPictures({
    now: () => now,
    store: (camera, { at }) => {
      kept.push([camera, at])
      return Promise.resolve()
    },
    failed: (error) => {
      throw error
    },
    fromStream: async (camera) => {
      asked.push(['stream', camera, now])
      await new Promise<void>((done) => opening.push({ until: now + 1500, done }))
      return dark.has(camera) ? refuse() : jpeg
    }
  })
})

function refuse(): Promise<Buffer> {
  refused++
  return Promise.reject(new DeviceError('refused', 'no pictures'))
}

/** So many tenths of a second in which each of the cameras reports somebody. */
async function go(tenths: number, cameras: readonly string[]): Promise<void> {
  for (let k = 0; k < tenths; k++) {
    now += 100
    for (const { done } of opening.splice(0, opening.findLastIndex((o) => o.until <= now) + 1))
      done()
    for (const camera of cameras)
      pictures.heard(camera, now, [{ id: 1, w: 0.1, h: 0.2 }], () => {
        asked.push(['snapshot', camera, now])
        return without.has(camera) ? refuse() : Promise.resolve(jpeg)
      })
    pictures.tick()
    await turn()
    // Pictures are made small by other threads, within the same tenth.
    while (asked.length > opening.length + kept.length + refused)
      await new Promise((done) => setTimeout(done, 2))
  }
}
const of = (what: 'snapshot' | 'stream') => asked.filter(([w]) => w === what)

test('a device without snapshots is asked once, and then for its stream', async () => {
  without.add('yard')
  await go(40, ['yard'])
  expect(asked.map(([what]) => what)).toEqual(['snapshot', 'stream'])
  // It is of the moment in which it came, not of the middle between the question and that.
  const [[, , begun]] = of('stream') as [[string, string, number]]
  expect(kept).toEqual([['yard', begun + 1500]])
})

test('streams are opened one after the other; snapshots do not wait for them', async () => {
  const slow = ['a', 'b', 'c', 'd', 'e']
  for (const camera of slow) without.add(camera)
  await go(120, [...slow, 'fast', 'quick'])
  const begun = of('stream').map(([, , at]) => at)
  expect(begun.length).toBeGreaterThan(3)
  for (const [i, at] of begun.slice(1).entries())
    expect(at - begun[i]!).toBeGreaterThanOrEqual(2000)
  expect(new Set(of('stream').map(([, camera]) => camera)).size).toBe(5)
  // Before the second stream was opened, those with snapshots had theirs.
  for (const camera of ['fast', 'quick'])
    expect(kept.find(([of]) => of === camera)![1]).toBeLessThan(begun[1]!)
})

test('one that has neither is left alone for an hour', async () => {
  without.add('yard')
  dark.add('yard')
  await go(300, ['yard'])
  expect([of('snapshot').length, of('stream').length]).toEqual([1, 1])
  now += 3_600_000
  dark.clear()
  await go(40, ['yard'])
  expect(kept.map(([camera]) => camera)).toEqual(['yard'])
})

test('followed anew, perhaps on another device, it is asked for a snapshot again', async () => {
  without.add('yard')
  await go(40, ['yard'])
  pictures.end('yard')
  without.clear()
  asked.length = 0
  await go(20, ['yard'])
  expect(asked.map(([what]) => what)).toEqual(['snapshot'])
})

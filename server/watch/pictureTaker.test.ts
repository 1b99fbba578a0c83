import { setImmediate as turn } from 'node:timers/promises'
import { createCanvas, loadImage } from '@napi-rs/canvas'
import { beforeEach, describe, expect, test } from '@jest/globals'
import { DeviceError } from '../devices/link/deviceError.ts'
import { PictureTaker } from './pictureTaker.ts'
import { smallPicture } from './smallPicture.ts'

const START = Date.parse('2026-11-24T10:00:00Z')
const picture = (width: number, height: number): Buffer => {
  const canvas = createCanvas(width, height)
  const g = canvas.getContext('2d')
  g.fillStyle = '#c03020'
  g.fillRect(0, 0, width / 2, height)
  return canvas.toBuffer('image/jpeg')
}
const large = picture(1920, 1080)

let now: number
let kept: { camera: string; at: number }[]
let asked: string[]
let taker: PictureTaker
beforeEach(() => {
  now = START
  kept = []
  asked = []
  taker = new PictureTaker({
    now: () => now,
    store: (camera, { at }) => {
      kept.push({ camera, at })
      return Promise.resolve()
    },
    failed: (error) => {
      throw error
    }
  })
})

/** So many tenths of a second in which cameras report; each question is answered within its own. */
async function go(
  tenths: number,
  heard: Record<string, { id: number; w: number; h: number }[]>,
  answer: (camera: string) => Promise<Buffer> = () => Promise.resolve(large)
): Promise<void> {
  for (let k = 0; k < tenths; k++) {
    now += 100
    const before = asked.length
    for (const [camera, targets] of Object.entries(heard))
      taker.heard(camera, now, targets, () => {
        asked.push(camera)
        return answer(camera)
      })
    taker.tick()
    // Its picture is made small by other threads.
    for (let left = 200; asked.length > before && left && taker.isTaking; left--) {
      await turn()
      await new Promise((done) => setTimeout(done, 5))
    }
  }
}
const box = (id: number, w = 0.1) => ({ id, w, h: 0.2 })

describe('taking pictures', () => {
  test('one of a visit, at the moment between question and answer', async () => {
    await go(30, { yard: [box(1)] }, async () => {
      now += 200
      await turn()
      return large
    })
    expect(kept).toEqual([{ camera: 'yard', at: START + 500 }])
    await go(30, { yard: [box(1, 0.2)] })
    expect(kept).toHaveLength(2)
  })

  test('of many cameras at once, no more than four a second; each has its turn', async () => {
    const cameras = Array.from({ length: 12 }, (_, n) => `c${n}`)
    const heard = Object.fromEntries(cameras.map((camera) => [camera, [box(1)]]))
    await go(13, heard)
    expect(asked.length).toBeGreaterThanOrEqual(3)
    expect(asked.length).toBeLessThanOrEqual(4)
    await go(40, heard)
    expect([...asked].sort()).toEqual([...cameras].sort())
  })

  test('a device that does not answer is left alone for a minute, one that refuses for an hour', async () => {
    const answers: Record<string, DeviceError> = {
      away: new DeviceError('offline', 'away'),
      without: new DeviceError('refused', 'no pictures')
    }
    const heard = { away: [box(1)], without: [box(1)] }
    const refuse = (camera: string) => Promise.reject(answers[camera]!)
    await go(300, heard, refuse)
    expect([...asked].sort()).toEqual(['away', 'without'])
    await go(400, heard, refuse)
    expect([...asked].sort()).toEqual(['away', 'away', 'without'])
    now += 3_600_000
    await go(20, heard)
    expect(kept.map(({ camera }) => camera).sort()).toEqual(['away', 'without'])
  })

  test('what is no picture is not kept, and nothing of a camera that was left out meanwhile', async () => {
    await go(20, { yard: [box(1)] }, () => Promise.resolve(Buffer.from('no picture')))
    await go(20, { shed: [box(1)] }, () => {
      taker.end('shed')
      return Promise.resolve(large)
    })
    expect(asked).toContain('shed')
    expect(kept).toEqual([])
  })

  test('a full disk is said', async () => {
    const failed: string[] = []
    taker = new PictureTaker({
      now: () => now,
      store: () => Promise.reject(new Error('ENOSPC')),
      failed: ({ message }) => failed.push(message)
    })
    await go(20, { yard: [box(1)] })
    expect(failed).toEqual(['ENOSPC'])
  })
})

test('a picture is made small, and keeps its shape; a small one stays as large as it is', async () => {
  for (const [width, height, expected] of [
    [1920, 1080, [480, 270]],
    [1080, 1920, [480, 853]],
    [320, 240, [320, 240]],
    [4000, 3, [480, 1]]
  ] as const) {
    const small = await loadImage(await smallPicture(picture(width, height)))
    expect([small.width, small.height]).toEqual(expected)
  }
  // Its colours are those of the large one.
  const canvas = createCanvas(480, 270)
  const g = canvas.getContext('2d')
  g.drawImage(await loadImage(await smallPicture(large)), 0, 0)
  const [red, green] = g.getImageData(100, 100, 1, 1).data
  expect(red).toBeGreaterThan(170)
  expect(green).toBeLessThan(70)
  await expect(smallPicture(Buffer.from('none'))).rejects.toThrow()
})

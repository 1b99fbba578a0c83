import { mkdtempSync, readdirSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { createCanvas } from '@napi-rs/canvas'
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { output } from './ffmpeg.ts'
import { makeStill, piecesOf } from './still.ts'

let folder: string
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'wardoptic-still-'))
})
afterEach(() => rmSync(folder, { recursive: true, force: true }))

const plain = (colour: string, type: 'jpeg' | 'png' = 'jpeg', width = 320, height = 180) => {
  const canvas = createCanvas(width, height)
  const g = canvas.getContext('2d')
  g.fillStyle = colour
  g.fillRect(0, 0, width, height)
  return type === 'png' ? canvas.toBuffer('image/png') : canvas.toBuffer('image/jpeg')
}

/** The times of a film's pictures, as ffprobe reads them. */
async function timesOf(file: string): Promise<number[]> {
  const { out } = await output('ffprobe', [
    ...['-v', 'error', '-select_streams', 'v', '-show_entries', 'packet=pts_time'],
    ...['-of', 'csv=p=0', file]
  ])
  return out.toString().trim().split('\n').map(parseFloat)
}

/** The lightness of each tenth of a second, as ffmpeg decodes it. */
async function lightness(file: string): Promise<number[]> {
  const { out } = await output('ffmpeg', [
    ...['-v', 'error', '-i', file, '-vf', 'scale=1:1,format=gray,signalstats'],
    ...['-f', 'null', '-vf', 'scale=2:2,signalstats,metadata=print:file=-', '-']
  ])
  return [...out.toString().matchAll(/signalstats\.YAVG=([\d.]+)/g)].map(([, y]) => Number(y))
}

describe('a film of stills', () => {
  test('each stays until the next, whatever their kinds and sizes, and no picture is missing', async () => {
    const out = join(folder, 'view.mp4')
    await makeStill(
      [
        { from: 20.2, picture: plain('#fff', 'jpeg', 640, 360) },
        { from: 3, picture: plain('#000') },
        { from: 8.4, picture: plain('#888', 'jpeg') }
      ],
      { seconds: 31.5, fps: 10 },
      out
    )
    const times = await timesOf(out)
    expect(times).toHaveLength(315)
    times.forEach((time, k) => expect(time).toBeCloseTo(k / 10, 3))
    const light = await lightness(out)
    expect(light).toHaveLength(315)
    light.forEach((y, k) => {
      if (k < 80) expect(y).toBeLessThan(40)
      else if (k < 200) expect(Math.abs(y - 133)).toBeLessThan(20)
      else expect(y).toBeGreaterThan(200)
    })
    // Nothing else is left.
    expect(readdirSync(folder)).toEqual(['view.mp4'])
  })

  test.each(['jpeg', 'png'] as const)('one %s, and none', async (type) => {
    const out = join(folder, 'view.mp4')
    await makeStill([{ from: 0, picture: plain('#fff', type) }], { seconds: 0.5, fps: 10 }, out)
    expect(await timesOf(out)).toHaveLength(5)
    await makeStill([], { seconds: 65, fps: 10 }, out)
    expect(await timesOf(out)).toHaveLength(650)
  })

  test('what is no picture is said, and leaves nothing', async () => {
    const out = join(folder, 'view.mp4')
    await expect(
      makeStill([{ from: 0, picture: Buffer.from('no') }], { seconds: 5, fps: 10 }, out)
    ).rejects.toThrow()
    expect(readdirSync(folder)).toEqual([])
  })

  test('pieces fill the film without a gap, each with its own still', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.integer({ min: 1, max: 100 }), { maxLength: 12 }),
        fc.integer({ min: 1, max: 120 }),
        fc.integer({ min: 1, max: 10 }),
        (begins, seconds, each) => {
          const from = [0, ...begins.sort((a, b) => a - b)].filter((at) => at < seconds)
          let at = 0
          for (const piece of piecesOf(from, seconds, each)) {
            const still = from.findLastIndex((begin) => begin <= at)
            expect(piece.from).toBe(still * each)
            expect(piece.to).toBeLessThanOrEqual(piece.from + each)
            at += piece.to - piece.from
          }
          expect(at).toBe(seconds)
        }
      )
    )
  })
})

import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { createCanvas, loadImage } from '@napi-rs/canvas'
import { analysedSize, decodeFrames } from './frames.ts'
import { makeView, pictureAt } from './pictures.ts'
import { probe } from './probe.ts'

let folder: string
beforeAll(() => void (folder = mkdtempSync(join(tmpdir(), 'wardoptic-frames-'))))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

/** A clip whose picture N (from 0) has the brightness 20 + 4·(N mod 50): the picture says which one it is. */
function counted(name: string, rate: string, seconds: number): string {
  const file = join(folder, name)
  execFileSync('ffmpeg', [
    '-v',
    'error',
    '-y',
    '-f',
    'lavfi',
    '-i',
    `color=black:size=64x48:rate=${rate}:duration=${seconds},format=gray,geq=lum='20+4*mod(N,50)'`,
    '-c:v',
    'ffv1',
    '-pix_fmt',
    'gray',
    file
  ])
  return file
}
const numberOf = (brightness: number): number => Math.round((brightness - 20) / 4) + 0 // no negative zero

async function numbers(file: string): Promise<{ fps: number; shown: number[] }> {
  const footage = await probe(file)
  const shown: number[] = []
  for await (const { picture: frame } of decodeFrames(file, footage, analysedSize(footage)))
    shown.push(numberOf(frame[frame.length >> 1]!))
  return { fps: footage.fps, shown }
}

describe('the clock of a clip', () => {
  // Frame n (from 1) is at (n − 1) / fps and shows the last picture at or before that moment.
  test.each([
    ['10', 1, 10],
    ['30', 2, 15],
    ['25', 2, 12.5],
    ['60', 4, 15]
  ])(
    'at %s pictures/s every %i-th is a frame, starting with the first',
    async (rate, every, fps) => {
      const found = await numbers(counted(`counted-${rate}.mkv`, rate, 3))
      expect(found.fps).toBeCloseTo(fps, 6)
      expect(found.shown.slice(0, 20)).toEqual(
        Array.from({ length: 20 }, (_, n) => (n * every) % 50)
      )
    }
  )

  test('a long gap does not change the rate, which is the usual one and not the average', async () => {
    const whole = counted('whole-rate.mkv', '10', 12)
    const gap = join(folder, 'long-gap.mkv')
    execFileSync('ffmpeg', [
      '-v',
      'error',
      '-y',
      '-i',
      whole,
      '-vf',
      "select='not(between(n,30,109))'",
      '-fps_mode',
      'vfr',
      '-c:v',
      'ffv1',
      '-pix_fmt',
      'gray',
      gap
    ])
    const { fps, shown } = await numbers(gap)
    expect(fps).toBeCloseTo(10, 3)
    expect(shown).toHaveLength(120)
    expect(new Set(shown.slice(29, 110))).toEqual(new Set([29]))
  })

  test('shows the last picture while none arrive', async () => {
    const whole = counted('whole.mkv', '10', 4)
    const gap = join(folder, 'gap.mkv')
    execFileSync('ffmpeg', [
      '-v',
      'error',
      '-y',
      '-i',
      whole,
      '-vf',
      "select='not(between(n,10,19))'",
      '-vsync',
      'vfr',
      '-c:v',
      'ffv1',
      '-r',
      '10',
      '-enc_time_base',
      '1/10',
      gap
    ])
    const { shown } = await numbers(gap)
    expect(shown.length).toBeGreaterThanOrEqual(39)
    expect([shown[9], shown[15], shown[19], shown[20], shown[30]]).toEqual([9, 9, 9, 20, 30])
  })

  test('the playable copy keeps the clock of its pictures', async () => {
    const file = counted('view.mkv', '10', 4)
    const view = join(folder, 'view.mp4')
    await makeView(file, await probe(file), view)
    for (const seconds of [0, 0.1, 1.5, 2.3, 3.9]) {
      const picture = await loadImage(await pictureAt(view, seconds))
      const canvas = createCanvas(picture.width, picture.height)
      const g = canvas.getContext('2d')
      g.drawImage(picture, 0, 0)
      // H.264 keeps brightness to a level or two; a picture is four levels from the next.
      expect(numberOf(g.getImageData(32, 24, 1, 1).data[0]!)).toBe(Math.round(seconds * 10))
    }
  })
})

test('analyses pictures in even sizes, no wider than needed and never enlarged', () => {
  expect(analysedSize({ width: 768, height: 576 })).toEqual({ width: 320, height: 240 })
  expect(analysedSize({ width: 1920, height: 1080 })).toEqual({ width: 320, height: 180 })
  expect(analysedSize({ width: 160, height: 121 })).toEqual({ width: 160, height: 122 })
  const tall = analysedSize({ width: 1080, height: 1920 })
  expect(tall.height).toBeGreaterThan(400)
  expect(tall.width % 2).toBe(0)
})

import { mkdtempSync, readdirSync, rmSync } from 'node:fs'
import { writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { createCanvas } from '@napi-rs/canvas'
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { output } from './ffmpeg.ts'
import { makeFilm, piecesOf, shownFrames } from './still.ts'

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
    await makeFilm(
      [
        { from: 20.2, picture: plain('#fff', 'jpeg', 640, 360) },
        { from: 3, picture: plain('#000') },
        { from: 8.4, picture: plain('#888', 'jpeg') }
      ],
      [],
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
    await makeFilm([{ from: 0, picture: plain('#fff', type) }], [], { seconds: 0.5, fps: 10 }, out)
    expect(await timesOf(out)).toHaveLength(5)
    await makeFilm([], [], { seconds: 65, fps: 10 }, out)
    expect(await timesOf(out)).toHaveLength(650)
  })

  /** A film of one grey, with a rate and a size of its own. */
  async function film(seconds: number, grey: string, rate: number, size: string): Promise<string> {
    const path = join(folder, `film${grey}.mp4`)
    await output('ffmpeg', [
      ...['-v', 'error', '-f', 'lavfi', '-i', `color=c=0x${grey}:s=${size}:r=${rate}:d=${seconds}`],
      ...['-pix_fmt', 'yuv420p', path]
    ])
    return path
  }

  test('what was recorded goes before the stills, at its own time and as large as it was', async () => {
    const out = join(folder, 'view.mp4')
    const [dark, grey] = [
      await film(5, '000000', 25, '640x360'),
      await film(3, '888888', 12.5, '320x240')
    ]
    await writeFile(join(folder, 'broken.mp4'), 'no film')
    await makeFilm(
      [
        { from: 0, picture: plain('#fff') },
        { from: 9, picture: plain('#fff') }
      ],
      [
        { from: 11.3, seconds: 3, path: grey },
        // It had begun before the clip did, and another one while it lasted.
        { from: -1.5, seconds: 5, path: dark },
        { from: 2, seconds: 3, path: grey },
        { from: 6, seconds: 2, path: join(folder, 'broken.mp4') }
      ],
      { seconds: 13, fps: 10 },
      out
    )
    const times = await timesOf(out)
    expect(times).toHaveLength(130)
    times.forEach((time, k) => expect(time).toBeCloseTo(k / 10, 3))
    const light = await lightness(out)
    const at = (from: number, to: number): number[] => light.slice(from, to)
    for (const y of at(0, 35)) expect(y).toBeLessThan(40)
    for (const y of [...at(35, 50), ...at(113, 130)]) expect(Math.abs(y - 133)).toBeLessThan(20)
    for (const y of at(50, 113)) expect(y).toBeGreaterThan(200)
    const { out: size } = await output('ffprobe', [
      ...['-v', 'error', '-show_entries', 'stream=width,height', '-of', 'csv=p=0', out]
    ])
    expect(size.toString().trim()).toBe('320,240')
    expect(readdirSync(folder).sort()).toEqual(
      ['broken.mp4', 'film000000.mp4', 'film888888.mp4', 'view.mp4'].sort()
    )
  })

  test('a film alone, and one that is shorter than it says', async () => {
    const out = join(folder, 'view.mp4')
    const path = await film(1, '000000', 25, '640x360')
    await makeFilm([], [{ from: 1, seconds: 2, path }], { seconds: 4, fps: 10 }, out)
    const light = await lightness(out)
    expect(light).toHaveLength(40)
    for (const y of light.slice(10, 30)) expect(y).toBeLessThan(40)
    for (const y of [...light.slice(0, 10), ...light.slice(30)])
      expect(Math.abs(y - 71)).toBeLessThan(15)
  })

  test('a film that cannot be read, and nothing else', async () => {
    const out = join(folder, 'view.mp4')
    const path = join(folder, 'broken.mp4')
    await writeFile(path, 'no film')
    await makeFilm([], [{ from: 0, seconds: 2, path }], { seconds: 2, fps: 10 }, out)
    expect(await timesOf(out)).toHaveLength(20)
  })

  test('films are shown one after the other, the first that began until its end', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            from: fc.double({ min: -20, max: 70, noNaN: true }),
            seconds: fc.double({ min: 0, max: 20, noNaN: true }),
            path: fc.string()
          }),
          { maxLength: 8 }
        ),
        (films) => {
          const shown = shownFrames(films, { seconds: 60, fps: 10 })
          for (let frame = 0; frame < 600; frame++) {
            const seen = shown.filter(({ from, to }) => frame >= from && frame < to)
            const there = films.filter(
              (f) =>
                frame >= Math.round(f.from * 10) && frame < Math.round((f.from + f.seconds) * 10)
            )
            expect(seen.length).toBe(there.length ? 1 : 0)
            if (seen[0]) expect(there).toContain(seen[0].film)
          }
        }
      )
    )
  })

  test('what is no picture is said, and leaves nothing', async () => {
    const out = join(folder, 'view.mp4')
    await expect(
      makeFilm([{ from: 0, picture: Buffer.from('no') }], [], { seconds: 5, fps: 10 }, out)
    ).rejects.toThrow()
    expect(readdirSync(folder)).toEqual([])
  })

  test('pieces fill the film without a gap, each with its own still', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.integer({ min: 1, max: 100 }), { maxLength: 12 }),
        fc.integer({ min: 1, max: 120 }),
        fc.integer({ min: 1, max: 10 }),
        fc.nat(),
        (begins, seconds, each, somewhere) => {
          const cut = somewhere % seconds
          const from = [0, ...begins.sort((a, b) => a - b)].filter((at) => at < seconds)
          let at = 0
          for (const piece of [
            ...piecesOf(from, each, { from: 0, to: cut }),
            ...piecesOf(from, each, { from: cut, to: seconds })
          ]) {
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

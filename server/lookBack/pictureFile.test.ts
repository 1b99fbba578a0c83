import { execFileSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals'
import { closeHour, removeOld } from './closing.ts'
import { HourWriter } from './hourWriter.ts'
import { HOUR_MS, hourPath, picturesPath, readStrip } from './hours.ts'
import { PictureWriter, readPicture, readPictures } from './pictureFile.ts'

const START = Date.parse('2026-11-24T10:00:00Z')
let folder: string
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'wardoptic-pictures-'))
})
afterEach(() => rmSync(folder, { recursive: true, force: true }))

/** Bytes that say which picture they are; of what they are the archive knows nothing. */
const jpegOf = (at: number, bytes = 700): Buffer => Buffer.alloc(bytes, String(at))
const times = async (from = START, to = START + HOUR_MS) =>
  (await readPictures(folder, 'yard', from, to)).map(({ at }) => at)

describe('the pictures of an hour', () => {
  test('are a tar archive that other programs read', async () => {
    const writer = new PictureWriter(folder)
    const at = [START + 1, START + 61_234, START + HOUR_MS - 1]
    // Of the sizes at which a block ends, and one that is empty.
    const sizes = [511, 512, 513]
    await Promise.all(at.map((t, i) => writer.add('yard', { at: t, jpeg: jpegOf(t, sizes[i]) })))
    const path = picturesPath(folder, 'yard', START)
    // GNU tar.
    const names = execFileSync('tar', ['-tf', path], { encoding: 'utf8' }).trim().split('\n')
    expect(names).toEqual([
      '2026-11-24T10-00-00.001Z.jpg',
      '2026-11-24T10-01-01.234Z.jpg',
      '2026-11-24T10-59-59.999Z.jpg'
    ])
    names.forEach((name, i) =>
      expect(execFileSync('tar', ['-xOf', path, name])).toEqual(jpegOf(at[i]!, sizes[i]))
    )
    expect(await times()).toEqual(at)
    expect(await times(START + 1, START + 61_234)).toEqual([START + 1])
    for (const [i, t] of at.entries())
      expect(await readPicture(folder, 'yard', t)).toEqual(jpegOf(t, sizes[i]))
    expect(await readPicture(folder, 'yard', START + 2)).toBeNull()
    expect(await readPicture(folder, 'none-such', START + 1)).toBeNull()
  })

  test('one that another program has made is read', async () => {
    const name = '2026-11-24T10-20-00.000Z.jpg'
    writeFileSync(join(folder, name), jpegOf(7))
    mkdirSync(join(folder, 'yard'))
    const path = picturesPath(folder, 'yard', START)
    execFileSync('tar', ['-cf', path, '-C', folder, '--format=ustar', name])
    expect(await times()).toEqual([START + 1_200_000])
    expect(await readPicture(folder, 'yard', START + 1_200_000)).toEqual(jpegOf(7))
  })

  test('torn at any byte, what was whole is there, and what comes later is found after it', async () => {
    const writer = new PictureWriter(folder)
    for (let n = 0; n < 3; n++) await writer.add('yard', { at: START + n, jpeg: jpegOf(n) })
    const path = picturesPath(folder, 'yard', START)
    const bytes = readFileSync(path)
    const each = bytes.length / 3
    for (let cut = 0; cut < bytes.length; cut += 37) {
      writeFileSync(path, bytes.subarray(0, cut))
      const whole = Array.from({ length: Math.floor(cut / each) }, (_, n) => START + n)
      // One that lacks only the filling of its last block may be read as well.
      expect((await times()).slice(0, whole.length)).toEqual(whole)
      await new PictureWriter(folder).add('yard', { at: START + 9, jpeg: jpegOf(9) })
      const after = await times()
      expect(after.slice(0, whole.length)).toEqual(whole)
      expect(after.at(-1)).toBe(START + 9)
      expect(await readPicture(folder, 'yard', START + 9)).toEqual(jpegOf(9))
    }
  })

  test('when the hour is closed each visit keeps its largest, and the strip stays what it was', async () => {
    const hours = new HourWriter(folder, {
      closed: () => {},
      failed: (error) => {
        throw error
      }
    })
    hours.begin('yard', START)
    // Walks up to the camera for 10 s.
    for (let k = 0; k <= 100; k++)
      hours.take('yard', START + 100 * k, [
        { id: 1, class: 'person', x: 0.4, y: 0.3, w: 0.02 + k / 1000, h: 0.1 + k / 200 }
      ])
    hours.closeAll(START + 20_000)
    const writer = new PictureWriter(folder)
    const at = [1000, 4000, 9000, 15_000, 700_000, 710_000].map((ms) => START + ms)
    for (const t of at) await writer.add('yard', { at: t, jpeg: jpegOf(t) })
    const strip = await readStrip(folder, 'yard', START, START + HOUR_MS)
    await closeHour(folder, 'yard', START)
    expect(await times()).toEqual([START + 9000, START + 700_000])
    expect(await readPicture(folder, 'yard', START + 9000)).toEqual(jpegOf(START + 9000))
    expect(await readStrip(folder, 'yard', START, START + HOUR_MS)).toEqual(strip)
    // One that came late is added all the same.
    await writer.add('yard', { at: START + 3_599_000, jpeg: jpegOf(1) })
    expect(await times()).toHaveLength(3)
  })

  test('they go with their days, and take no more than half of the room', async () => {
    const make = (path: string, bytes: number): void => {
      mkdirSync(dirname(path), { recursive: true })
      writeFileSync(path, new Uint8Array(bytes))
    }
    for (let n = 0; n < 10; n++) {
      make(hourPath(folder, 'yard', START + n * HOUR_MS), 10)
      make(picturesPath(folder, 'yard', START + n * HOUR_MS), 100)
    }
    const now = START + 20 * HOUR_MS
    const days = new Map([['yard', 14]])
    await removeOld(folder, { days, shares: [{ cameras: ['yard'], bytes: 1000 }] }, now)
    const there = (pathOf: typeof hourPath): boolean[] =>
      Array.from(
        { length: 10 },
        (_, n) =>
          statSync(pathOf(folder, 'yard', START + n * HOUR_MS), { throwIfNoEntry: false }) !==
          undefined
      )
    expect(there(hourPath)).toEqual(Array(10).fill(true))
    expect(there(picturesPath)).toEqual([...Array(5).fill(false), ...Array(5).fill(true)])
    await removeOld(folder, { days: new Map([['yard', 0.5]]), shares: [] }, now)
    expect(there(picturesPath).filter(Boolean)).toHaveLength(3)
  })
})

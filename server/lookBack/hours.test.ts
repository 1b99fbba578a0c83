import {
  appendFileSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  readdirSync,
  rmSync,
  statSync,
  writeFileSync
} from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { evaluate } from '../../core/detections/index.ts'
import { DetectionSchema } from '../../core/formats/plan.ts'
import { PieceByPiece } from '../../core/lookBack/counting.ts'
import { RECORD_BYTES, readLog, wholeBytes } from '../../core/lookBack/hourLog.ts'
import { rowsWithin, tracksOf } from '../../core/lookBack/rows.ts'
import { parseWith } from '../../core/schema/parse.ts'
import { closeHour, openHours, removeOld } from './closing.ts'
import { HourWriter } from './hourWriter.ts'
import {
  HOUR_MS,
  hourPath,
  hoursBetween,
  logPath,
  readHourOf,
  readRange,
  readStrip
} from './hours.ts'

const START = Date.parse('2026-11-24T10:00:00Z')
let folder: string
const failed: Error[] = []
const closed: [string, number][] = []
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'wardoptic-hours-'))
  failed.length = 0
  closed.length = 0
})
afterEach(() => rmSync(folder, { recursive: true, force: true }))

const writerOf = (home = folder) =>
  new HourWriter(home, {
    closed: (camera, hour) => closed.push([camera, hour]),
    failed: (error) => failed.push(error)
  })
const target = (id: number, x = 0.4) => ({ id, class: 'person', x, y: 0.5, w: 0.05, h: 0.2 })

describe('what a camera reports, hour by hour', () => {
  test('is read from the running log, and the same when the hour is closed', async () => {
    const writer = writerOf()
    writer.begin('yard', START + 1000)
    for (let k = 0; k < 100; k++)
      writer.take('yard', START + 2000 + 100 * k, [target(1, k / 200), target(2)])
    writer.flush(START + 12_000)
    const before = await readRange(folder, 'yard', START, START + HOUR_MS)
    expect(before.rows.length).toBe(200)
    expect(before.heard).toEqual([[START + 1000, START + 11_900]])
    const strip = await readStrip(folder, 'yard', START, START + HOUR_MS)
    await closeHour(folder, 'yard', START)
    expect(await readRange(folder, 'yard', START, START + HOUR_MS)).toEqual(before)
    expect(await readStrip(folder, 'yard', START, START + HOUR_MS)).toEqual(strip)
    expect(strip.tens.get(START)).toEqual([0, 2, 0, 0, 0])
    expect(readdirSync(join(folder, 'yard'))).toEqual(['2026-11-24T10Z.parquet'])
    expect(failed).toEqual([])
  })

  test('goes on over the end of an hour without a gap, and says that the hour is over', async () => {
    const writer = writerOf()
    writer.begin('yard', START + HOUR_MS - 2000)
    for (let k = 0; k < 40; k++) writer.take('yard', START + HOUR_MS - 2000 + 100 * k, [target(1)])
    writer.flush(START + HOUR_MS + 2000)
    expect(closed).toEqual([['yard', START]])
    await closeHour(folder, 'yard', START)
    const { rows, heard } = await readRange(folder, 'yard', START, START + 2 * HOUR_MS)
    expect(rows.length).toBe(40)
    expect(heard).toEqual([[START + HOUR_MS - 2000, START + HOUR_MS + 1900]])
  })

  test('a device that was away leaves a gap, and silence leaves none', async () => {
    const writer = writerOf()
    writer.begin('yard', START)
    for (let s = 1; s <= 60; s++) writer.flush(START + 1000 * s)
    writer.end('yard', START + 60_000)
    writer.begin('yard', START + 300_000)
    writer.flush(START + 300_000)
    for (let s = 301; s <= 330; s++) writer.flush(START + 1000 * s)
    expect((await readRange(folder, 'yard', START, START + HOUR_MS)).heard).toEqual([
      [START, START + 60_000],
      [START + 300_000, START + 330_000]
    ])
  })

  test('a crash loses what was not flushed; the torn end is cut off, and writing goes on after it', async () => {
    const writer = writerOf()
    writer.begin('yard', START)
    for (let k = 0; k < 50; k++) writer.take('yard', START + 100 * k, [target(1)])
    writer.flush(START + 5000)
    // The machine stopped while the next record was being written.
    appendFileSync(logPath(folder, 'yard', START), new Uint8Array(20).fill(0xa7))
    const next = writerOf()
    next.begin('yard', START + 60_000)
    next.take('yard', START + 60_100, [target(9)])
    next.flush(START + 61_000)
    const { rows, heard } = await readRange(folder, 'yard', START, START + HOUR_MS)
    expect(rows.length).toBe(51)
    expect(rows.target[50]).toBe(9)
    expect(heard).toEqual([
      [START, START + 4900],
      [START + 60_000, START + 60_100]
    ])
    expect(readFileSync(logPath(folder, 'yard', START)).length % RECORD_BYTES).toBe(0)
  })

  test('an hour of a camera that went away in the middle of it is found later, and closed once', async () => {
    const writer = writerOf()
    writer.begin('yard', START)
    writer.take('yard', START + 100, [target(1)])
    writer.end('yard', START + 5000)
    expect(await openHours(folder, START + 1000)).toEqual([])
    expect(await openHours(folder, START + HOUR_MS)).toEqual([{ camera: 'yard', hour: START }])
    await closeHour(folder, 'yard', START)
    const path = hourPath(folder, 'yard', START)
    const { mtimeMs } = statSync(path)
    await closeHour(folder, 'yard', START)
    expect(statSync(path).mtimeMs).toBe(mtimeMs)
  })

  test('torn at any byte, or with any byte wrong, a log gives what was whole before', () => {
    const writer = writerOf()
    writer.begin('yard', START)
    for (let k = 0; k < 30; k++) writer.take('yard', START + 100 * k, [target(k)])
    writer.flush(START + 5000)
    const bytes = readFileSync(logPath(folder, 'yard', START))
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: bytes.length }),
        fc.option(fc.tuple(fc.nat(bytes.length - 1), fc.integer({ min: 1, max: 255 }))),
        (length, wrong) => {
          const torn = new Uint8Array(bytes.subarray(0, length))
          if (wrong && wrong[0] < length) torn[wrong[0]]! ^= wrong[1]
          const whole = wholeBytes(torn)
          const good = wrong && wrong[0] < length ? Math.floor(wrong[0] / RECORD_BYTES) : Infinity
          expect(whole).toBe(RECORD_BYTES * Math.min(good, Math.floor(length / RECORD_BYTES)))
          const { rows } = readLog(torn)
          expect(rows.length).toBe(Math.max(0, whole / RECORD_BYTES - 1))
        }
      )
    )
  })

  test('a crash between the file and the log’s end counts nothing twice, and is put right at the next start', async () => {
    const writer = writerOf()
    writer.begin('yard', START)
    for (let k = 0; k < 50; k++) writer.take('yard', START + 100 * k, [target(1)])
    writer.closeAll(START + 5000)
    const log = readFileSync(logPath(folder, 'yard', START))
    const before = await readHourOf(folder, 'yard', START)
    await closeHour(folder, 'yard', START)
    writeFileSync(logPath(folder, 'yard', START), log)
    expect(await readHourOf(folder, 'yard', START)).toEqual(before)
    const open = await openHours(folder, START + HOUR_MS)
    expect(open).toEqual([{ camera: 'yard', hour: START }])
    await closeHour(folder, 'yard', START)
    expect(await readHourOf(folder, 'yard', START)).toEqual(before)
    expect(await openHours(folder, START + HOUR_MS)).toEqual([])
  })

  test('boxes without a side, and targets without a number, are left out', async () => {
    const writer = writerOf()
    writer.begin('yard', START)
    writer.take('yard', START + 100, [
      { ...target(1), w: 0 },
      { ...target(2), h: -0.1 },
      { ...target(3), x: NaN },
      target(NaN),
      target(2 ** 31),
      target(4)
    ])
    writer.closeAll(START + 1000)
    const { rows } = await readRange(folder, 'yard', START, START + HOUR_MS)
    expect([...rows.target]).toEqual([4])
  })

  test('a disk that takes nothing is said, and what comes later is written again', async () => {
    // In the place of the camera's folder stands a file.
    writeFileSync(join(folder, 'yard'), '')
    const writer = writerOf()
    writer.begin('yard', START)
    writer.take('yard', START + 100, [target(1)])
    writer.flush(START + 1000)
    expect(failed).toHaveLength(1)
    rmSync(join(folder, 'yard'))
    writer.take('yard', START + 2000, [target(2)])
    writer.flush(START + 3000)
    const { rows } = await readRange(folder, 'yard', START, START + HOUR_MS)
    expect([...rows.target]).toEqual([2])
  })
})

describe('how long it is kept', () => {
  const make = (camera: string, hour: number, bytes: number): void => {
    const path = hourPath(folder, camera, hour)
    mkdirSync(dirname(path), { recursive: true })
    writeFileSync(path, new Uint8Array(bytes))
  }
  const now = START + 20 * 86_400_000

  test('what is too old goes, the oldest of what is too much, and all of cameras that are not named', async () => {
    for (let day = 0; day <= 20; day++) make('yard', START + day * 86_400_000, 100)
    make('gone', START, 100)
    const days = new Map([['yard', 14]])
    const removed = await removeOld(folder, { days, shares: [] }, now)
    expect(removed).toBe(7)
    expect(readdirSync(join(folder, 'yard'))).toHaveLength(15)
    const shares = [{ cameras: ['yard'], bytes: 520 }]
    await removeOld(folder, { days, shares }, now)
    const left = readdirSync(join(folder, 'yard'))
    expect(left).toHaveLength(5)
    expect(left.at(-1)).toBe('2026-12-14T10Z.parquet')
    expect(left[0]).toBe('2026-12-10T10Z.parquet')
  })
})

test('days evaluated in pieces are the days evaluated whole', async () => {
  // Somebody stands in the zone over the full hour; others cross before and after it.
  const writer = writerOf()
  const from = START + HOUR_MS - 60_000
  writer.begin('yard', from)
  for (let k = 0; k < 1200; k++) {
    const at = from + 100 * k
    writer.take('yard', at, [
      ...(k > 300 && k < 900 ? [target(7, 0.45)] : []),
      target(100 + Math.floor(k / 80), (k % 80) / 80)
    ])
  }
  writer.closeAll(from + 120_000)
  await closeHour(folder, 'yard', START)
  const to = START + 2 * HOUR_MS
  const zone = [
    [0.3, 0.3],
    [0.7, 0.3],
    [0.7, 0.9],
    [0.3, 0.9]
  ]
  const plan = { schedules: [], timeZone: 'Europe/London' }
  const { rows } = await readRange(folder, 'yard', from, to)
  const whole = tracksOf(rows, from, 10)
  for (const more of [
    { kind: 'loitering', dwellSeconds: 40 },
    { kind: 'intrusion', dwellSeconds: 1, holdOffSeconds: 20 }
  ]) {
    const d = parseWith(DetectionSchema, { id: 'd', name: 'D', zone, ...more })
    const expected = evaluate(
      { plan, camera: { ignore: [], detections: [d] }, fps: 10, start: from },
      whole
    )
    expect(expected.length).toBeGreaterThan(0)
    const pieces = new PieceByPiece({ plan, camera: { ignore: [] } }, d, from, 10)
    const found = []
    for (const hour of await hoursBetween(folder, 'yard', from, to)) {
      const part = await readHourOf(folder, 'yard', hour)
      found.push(...pieces.push(tracksOf(rowsWithin(part.rows, from, to), from, 10)))
    }
    expect(found.map(({ trigger }) => trigger)).toEqual(expected)
    expect(new Set(found.map(({ cls }) => cls))).toEqual(new Set(['person']))
  }
})

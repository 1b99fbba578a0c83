import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { DuckDBInstance, type DuckDBConnection } from '@duckdb/node-api'
import { emptyColumns, type ReportedColumns } from '../../core/lookBack/rows.ts'
import { CLASSES } from '../../core/targets/classes.ts'
import { readFooter, readHour, writeHour } from './hourFile.ts'

// DuckDB reads the files as any data tool would: it knows nothing of this project.

const START = Date.parse('2026-11-24T10:00:00Z')
let folder: string
let duck: DuckDBConnection
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'wardoptic-hour-'))
  duck = await (await DuckDBInstance.create()).connect()
})
afterAll(() => {
  duck.closeSync()
  rmSync(folder, { recursive: true, force: true })
})

function rowsOf(n: number): ReportedColumns {
  const rows = emptyColumns(n)
  for (let i = 0; i < n; i++) {
    rows.at[i] = START + 100 * Math.floor(i / 3)
    rows.target[i] = (i % 3) + 3 * Math.floor(i / 3000)
    rows.cls[i] = i % CLASSES.length
    rows.x[i] = (i % 977) / 977
    rows.y[i] = 0.1
    rows.w[i] = 0.05 + i / (20 * n)
    rows.h[i] = 0.2
    rows.likelihood[i] = i % 7 === 0 ? 0.5 : 1
  }
  return rows
}

test('a general Parquet reader sees every row as it was', async () => {
  const rows = rowsOf(20_000)
  const file = join(folder, 'hour.parquet')
  writeFileSync(file, writeHour({ rows, heard: [[START, START + 3_600_000]] }))
  const read = await duck.runAndReadAll(
    `SELECT epoch_ms(time), target, class, "left", top, width, height, likelihood FROM '${file}'`
  )
  const seen = read.getRows()
  expect(seen).toHaveLength(20_000)
  expect(seen.map(([time, ...others]) => [Number(time), ...others])).toEqual(
    Array.from({ length: 20_000 }, (_, i) => [
      rows.at[i],
      rows.target[i],
      CLASSES[rows.cls[i]!],
      rows.x[i],
      rows.y[i],
      rows.w[i],
      rows.h[i],
      rows.likelihood[i]
    ])
  )
  // And it can ask by time, as of any table with times.
  const counted = await duck.runAndReadAll(
    `SELECT count(*), count(DISTINCT target) FROM '${file}' WHERE time < TIMESTAMP '2026-11-24 10:00:10'`
  )
  expect(counted.getRows()[0]!.map(Number)).toEqual([300, 3])
})

test('it is read back as it was written, and its footer without the rows', async () => {
  const rows = rowsOf(5000)
  const heard: [number, number][] = [
    [START, START + 60_000],
    [START + 70_000, START + 3_600_000]
  ]
  const bytes = writeHour({ rows, heard })
  expect(await readHour(bytes)).toEqual({ rows, heard })
  const end = readFooter(bytes.subarray(bytes.length - 4000))
  expect(end.heard).toEqual(heard)
  expect(end.rows).toBe(5000)
  const counts = [...end.tens.values()].flat()
  expect(counts.reduce((a, b) => a + b, 0)).toBe(6)
})

test('an hour in which nothing was seen is one too', async () => {
  const bytes = writeHour({ rows: emptyColumns(0), heard: [[START, START + 1000]] })
  expect(await readHour(bytes)).toEqual({ rows: emptyColumns(0), heard: [[START, START + 1000]] })
  writeFileSync(join(folder, 'empty.parquet'), bytes)
  const read = await duck.runAndReadAll(`SELECT count(*) FROM '${join(folder, 'empty.parquet')}'`)
  expect(Number(read.getRows()[0]![0])).toBe(0)
})

test('a file that is cut short is refused', async () => {
  const bytes = writeHour({ rows: rowsOf(300), heard: [] })
  await expect(readHour(bytes.subarray(0, bytes.length - 5))).rejects.toThrow()
})

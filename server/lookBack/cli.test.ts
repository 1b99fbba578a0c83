import { spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { DuckDBInstance } from '@duckdb/node-api'
import { readMot } from '../../core/formats/mot.ts'
import { closeHour } from './closing.ts'
import { HourWriter } from './hourWriter.ts'
import { HOUR_MS, hourPath } from './hours.ts'

const START = Date.parse('2026-11-24T10:00:00Z')
let data: string
beforeAll(async () => {
  data = mkdtempSync(join(tmpdir(), 'wardoptic-look-back-'))
  const folder = join(data, 'look-back')
  const writer = new HourWriter(folder, {
    closed: () => {},
    failed: (error) => {
      throw error
    }
  })
  const from = START + HOUR_MS - 10_000
  writer.begin('yard', from)
  for (let k = 0; k < 200; k++)
    writer.take('yard', from + 100 * k, [
      { id: 3, class: 'person', x: 0.25, y: 0.5, w: 0.05, h: (k + 1) / 400, likelihood: 0.75 },
      { id: 4, class: 'animal', x: k / 256, y: 0.125, w: 0.0625, h: 0.25 }
    ])
  writer.closeAll(from + 20_000)
  await closeHour(folder, 'yard', START)
})
afterAll(() => rmSync(data, { recursive: true, force: true }))

const run = (...args: string[]) =>
  spawnSync(process.execPath, ['scripts/run.mjs', 'server/lookBack/cli.ts', ...args], {
    encoding: 'utf8'
  })

test('writes the rows of closed and running hours as MOTChallenge text', async () => {
  const out = join(data, 'tracks.csv')
  const from = START + HOUR_MS - 10_000
  const range = [
    '--from',
    new Date(from).toISOString(),
    '--to',
    new Date(from + 60_000).toISOString()
  ]
  const { status, stderr } = run('--camera', 'yard', ...range, '--out', out, '--data', data)
  expect(stderr).toContain('400 rows')
  expect(stderr).toContain('Not listened to for 40 s')
  expect(status).toBe(0)
  const tracks = readMot(readFileSync(out, 'utf8'), 10, { width: 1920, height: 1080 })
  expect(tracks.length).toBe(400)
  expect([...new Set(tracks.id)]).toEqual([3, 4])
  expect(tracks.frame[399]).toBe(200)
  expect(tracks.confidence[0]).toBe(0.75)
  // The closed hour by another reader of Parquet: the same boxes at the same frames, to the hundredth of a pixel.
  const duck = await (await DuckDBInstance.create()).connect()
  const read = await duck.runAndReadAll(
    `SELECT (epoch_ms(time) - ${from}) // 100 + 1 AS frame, target, round("left" * 1920, 2), round(top * 1080, 2) FROM '${hourPath(join(data, 'look-back'), 'yard', START)}' ORDER BY frame, target`
  )
  duck.closeSync()
  const lines = readFileSync(out, 'utf8').trim().split('\n')
  expect(read.getRows().map((row) => row.map(Number))).toEqual(
    lines.slice(0, 200).map((line) => line.split(',').slice(0, 4).map(Number))
  )
})

test('what cannot be is said with its place', () => {
  const out = ['--out', join(data, 'none.csv'), '--data', data]
  const range = ['--from', '2026-11-24T10:00:00Z', '--to', '2026-11-24T11:00:00Z']
  expect(run('--camera', 'gate', ...range, ...out)).toMatchObject({ status: 1 })
  expect(run('--camera', 'gate', ...range, ...out).stderr).toContain('there are yard')
  expect(run('--camera', '../x', ...range, ...out).status).toBe(1)
  const wrong = run('--camera', 'yard', '--from', 'yesterday', '--to', range[3]!, ...out)
  expect(wrong).toMatchObject({ status: 2 })
  expect(wrong.stderr).toContain('--from is "yesterday"')
  expect(run('--camera', 'yard', '--from', range[3]!, '--to', range[1]!, ...out).status).toBe(2)
})

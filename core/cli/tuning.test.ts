import { spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { writeMot } from '../formats/mot.ts'
import { weekOf } from '../tuning/testing/weeks.ts'

let folder: string
const file = (name: string) => join(folder, name)
/** Three days, each with two who pass for 3 s and two who stay for 20 s. */
const week = weekOf(
  Array.from({ length: 3 }, () => [
    { at: 10, stays: 3, mark: 'nuisance' as const },
    { at: 30, stays: 3, mark: 'nuisance' as const },
    { at: 60, stays: 20, mark: 'wanted' as const },
    { at: 120, stays: 20, mark: 'wanted' as const }
  ])
)
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'wardoptic-tuning-'))
  writeFileSync(
    file('plan.json'),
    JSON.stringify({
      format: 'wardoptic-plan/1',
      timeZone: 'Europe/London',
      cameras: [
        {
          id: 'yard',
          name: 'Yard',
          detections: [
            {
              id: 'gate',
              name: 'Gate',
              kind: 'intrusion',
              zone: [
                [0.2, 0.3],
                [0.8, 0.3],
                [0.8, 0.9],
                [0.2, 0.9]
              ],
              dwellSeconds: 1
            }
          ]
        }
      ]
    })
  )
  week.stretches.forEach(({ tracks }, i) =>
    writeFileSync(file(`day${i}.csv`), writeMot(tracks, { width: 1000, height: 1000 }))
  )
  writeFileSync(file('marks.jsonl'), week.marks.map((mark) => JSON.stringify(mark)).join('\n'))
})
afterAll(() => rmSync(folder, { recursive: true, force: true }))

const run = (command: string, ...args: string[]) =>
  spawnSync(process.execPath, ['scripts/run.mjs', `core/cli/${command}.ts`, ...args], {
    encoding: 'utf8'
  })
const days = () =>
  week.stretches.flatMap(({ start }, i) => [
    '--tracks',
    file(`day${i}.csv`),
    '--start',
    new Date(start).toISOString()
  ])
const usual = () => [
  file('plan.json'),
  '--camera',
  'yard',
  '--detection',
  'gate',
  ...days(),
  '--fps',
  '10',
  '--size',
  '1000x1000'
]

describe('sweep', () => {
  test('prints a JSON line for each value, in order', () => {
    const { stdout, status } = run(
      'sweep',
      ...usual(),
      '--marks',
      file('marks.jsonl'),
      '--setting',
      'dwellSeconds',
      '--values',
      '30,2,10'
    )
    expect(status).toBe(0)
    expect(
      stdout
        .trim()
        .split('\n')
        .map((line) => JSON.parse(line) as unknown)
    ).toEqual([
      { value: 2, wanted: 6, nuisance: 6, unmarked: 0 },
      { value: 10, wanted: 6, nuisance: 0, unmarked: 0 },
      { value: 30, wanted: 0, nuisance: 0, unmarked: 0 }
    ])
  })

  test('a setting that the detection does not have is named with those it has', () => {
    const { stderr, status } = run('sweep', ...usual(), '--setting', 'graceSeconds')
    expect(status).toBe(1)
    expect(stderr).toContain('"graceSeconds" is no number that this detection has')
    expect(stderr).toContain('dwellSeconds')
  })

  test('each file needs its start', () => {
    const { stderr, status } = run(
      'sweep',
      ...usual(),
      '--tracks',
      file('day0.csv'),
      '--setting',
      'dwellSeconds'
    )
    expect(status).toBe(2)
    expect(stderr).toContain('--tracks is given 4 times, --start 3 times')
  })
})

describe('recommend', () => {
  test('prints what changes, what it keeps, and what it does on days left out', () => {
    const { stdout, status } = run('recommend', ...usual(), '--marks', file('marks.jsonl'))
    expect(status).toBe(0)
    expect(JSON.parse(stdout)).toEqual({
      settings: { dwellSeconds: 3.1 },
      ignore: [],
      kept: 6,
      wanted: 6,
      gone: 6,
      nuisances: 6,
      unmarked: 0,
      leftOut: { days: 3, kept: 6, wanted: 6, gone: 6, nuisances: 6 },
      reason: 'On days left out: 6 of 6 wanted kept, 6 of 6 nuisances gone, over 3 days.'
    })
  })

  test('without marks it says what is missing', () => {
    const { stdout } = run('recommend', ...usual())
    expect(JSON.parse(stdout)).toMatchObject({ settings: {}, leftOut: null, wanted: 0 })
    expect((JSON.parse(stdout) as { reason: string }).reason).toContain('Too little to go by')
  })
})

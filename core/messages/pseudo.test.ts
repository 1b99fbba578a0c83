/** @language pseudo */
import { execFileSync, spawnSync } from 'node:child_process'
import { fileURLToPath } from 'node:url'
import { describe, expect, test } from '@jest/globals'
import { unmarked } from '../testing/unmarked.ts'

import { catalogue } from './catalogue.ts'
import { wordsOf } from './words.ts'
import { errorWords, problemWords } from './errorWords.ts'
import { usage } from './en/usage.ts'
import { DetectionSchema } from '../formats/plan.ts'
import { emailOf } from '../actions/email.ts'
import { parseWith } from '../schema/parse.ts'
import * as format from './format.ts'

test('finds text outside the marks', () => {
  expect(unmarked('⟦a ⟦b⟧ c⟧ plain ⟦d⟧ Quay', ['Quay'])).toEqual(['plain'])
})

test('marks every text of the catalogue and the commands', () => {
  const texts = [...Object.values(catalogue), usage].flatMap((area) =>
    Object.values(area as Record<string, unknown>).filter((text) => typeof text === 'string')
  )
  expect(texts.length).toBeGreaterThan(300)
  expect(texts.flatMap((text) => unmarked(text))).toEqual([])
})

test('marks units, dates and durations', () => {
  const at = Date.UTC(2026, 10, 26)
  expect(
    [
      format.seconds(2),
      format.settingSeconds(2),
      format.metres(2),
      format.duration(90),
      format.duration(0),
      format.byteSize(2e9),
      format.dateAndTime(at, 'UTC'),
      format.dateText('2026-12-25'),
      format.weekdayAndTime(at, 'UTC')
    ].flatMap((text) => unmarked(text))
  ).toEqual([])
})

test('marks an error with its place and field', () => {
  let error: unknown
  try {
    parseWith(DetectionSchema, { id: 'e', name: '', kind: 'line' })
  } catch (thrown) {
    error = thrown
  }
  expect(unmarked(errorWords(error).replace(/^\$[.\w]*: /, ''))).toEqual([])
  expect(unmarked(problemWords(error))).toEqual([])
})

describe('marks a mail', () => {
  const names = ['Skerrow Landing', 'Slipway', 'Quay edge', 'Water', 'Land', 'Europe/London']
  const shapes = {
    line: {
      line: [
        [0, 0.5],
        [1, 0.5]
      ],
      sides: { left: 'Water', right: 'Land' }
    },
    tamper: {},
    signalLoss: {}
  }
  test.each(Object.entries(shapes))(
    'marks a mail of %s and why it has no picture',
    (kind, shape) => {
      const { subject, text } = emailOf({
        site: { name: 'Skerrow Landing', timeZone: 'Europe/London' },
        camera: 'Slipway',
        detection: parseWith(DetectionSchema, { id: 'e', name: 'Quay edge', kind, ...shape }),
        trigger: {
          ...(kind === 'line' && { target: 5, time: 39.1, direction: 'rightToLeft' as const }),
          ...(kind === 'tamper' && { cause: 'covered' as const, severity: 'major' as const })
        },
        cls: 'person',
        instant: Date.UTC(2026, 6, 3),
        pictures: 0,
        missing: { code: 'deliveries.noEarlierPictures' }
      })
      expect(unmarked(`${subject}\n${text}`, names)).toEqual([])
      expect(wordsOf({ code: 'deliveries.noEarlierPictures' })).toMatch(/^⟦.*⟧$/)
    }
  )
})

describe('marks the command line', () => {
  const root = fileURLToPath(new URL('../..', import.meta.url))
  const run = (...args: string[]): { status: number | null; text: string } => {
    const { status, stdout, stderr } = spawnSync(process.execPath, ['scripts/run.mjs', ...args], {
      cwd: root,
      encoding: 'utf8',
      env: { ...process.env, WARDOPTIC_LANGUAGE: 'pseudo' }
    })
    return { status, text: stdout + stderr }
  }
  test.each([
    [['core/cli/evaluate.ts', '--help'], 0],
    [['core/cli/evaluate.ts', 'no-such-plan.json'], 2],
    [['analysis/cli.ts', 'a', 'b'], 2],
    [['server/backup/cli.ts'], 2],
    [['server/backup/restoreCli.ts', 'no-such-file', '--data', '/nowhere/at/all'], 1],
    [['server/accounts/recover.ts'], 2]
  ])('%j', (args, status) => {
    const said = run(...args)
    expect(said.status).toBe(status)
    expect(said.text).toMatch(/⟦/)
    expect(unmarked(said.text, args)).toEqual([])
  })
})

test('leaves English unmarked', () => {
  const said = execFileSync(
    process.execPath,
    ['scripts/run.mjs', 'core/cli/evaluate.ts', '--help'],
    {
      cwd: fileURLToPath(new URL('../..', import.meta.url)),
      encoding: 'utf8',
      env: { ...process.env, WARDOPTIC_LANGUAGE: '' }
    }
  )
  expect(said).toMatch(/^usage: npm run evaluate/)
})

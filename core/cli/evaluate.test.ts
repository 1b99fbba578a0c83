import { spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { emptyMeasures, writeMeasures } from '../measures/measures.ts'

let folder: string
const file = (name: string) => join(folder, name)
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'wardoptic-evaluate-'))
  const plan = {
    format: 'wardoptic-plan/1',
    timeZone: 'Europe/London',
    cameras: [
      {
        id: 'slipway',
        name: 'Slipway',
        detections: [
          {
            id: 'edge',
            name: 'Quay edge',
            kind: 'line',
            line: [
              [0.1, 0.5],
              [0.9, 0.5]
            ],
            classes: ['person']
          }
        ]
      }
    ]
  }
  writeFileSync(file('plan.json'), JSON.stringify(plan))
  writeFileSync(file('broken.json'), '{"format": "wardoptic-plan/1",')
  writeFileSync(
    file('bad.json'),
    JSON.stringify({
      ...plan,
      cameras: [
        {
          ...plan.cameras[0],
          detections: [{ ...plan.cameras[0]!.detections[0], line: [[0.1, 0.5]] }]
        }
      ]
    })
  )
  writeFileSync(
    file('tracks.csv'),
    '57,3,300,60,40,90,1,1,1\n58,3,300,170,40,90,1,1,1\n57,4,100,60,40,90,1,3,1\n58,4,100,170,40,90,1,3,1\n'
  )
  writeFileSync(file('bad.csv'), '57,3,300,130\n')
})
afterAll(() => rmSync(folder, { recursive: true, force: true }))

const usual = () => [
  '--camera',
  'slipway',
  '--tracks',
  file('tracks.csv'),
  '--fps',
  '10',
  '--size',
  '640x360',
  '--start',
  '2026-11-24T18:30:00Z'
]
const run = (...args: string[]) => {
  const { status, stdout, stderr } = spawnSync(
    process.execPath,
    ['scripts/run.mjs', 'core/cli/evaluate.ts', ...args],
    { encoding: 'utf8' }
  )
  return { status, stdout, stderr }
}

describe('npm run evaluate', () => {
  test('prints the triggers as JSON lines, in the form of docs/detections.md, and nothing else', () => {
    const { status, stdout, stderr } = run(file('plan.json'), ...usual(), '--silent')
    expect({ status, stderr }).toEqual({ status: 0, stderr: '' })
    expect(stdout).toBe(
      '{"detection":"edge","kind":"line","target":3,"frame":58,"time":5.7,"direction":"leftToRight"}\n'
    )
  })

  test('--trace prints why, --expected the score', () => {
    const trace = JSON.parse(run(file('plan.json'), ...usual(), '--trace', 'edge:4').stdout)
    expect(trace).toMatchObject({
      detection: 'edge',
      target: 4,
      fired: false,
      sentence: expect.saying('Class not met: vehicle at 5.7 s, needs person.')
    })
    expect(trace.history.map((h: { gate: string }) => h.gate)).toContain('share')
    writeFileSync(
      file('expected.jsonl'),
      '{"detection":"edge","time":5.6,"direction":"leftToRight"}\n\n{"detection":"edge","time":60}\n'
    )
    expect(
      JSON.parse(run(file('plan.json'), ...usual(), '--expected', file('expected.jsonl')).stdout)
    ).toMatchObject({ recall: 0.5, precision: 1, misses: [{ time: 60 }], false: [] })
  })

  test('arm inputs come from a file', () => {
    const plan = JSON.parse(readFileSync(file('plan.json'), 'utf8'))
    plan.cameras[0].detections[0].armInput = { input: 'panel' }
    writeFileSync(file('armed.json'), JSON.stringify(plan))
    const inputs = (set: boolean) => {
      writeFileSync(
        file('inputs.json'),
        JSON.stringify({ panel: [{ at: '2026-11-24T18:00:00Z', set }] })
      )
      return run(file('armed.json'), ...usual(), '--inputs', file('inputs.json'), '--silent').stdout
    }
    expect(inputs(true)).toContain('"target":3')
    expect(inputs(false)).toBe('')
    writeFileSync(file('inputs.json'), '{"panel": [{"at": "six", "set": true}]}')
    expect(run(file('armed.json'), ...usual(), '--inputs', file('inputs.json'))).toMatchObject({
      status: 1,
      stderr: expect.saying('$.panel[0].at: must be an instant with its offset from UTC')
    })
  })

  test('kinds that look at frames trigger and trace with measures, and say so without', () => {
    const plan = JSON.parse(readFileSync(file('plan.json'), 'utf8'))
    plan.cameras[0].detections = [
      { id: 'all', name: 'All movement', kind: 'motion', cells: ['11', '11'], threshold: 50 }
    ]
    writeFileSync(file('motion.json'), JSON.stringify(plan))
    const measures = emptyMeasures({ columns: 2, rows: 2 }, 32, 18, 10, 20)
    measures.cells.fill(200, 5 * 4, 15 * 4)
    writeFileSync(file('measures.bin'), writeMeasures(measures))
    const args = [file('motion.json'), ...usual()]
    expect(run(...args, '--measures', file('measures.bin'), '--silent').stdout).toBe(
      '{"detection":"all","kind":"motion","frame":8,"time":0.7}\n'
    )
    expect(
      JSON.parse(run(...args, '--measures', file('measures.bin'), '--trace', 'all').stdout)
    ).toMatchObject({
      curves: [{ limit: 50, values: expect.arrayContaining([100]) }],
      episodes: [{ firedAt: 0.7 }],
      ladder: { fired: true }
    })
    expect(run(...args)).toMatchObject({
      status: 0,
      stdout: '',
      stderr: 'without --measures all cannot trigger\n0 triggers\n'
    })
    expect(run(...args, '--trace', 'all')).toMatchObject({ status: 0 })
    writeFileSync(
      file('fine.bin'),
      writeMeasures(emptyMeasures({ columns: 4, rows: 3 }, 32, 18, 10, 20))
    )
    expect(run(...args, '--measures', file('fine.bin'))).toMatchObject({
      status: 1,
      stderr: expect.saying(
        'measures: have 4 × 3 cells, but all has 2 × 2; analyse the clip with --grid 2x2'
      )
    })
    expect(run(...args, '--measures', file('fine.bin'), '--fps', '12')).toMatchObject({
      status: 1,
      stderr: expect.saying(
        'measures: are at 10 frames/s, but --fps is 12; both must be of the same clip'
      )
    })
  })

  test.each([
    [
      1,
      () => [file('plan.json'), ...usual(), '--trace', 'edge:99'],
      '--trace: target 99 is not in the tracks'
    ],
    [
      1,
      () => [file('plan.json'), ...usual(), '--trace', 'gate:3'],
      '--trace: "gate" is not a detection of this camera; it has edge'
    ],
    [
      2,
      () => [file('plan.json'), ...usual(), '--trace', 'edge'],
      '--trace is "edge"; edge looks at targets, so that one must be named: DETECTION:TARGET'
    ],
    [
      2,
      () => [file('plan.json'), ...usual(), '--trace', 'edge:x'],
      '--trace is "edge:x"; must be DETECTION:TARGET'
    ],
    [
      1,
      () => [file('plan.json'), ...usual(), '--measures', file('tracks.csv')],
      'measures: are not in the format wardoptic-measures/1'
    ],
    [
      1,
      () => [file('plan.json'), ...usual(), '--faces', file('bad.csv')],
      'line 1: has 4 columns; a face is frame,id,left,top,width,height'
    ],
    [
      1,
      () => [file('plan.json'), ...usual(), '--expected', file('tracks.csv')],
      'line 1: is not JSON'
    ],
    [1, () => [file('broken.json'), ...usual()], '$: is not JSON'],
    [
      1,
      () => [file('bad.json'), ...usual()],
      '$.cameras[0].detections[0].line: has 1 vertex; a line needs 2 to 10'
    ],
    [1, () => [file('nothing.json'), ...usual()], 'plan: cannot read'],
    [
      1,
      () => [file('plan.json'), ...usual(), '--camera', 'quay'],
      '--camera: "quay" is not in the plan; it has slipway'
    ],
    [
      1,
      () => [file('plan.json'), ...usual(), '--tracks', file('bad.csv')],
      'line 1: has 4 columns'
    ],
    [
      2,
      () => [file('plan.json'), ...usual(), '--fps', '0'],
      '--fps is "0"; must be a number above 0'
    ],
    [
      2,
      () => [file('plan.json'), ...usual(), '--size', '640'],
      '--size is "640"; must be WIDTHxHEIGHT'
    ],
    [
      2,
      () => [file('plan.json'), ...usual(), '--start', 'yesterday'],
      '--start is "yesterday"; must be an instant'
    ],
    [2, () => [file('plan.json'), '--camera', 'slipway'], '--tracks is missing'],
    [2, () => [...usual()], 'give one plan'],
    [2, () => [file('plan.json'), ...usual(), '--loud'], "Unknown option '--loud'"]
  ])('exit code %i, with the reason on standard error only', (code, args, message) => {
    const { status, stdout, stderr } = run(...args())
    expect({ status, stdout }).toEqual({ status: code, stdout: '' })
    expect(stderr).toContain(message)
  })
})
